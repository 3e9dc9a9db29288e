import type { Geometry } from "../api/client";
import { isPin, type Layout } from "./layout";
import { TrailerOutline } from "./TrailerOutline";
import { VehicleOutline } from "./VehicleOutline";

export function Wheel({
  at,
  layout,
  radius = 0.38,
  lit,
}: {
  at: number;
  layout: Layout;
  radius?: number;
  lit: boolean;
}) {
  const { across, up, scale } = layout;
  return (
    <g>
      <circle cx={across(at)} cy={up(radius)} r={(radius + 0.09) * scale} fill="var(--paper)" stroke="none" />
      <circle
        cx={across(at)}
        cy={up(radius)}
        r={radius * scale}
        fill={lit ? "var(--ink)" : "var(--paper)"}
        stroke="var(--ink)"
        strokeWidth={1.8}
      />
      <circle
        cx={across(at)}
        cy={up(radius)}
        r={radius * scale * 0.42}
        fill={lit ? "var(--paper)" : "none"}
        stroke="var(--ink)"
      />
    </g>
  );
}

/** The rig seen from the side, in our own line work, to the scale of its real lengths. */
export function Outlines(props: {
  geometry: Geometry;
  towing: boolean;
  layout: Layout;
  lit: "front" | "rear" | "trailer" | null;
}) {
  const { geometry, towing, layout, lit } = props;
  const { across, up, marks, ground, width } = layout;
  const pin = isPin(geometry);
  const ticks = Array.from({ length: Math.floor(width / 14) }, (_, index) => `M${index * 14 + 8} ${ground}l-6 6`).join(
    "",
  );
  return (
    <g>
      <path d={ticks} stroke="var(--rule)" strokeWidth={1} />
      {towing && pin && <TrailerOutline geometry={geometry} layout={layout} />}
      <VehicleOutline geometry={geometry} layout={layout} />
      {towing && !pin && (
        <>
          <path
            d={`M${across(marks.rear + 0.5)} ${up(0.45)}H${across(marks.hitch)}`}
            stroke="var(--ink)"
            strokeWidth={2.6}
            fill="none"
          />
          <TrailerOutline geometry={geometry} layout={layout} />
          <circle cx={across(marks.hitch)} cy={up(0.55)} r={Math.max(3, layout.scale * 0.085)} fill="var(--ink)" />
        </>
      )}
      <Wheel at={0} layout={layout} lit={lit === "front"} />
      <Wheel at={marks.rear} layout={layout} lit={lit === "rear"} />
      {towing &&
        marks.axles.map((axle) => <Wheel key={axle} at={axle} layout={layout} radius={0.34} lit={lit === "trailer"} />)}
      <path d={`M0 ${ground}H${width}`} stroke="var(--ink)" strokeWidth={1.6} />
    </g>
  );
}
