import type { BarCurve } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Field } from "../ui/Field";
import { scale } from "../ui/scales";
import { useWidth } from "../ui/useWidth";

const WIDEST = 560;
const H = 240;
const L = 60;
const R = 112;
const B = 40;
const T = 10;

/** Axle loads over the tension of the spring bars, from slack to the front axle's solo load; limits as dashed lines. */
export function BarsChart({ curve, onTry }: { curve: BarCurve; onTry: (restoration: number) => void }) {
  const { rig } = useDesk();
  const [box, width] = useWidth<HTMLElement>();
  const W = Math.min(WIDEST, Math.max(320, width || WIDEST));
  const lines = [
    { key: "front" as const, name: "front axle", limit: curve.front_limit },
    { key: "rear" as const, name: "rear axle", limit: curve.rear_limit },
    { key: "trailer" as const, name: "trailer axles", limit: curve.trailer_limit },
  ];
  const values = curve.points.flatMap((point) => [point.front, point.rear, point.trailer]);
  const most = Math.max(...values, ...lines.map((line) => line.limit ?? 0)) * 1.06;
  const least = Math.min(...values) * 0.85;
  const x = scale([0, 1], [L, W - R]);
  const y = scale([least, most], [H - B, T]);
  return (
    <section ref={box} aria-label="Spring bars" className="mt-6" data-part="bars">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">
        What the spring bars can and cannot do
      </h2>
      {curve.says.map((line) => (
        <p key={line} className="mt-1 text-[0.875rem] leading-snug">
          {line}
        </p>
      ))}
      <svg viewBox={`0 0 ${W} ${H}`} className="mt-2 block w-full" role="img" aria-label={curve.says.join(" ")}>
        {lines.map((line) => (
          <g key={line.key}>
            {line.limit !== null && (
              <path
                d={`M${L} ${y(line.limit)}H${W - R}`}
                stroke="var(--ink)"
                strokeWidth={1}
                strokeDasharray="3 4"
                opacity={0.6}
              />
            )}
            <path
              d={`M${curve.points.map((point) => `${x(point.restoration)} ${y(point[line.key])}`).join("L")}`}
              fill="none"
              stroke={
                line.limit !== null && (curve.points.at(-1)?.[line.key] ?? 0) > line.limit
                  ? "var(--vermilion)"
                  : "var(--spruce)"
              }
              strokeWidth={2.4}
            />
            <text
              x={W - R + 6}
              y={y(curve.points.at(-1)?.[line.key] ?? 0) + 4}
              fontSize={13}
              className="font-cond"
              fill="var(--ink)"
            >
              {line.name}
              {line.limit !== null && `, of ${mass(line.limit)}`}
            </text>
          </g>
        ))}
        <path d={`M${x(curve.now)} ${T}V${H - B}`} stroke="var(--ink)" strokeWidth={1.6} />
        <text
          x={x(curve.now)}
          y={H - B + 14}
          textAnchor="middle"
          fontSize={13}
          fontWeight={600}
          className="font-cond"
          fill="var(--ink)"
        >
          now {Math.round(curve.now * 100)} %
        </text>
        <text x={x(0)} y={H - 8} fontSize={13} fill="var(--soft)">
          slack
        </text>
        <text x={W < 480 ? W - 2 : x(1)} y={H - 8} textAnchor="end" fontSize={13} fill="var(--soft)">
          front axle as without the trailer
        </text>
        <text x={L - 6} y={y(most / 1.06) + 4} textAnchor="end" fontSize={12} fill="var(--soft)">
          {mass(most / 1.06)}
        </text>
        <text x={L - 6} y={y(least / 0.85) + 4} textAnchor="end" fontSize={12} fill="var(--soft)">
          {mass(least / 0.85)}
        </text>
        <path d={`M${L} ${T}V${H - B}H${W - R}`} stroke="var(--ink)" fill="none" strokeWidth={1.2} />
      </svg>
      <label className="block text-[0.875rem]">
        Try another tension
        <input
          type="range"
          min={0}
          max={1}
          step={0.05}
          value={curve.now}
          onChange={(event) => onTry(Number(event.currentTarget.value))}
          className="block w-full accent-[var(--ink)]"
        />
      </label>
      <Field
        path="hitch.target_restoration"
        term="restoration"
        label="The maker's target"
        hint="share restored, such as 60 %; the search stays within it"
      />
      <span className="hidden">{rig.units.mass}</span>
    </section>
  );
}
