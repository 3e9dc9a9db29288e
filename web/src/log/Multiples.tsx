import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Chart } from "../api/client";
import { useDesk } from "../api/useSheet";
import { day, mass } from "../format";
import { Button } from "../ui/controls";
import { scale } from "../ui/scales";

const W = 280;
const H = 110;
const PAD = 10;

/** Small multiples: each load over up to 300 weigh-ins against its rating, every point with its ±. */
export function Multiples() {
  const { sheet, rig } = useDesk();
  const [until, setUntil] = useState<number | undefined>();
  const found = useQuery({
    queryKey: ["chart", sheet.id, sheet.saved_at, until ?? 0],
    queryFn: () => api.chart(sheet.id, until),
    placeholderData: keepPreviousData,
  });
  const chart = found.data;
  if (!chart) return <div aria-hidden="true" className="mt-8 h-[26rem]" />; // what is below stays where it is
  if (chart.numbers.length < 2) return null;
  const [from, to] = [chart.numbers[0] ?? 1, chart.numbers.at(-1) ?? 1];
  return (
    <section aria-label="Over time" className="mt-8">
      <div className="flex flex-wrap items-end justify-between gap-2 border-b border-ink pb-1">
        <h2 className="font-cond text-[1.375rem] font-semibold">Over time, in {rig.units.mass}</h2>
        {chart.numbers.length < chart.count && (
          <div className="flex items-center gap-2 text-[0.875rem]">
            no. {from} to {to} of {chart.count.toLocaleString("en-US")}
            <Button disabled={from <= 1} onClick={() => setUntil(from - 1)}>
              Earlier
            </Button>
            <Button disabled={to >= chart.count} onClick={() => setUntil(Math.min(to + 300, chart.count))}>
              Later
            </Button>
          </div>
        )}
      </div>
      <div className="mt-2 grid grid-cols-1 gap-x-8 gap-y-4 sm:grid-cols-2 md:grid-cols-3">
        {chart.series.map((each) => (
          <Multiple key={each.key} series={each} chart={chart} />
        ))}
      </div>
      <p className="mt-2 text-[0.8125rem] text-soft">
        The dashed line is the rating as it stands now. Bars at the points are the scales' ±. Weigh-ins are evenly
        spaced, not by date.
      </p>
    </section>
  );
}

function Multiple({ series, chart }: { series: Chart["series"][number]; chart: Chart }) {
  const points = series.values.flatMap((value, index) =>
    value === null
      ? []
      : [
          {
            index,
            value,
            pm: series.plus_minus[index] ?? 0,
            date: chart.dates[index],
            over: series.over[index] ?? false,
          },
        ],
  );
  const values = points.flatMap((point) => [point.value - point.pm, point.value + point.pm]);
  const most = Math.max(...values, series.limit ?? 0) * 1.02;
  const least = Math.min(...values, series.limit ?? Number.POSITIVE_INFINITY) * 0.98;
  const x = scale([0, Math.max(1, series.values.length - 1)], [PAD, W - PAD]);
  const y = scale([least, most], [H - PAD, PAD]);
  const now = points.at(-1);
  const over = now?.over ?? false;
  const size = points.length < 40 ? 1 : points.length < 120 ? 0.6 : 0.4;
  // a weigh-in that did not settle this load breaks the line
  const line = points
    .map(
      (point, at) =>
        `${at && points[at - 1]?.index === point.index - 1 ? "L" : "M"}${x(point.index)} ${y(point.value)}`,
    )
    .join("");
  return (
    <figure data-series={series.key}>
      <figcaption className="flex items-baseline justify-between text-[0.9375rem]">
        <span>{series.label}</span>
        <span className={`font-cond text-[1.0625rem] font-semibold ${over ? "text-vermilion" : ""}`}>
          {now ? mass(now.value) : "?"}
          <span className="text-[0.875rem] font-normal text-soft">
            {series.limit === null ? "" : ` of ${mass(series.limit)}`}
          </span>
        </span>
      </figcaption>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full border border-edge bg-card"
        role="img"
        aria-label={`${series.label} over ${points.length} weigh-ins`}
      >
        {series.limit !== null && (
          <path d={`M0 ${y(series.limit)}H${W}`} stroke="var(--ink)" strokeDasharray="4 4" strokeWidth={1.2} />
        )}
        <path d={line} fill="none" stroke="var(--spruce)" strokeWidth={1.8 * size} />
        {points.map((point) => {
          const beyond = point.over;
          const [px, py] = [x(point.index), y(point.value)];
          return (
            <g key={point.index} stroke={beyond ? "var(--vermilion)" : "var(--spruce)"}>
              <title>{`no. ${chart.numbers[point.index]}${point.date ? `, ${day(point.date)}` : ""}: ${mass(point.value)} ± ${mass(point.pm)}`}</title>
              <path d={`M${px} ${y(point.value - point.pm)}V${y(point.value + point.pm)}`} strokeWidth={1.4 * size} />
              {beyond ? (
                <rect x={px - 4 * size} y={py - 4 * size} width={8 * size} height={8 * size} fill="var(--vermilion)" />
              ) : (
                <circle cx={px} cy={py} r={3.6 * size} fill="var(--card)" strokeWidth={1.8 * size} />
              )}
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
