import type { Geometry } from "../api/client";
import { isPin, type Layout } from "./layout";

type Point = readonly [number, number];

/** A path through points in metres; a number after a point rounds that corner by as many metres. */
function path({ across, up }: Layout, corners: readonly (readonly [number, number, number?])[]): string {
  const count = corners.length;
  const steps = corners.map(([x, y, radius = 0], index) => {
    const here: Point = [across(x), up(y)];
    const [px, py] = corners[(index + count - 1) % count] ?? [x, y];
    const [nx, ny] = corners[(index + 1) % count] ?? [x, y];
    const from = toward(here, [across(px), up(py)], radius, x, y, px, py);
    const to = toward(here, [across(nx), up(ny)], radius, x, y, nx, ny);
    const start = `${index === 0 ? "M" : "L"}${from[0]} ${from[1]}`;
    return radius ? `${start}Q${here[0]} ${here[1]} ${to[0]} ${to[1]}` : start;
  });
  return `${steps.join("")}Z`;
}

function toward(here: Point, there: Point, radius: number, x: number, y: number, ox: number, oy: number): Point {
  const far = Math.hypot(ox - x, oy - y) || 1;
  const part = Math.min(0.5, radius / far);
  return [here[0] + (there[0] - here[0]) * part, here[1] + (there[1] - here[1]) * part];
}

const body = { fill: "var(--card)", stroke: "var(--ink)", strokeWidth: 1.8, strokeLinejoin: "round" } as const;
const thin = { fill: "none", stroke: "var(--ink)", strokeWidth: 1 } as const;
const glass = { fill: "var(--paper)", stroke: "var(--ink)", strokeWidth: 1.1, strokeLinejoin: "round" } as const;

function Wheel({ at, layout, radius = 0.38, lit }: { at: number; layout: Layout; radius?: number; lit: boolean }) {
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

function Vehicle({ geometry, layout }: { geometry: Geometry; layout: Layout }) {
  const a = geometry.wheelbase;
  const tail = a + (isPin(geometry) ? 1.1 : Math.max(0.55, Math.min(1.2, geometry.hitch_offset - 0.22)));
  const line = (corners: Parameters<typeof path>[1]) => path(layout, corners);
  switch (geometry.kind === "slide_in" ? "slide_in" : geometry.body) {
    case "motorhome":
      return (
        <g>
          <path
            {...body}
            d={line([
              [tail, 0.5],
              [tail, 2.95, 0.25],
              [0.1, 2.95, 0.5],
              [-0.55, 1.75],
              [-0.92, 1.15, 0.2],
              [-0.95, 0.5],
            ])}
          />
          <path
            {...glass}
            d={line([
              [-0.35, 1.75],
              [0.12, 2.5],
              [0.55, 2.5],
              [0.55, 1.75],
            ])}
          />
          <path
            {...glass}
            d={line([
              [a * 0.45, 1.75],
              [a * 0.45, 2.4, 0.08],
              [a * 0.78, 2.4, 0.08],
              [a * 0.78, 1.75],
            ])}
          />
          <path
            {...thin}
            d={line([
              [0.95, 0.62],
              [0.95, 2.45],
              [1.6, 2.45],
              [1.6, 0.62],
            ])}
          />
        </g>
      );
    case "van":
    case "wagon": {
      const roof = geometry.body === "van" ? 2.2 : 1.72;
      return (
        <g>
          <path
            {...body}
            d={line([
              [tail, 0.45],
              [tail, 1.05, 0.1],
              [tail - 0.28, roof, 0.3],
              [1.35, roof, 0.45],
              [0.62, 1.14, 0.2],
              [-0.7, 0.98, 0.3],
              [-0.9, 0.45],
            ])}
          />
          <path
            {...glass}
            d={line([
              [0.98, 1.14],
              [1.5, roof - 0.16],
              [a * 0.55, roof - 0.16],
              [a * 0.55, 1.14],
            ])}
          />
          <path
            {...glass}
            d={line([
              [a * 0.59, 1.14],
              [a * 0.59, roof - 0.16],
              [tail - 0.5, roof - 0.16],
              [tail - 0.3, 1.14],
            ])}
          />
          <path {...thin} d={`M${layout.across(a * 0.57)} ${layout.up(1.1)}V${layout.up(0.5)}`} />
        </g>
      );
    }
    default: {
      const cab = Math.max(1.9, a - 1.2);
      return (
        <g>
          <path
            {...body}
            d={line([
              [tail, 0.5],
              [tail, 1.26, 0.05],
              [cab, 1.26],
              [cab - 0.1, 1.86, 0.2],
              [1.45, 1.88, 0.35],
              [0.72, 1.28],
              [-0.84, 1.14, 0.28],
              [-0.97, 0.92, 0.08],
              [-0.97, 0.48, 0.05],
            ])}
          />
          <path
            {...glass}
            d={line([
              [0.98, 1.27],
              [1.52, 1.76],
              [(cab + 1.2) / 2, 1.76],
              [(cab + 1.2) / 2, 1.27],
            ])}
          />
          <path
            {...glass}
            d={line([
              [(cab + 1.2) / 2 + 0.1, 1.27],
              [(cab + 1.2) / 2 + 0.1, 1.76],
              [cab - 0.26, 1.76],
              [cab - 0.18, 1.27],
            ])}
          />
          <path {...thin} d={`M${layout.across(cab)} ${layout.up(1.26)}V${layout.up(0.5)}`} />
          <path {...thin} d={`M${layout.across(cab + 0.06)} ${layout.up(1.08)}H${layout.across(tail)}`} />
          {geometry.kind === "slide_in" && (
            <path
              {...body}
              d={line([
                [tail + 0.5, 1.1],
                [tail + 0.5, 3, 0.2],
                [0.5, 3, 0.35],
                [0.75, 2.05],
                [cab + 0.05, 2.05],
                [cab + 0.05, 1.1],
              ])}
            />
          )}
        </g>
      );
    }
  }
}

function Trailer({ geometry, layout }: { geometry: Geometry; layout: Layout }) {
  const { across, up, marks } = layout;
  const hitch = marks.hitch;
  const tail = marks.tail;
  const line = (corners: Parameters<typeof path>[1]) => path(layout, corners);
  if (isPin(geometry)) {
    const step = hitch + Math.min(1.9, geometry.coupler_to_axles * 0.25);
    const span = tail - step;
    return (
      <g>
        <path
          {...body}
          d={line([
            [tail, 0.62],
            [tail, 3.45, 0.2],
            [hitch - 0.2, 3.45, 0.6],
            [hitch - 1.0, 2.5, 0.35],
            [hitch - 0.85, 1.78],
            [step - 0.15, 1.78, 0.2],
            [step, 0.62],
          ])}
        />
        <path
          {...glass}
          d={line([
            [hitch - 0.25, 2.25],
            [hitch - 0.25, 2.9, 0.08],
            [hitch + 0.7, 2.9, 0.08],
            [hitch + 0.7, 2.25],
          ])}
        />
        <path
          {...glass}
          d={line([
            [step + span * 0.55, 1.85],
            [step + span * 0.55, 2.75, 0.08],
            [step + span * 0.85, 2.75, 0.08],
            [step + span * 0.85, 1.85],
          ])}
        />
        <path
          {...thin}
          d={line([
            [step + span * 0.12, 0.75],
            [step + span * 0.12, 2.7],
            [step + span * 0.12 + 0.7, 2.7],
            [step + span * 0.12 + 0.7, 0.75],
          ])}
        />
        <path {...body} d={`M${across(hitch - 0.12)} ${up(1.78)}V${up(1.34)}H${across(hitch + 0.12)}V${up(1.78)}`} />
      </g>
    );
  }
  if (geometry.style !== "box") return <OpenTrailer geometry={geometry} layout={layout} />;
  const front = hitch + Math.min(1.05, geometry.coupler_to_axles * 0.24);
  const span = tail - front;
  return (
    <g>
      <path
        {...body}
        d={`M${across(hitch)} ${up(0.56)}L${across(front + 0.1)} ${up(0.66)}V${up(0.54)}L${across(hitch)} ${up(0.46)}Z`}
      />
      <path {...thin} d={`M${across(hitch + 0.38)} ${up(0.85)}V${up(0.16)}m-4 0h8`} />
      <path
        {...body}
        d={line([
          [tail, 0.55],
          [tail, 2.78, 0.45],
          [front + 0.1, 2.78, 0.7],
          [front, 1.2, 0.4],
          [front + 0.12, 0.55],
        ])}
      />
      <path {...thin} d={`M${across(front + 0.03)} ${up(1.05)}H${across(tail)}`} />
      <path
        {...glass}
        d={line([
          [front + 0.4, 1.55],
          [front + 0.45, 2.25, 0.1],
          [front + span * 0.3, 2.25, 0.1],
          [front + span * 0.3, 1.55],
        ])}
      />
      <path
        {...glass}
        d={line([
          [front + span * 0.68, 1.55],
          [front + span * 0.68, 2.25, 0.1],
          [front + span * 0.88, 2.25, 0.1],
          [front + span * 0.88, 1.55],
        ])}
      />
      <path
        {...body}
        strokeWidth={1.1}
        d={line([
          [front + span * 0.38, 0.68],
          [front + span * 0.38, 2.4, 0.12],
          [front + span * 0.38 + 0.66, 2.4, 0.12],
          [front + span * 0.38 + 0.66, 0.68],
        ])}
      />
    </g>
  );
}

/** A car from nose to tail between two points, its sill so far above the ground. */
function car(from: number, to: number, sill: number): readonly (readonly [number, number, number?])[] {
  const long = to - from;
  return [
    [to, sill],
    [to, sill + 0.6, 0.15],
    [from + long * 0.86, sill + 1.05, 0.25],
    [from + long * 0.42, sill + 1.05, 0.25],
    [from + long * 0.27, sill + 0.58, 0.1],
    [from + 0.1, sill + 0.46, 0.25],
    [from, sill],
  ];
}

/** What is not a box: an open bed, a boat, a car carrier, a car on its own wheels. */
function OpenTrailer({ geometry, layout }: { geometry: Geometry; layout: Layout }) {
  const { across, up, marks } = layout;
  const { hitch, tail } = marks;
  const line = (corners: Parameters<typeof path>[1]) => path(layout, corners);
  const front = hitch + Math.min(1.3, geometry.coupler_to_axles * 0.3);
  const drawbar = `M${across(hitch)} ${up(0.54)}L${across(front + 0.1)} ${up(0.6)}V${up(0.48)}L${across(hitch)} ${up(0.46)}Z`;
  const deck: readonly (readonly [number, number])[] = [
    [tail, 0.5],
    [tail, 0.68],
    [front, 0.68],
    [front, 0.5],
  ];
  switch (geometry.style) {
    case "towed_car": {
      const nose = (marks.axles[0] ?? hitch + 1) - 0.9;
      return (
        <g>
          <path {...thin} strokeWidth={2.4} d={`M${across(hitch)} ${up(0.5)}H${across(nose + 0.1)}`} />
          <path {...body} d={line(car(nose, tail, 0.38))} />
        </g>
      );
    }
    case "boat":
      return (
        <g>
          <path {...body} d={drawbar} />
          <path {...body} d={line(deck)} />
          <path
            {...body}
            d={line([
              [tail + 0.1, 0.8, 0.1],
              [tail + 0.1, 1.75],
              [front + (tail - front) * 0.45, 1.7],
              [front - 0.1, 2.05],
              [front + 0.7, 0.95, 0.7],
            ])}
          />
          <path
            {...glass}
            d={line([
              [front + (tail - front) * 0.5, 1.72],
              [front + (tail - front) * 0.42, 2.2],
              [front + (tail - front) * 0.46, 2.2],
              [front + (tail - front) * 0.58, 1.73],
            ])}
          />
        </g>
      );
    case "car_carrier":
      return (
        <g>
          <path {...body} d={drawbar} />
          <path {...body} d={line(deck)} />
          <path {...body} strokeWidth={1.2} d={line(car(front + 0.2, tail - 0.2, 0.98))} />
          {[front + 1.05, tail - 1.05].map((x) => (
            <circle key={x} {...body} strokeWidth={1.2} cx={across(x)} cy={up(0.98)} r={layout.scale * 0.3} />
          ))}
        </g>
      );
    default:
      return (
        <g>
          <path {...body} d={drawbar} />
          <path {...body} d={line(deck)} />
          <path {...thin} d={`M${across(front)} ${up(0.68)}V${up(1.2)}H${across(tail)}V${up(0.68)}`} />
          <path {...thin} d={`M${across((front + tail) / 2)} ${up(0.68)}V${up(1.2)}`} />
        </g>
      );
  }
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
      {towing && pin && <Trailer geometry={geometry} layout={layout} />}
      <Vehicle geometry={geometry} layout={layout} />
      {towing && !pin && (
        <>
          <path
            d={`M${across(marks.rear + 0.5)} ${up(0.45)}H${across(marks.hitch)}`}
            stroke="var(--ink)"
            strokeWidth={2.6}
            fill="none"
          />
          <Trailer geometry={geometry} layout={layout} />
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
