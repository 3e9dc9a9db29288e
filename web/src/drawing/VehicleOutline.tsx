import type { Geometry } from "../api/client";
import { isPin, type Layout } from "./layout";
import { body, glass, path, thin } from "./strokes";

/** The vehicle that pulls, carries, or is the whole rig. */
export function VehicleOutline({ geometry, layout }: { geometry: Geometry; layout: Layout }) {
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
    case "suv":
    case "wagon": {
      const roof = geometry.body === "van" ? 2.2 : geometry.body === "suv" ? 1.86 : 1.6;
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
