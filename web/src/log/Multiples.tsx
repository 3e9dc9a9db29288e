import type { Log } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";

const W = 280;
const H = 110;
const PAD = 10;

/** Small multiples: each load over the weigh-ins against its rating, every point with its ±. */
export function Multiples({ log }: { log: Log }) {
  const { rig } = useDesk();
  const last = Math.max(...log.entries.map((entry) => entry.number));
  return (
    <section aria-label="Over time" className="mt-8">
      <h2 className="border-b border-ink font-cond text-[22px] font-semibold">Over time, in {rig.units.mass}</h2>
      <div className="mt-2 grid grid-cols-1 gap-x-8 gap-y-4 sm:grid-cols-2 md:grid-cols-3">
        {log.series.map((each) => (
          <Multiple key={each.key} series={each} last={last} />
        ))}
      </div>
      <p className="mt-2 text-[13px] text-soft">
        The dashed line is the rating as it stands now. Bars at the points are the scales' ±.
      </p>
    </section>
  );
}

function Multiple({ series, last }: { series: Log["series"][number]; last: number }) {
  const points = series.points.slice(-300);
  const values = points.flatMap((point) => [point.value - point.plus_minus, point.value + point.plus_minus]);
  const most = Math.max(...values, series.limit ?? 0) * 1.02;
  const least = Math.min(...values, series.limit ?? Number.POSITIVE_INFINITY) * 0.98;
  const x = (number: number) => PAD + ((number - 1) / Math.max(1, last - 1)) * (W - 2 * PAD);
  const y = (value: number) => H - PAD - ((value - least) / Math.max(1e-9, most - least)) * (H - 2 * PAD);
  const now = points.at(-1);
  const over = series.limit !== null && now !== undefined && now.value > series.limit;
  return (
    <figure data-series={series.key}>
      <figcaption className="flex items-baseline justify-between text-[15px]">
        <span>{series.label}</span>
        <span className={`font-cond text-[17px] font-semibold ${over ? "text-vermilion" : ""}`}>
          {now ? mass(now.value) : "?"}
          <span className="text-[14px] font-normal text-soft">
            {series.limit === null ? "" : ` of ${mass(series.limit)}`}
          </span>
        </span>
      </figcaption>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full border border-rule bg-card"
        role="img"
        aria-label={`${series.label} over ${points.length} weigh-ins`}
      >
        {series.limit !== null && (
          <path d={`M0 ${y(series.limit)}H${W}`} stroke="var(--ink)" strokeDasharray="4 4" strokeWidth={1.2} />
        )}
        <path
          d={`M${points.map((point) => `${x(point.weigh_in)} ${y(point.value)}`).join("L")}`}
          fill="none"
          stroke="var(--spruce)"
          strokeWidth={1.8}
        />
        {points.length < 60 &&
          points.map((point) => {
            const beyond = series.limit !== null && point.value > series.limit;
            return (
              <g key={point.weigh_in} stroke={beyond ? "var(--vermilion)" : "var(--spruce)"}>
                <path
                  d={`M${x(point.weigh_in)} ${y(point.value - point.plus_minus)}V${y(point.value + point.plus_minus)}`}
                  strokeWidth={1.4}
                />
                {beyond ? (
                  <rect x={x(point.weigh_in) - 4} y={y(point.value) - 4} width={8} height={8} fill="var(--vermilion)" />
                ) : (
                  <circle cx={x(point.weigh_in)} cy={y(point.value)} r={3.6} fill="var(--card)" strokeWidth={1.8} />
                )}
              </g>
            );
          })}
      </svg>
    </figure>
  );
}
