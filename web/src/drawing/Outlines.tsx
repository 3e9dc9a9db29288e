import type { Geometry } from "../api/client";
import type { Layout } from "./layout";

type Outline = Geometry["outline"];
type Half = Outline["vehicle"];
type Axle = Half["wheels"][number]["axle"];

const FILLS = { body: "var(--card)", glass: "var(--paper)", line: "none" } as const;

/** Strokes in metres, at the scale of the drawing; their widths are the screen's. */
export function Strokes({ of, layout }: { of: Half["strokes"]; layout: Layout }) {
  const { across, ground, scale } = layout;
  return (
    <g
      transform={`translate(${across(0)} ${ground}) scale(${scale})`}
      stroke="var(--ink)"
      strokeLinejoin="round"
      fill="none"
    >
      {of.map(({ d, paint, weight }) => (
        <path key={d} d={d} fill={FILLS[paint]} strokeWidth={weight / scale} />
      ))}
    </g>
  );
}

export function Wheels({ of, layout, lit = null }: { of: Half; layout: Layout; lit?: Axle | null }) {
  const { across, up, scale } = layout;
  return of.wheels.map(({ at, radius, axle }) => (
    <g key={at} stroke="var(--ink)">
      <circle cx={across(at)} cy={up(radius)} r={(radius + 0.09) * scale} fill="var(--paper)" stroke="none" />
      <circle
        cx={across(at)}
        cy={up(radius)}
        r={radius * scale}
        fill={lit === axle ? "var(--ink)" : "var(--paper)"}
        strokeWidth={1.8}
      />
      <circle cx={across(at)} cy={up(radius)} r={radius * scale * 0.42} fill={lit === axle ? "var(--paper)" : "none"} />
    </g>
  ));
}

export function Ticks({ layout, width = layout.width }: { layout: Layout; width?: number }) {
  const ticks = Array.from({ length: Math.floor(width / 14) }, (_, at) => `M${at * 14 + 8} ${layout.ground}l-6 6`);
  return <path d={ticks.join("")} stroke="var(--rule)" strokeWidth={1} />;
}

/** What joins the two: the bar under the tail, and the ball. */
export function Coupling({ geometry, layout }: { geometry: Geometry; layout: Layout }) {
  const { across, up, scale } = layout;
  const { coupling, hitch, pin } = geometry.outline;
  if (pin) return null;
  return (
    <>
      <Strokes of={coupling} layout={layout} />
      <circle cx={across(hitch)} cy={up(0.55)} r={Math.max(3, scale * 0.085)} fill="var(--ink)" />
    </>
  );
}

/** The rig seen from the side, to the scale of its lengths; the core draws it, for the papers too. */
export function Outlines(props: { geometry: Geometry; towing: boolean; layout: Layout; lit: Axle | null }) {
  const { geometry, towing, layout, lit } = props;
  const { vehicle, trailer, pin } = geometry.outline;
  const behind = towing && <Strokes of={trailer.strokes} layout={layout} />;
  return (
    <g>
      <Ticks layout={layout} />
      {pin && behind}
      <Strokes of={vehicle.strokes} layout={layout} />
      {!pin && behind}
      {towing && <Coupling geometry={geometry} layout={layout} />}
      <Wheels of={vehicle} layout={layout} lit={lit} />
      {towing && <Wheels of={trailer} layout={layout} lit={lit} />}
      <path d={`M0 ${layout.ground}H${layout.width}`} stroke="var(--ink)" strokeWidth={1.6} />
    </g>
  );
}
