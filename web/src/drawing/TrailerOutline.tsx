import type { Geometry } from "../api/client";
import { isPin, type Layout } from "./layout";
import { body, glass, path, thin } from "./strokes";

/** The trailer by its style: closed, open, or a car on its own wheels. */
export function TrailerOutline({ geometry, layout }: { geometry: Geometry; layout: Layout }) {
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
