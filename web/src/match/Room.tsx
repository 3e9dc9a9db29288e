import type { RoomChart } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { scale, steps } from "../ui/scales";
import { useWidth } from "../ui/useWidth";

const WIDEST = 620;
const LEFT = 64;
const BOTTOM = 52;
const TOP = 14;
const RIGHT = 14;

/** Load in the vehicle against loaded trailer: inside the shaded shape every limit holds; the nearest edge is named. */
export function Room({ chart }: { chart: RoomChart }) {
  const { rig } = useDesk();
  const unit = rig.units.mass;
  const [box, width] = useWidth<HTMLElement>();
  const W = Math.min(WIDEST, Math.max(300, width || WIDEST));
  const H = W < 480 ? 380 : 440;
  const x = scale([0, chart.most_load], [LEFT, W - RIGHT]);
  const y = scale([0, chart.most_trailer], [H - BOTTOM, TOP]);
  const point = chart.point;
  const edge = new Set(chart.lines.filter((line) => touches(chart, line)).map((line) => line.check));
  const labels = placed(chart, edge, x, y);
  return (
    <figure ref={box} aria-label="The headroom as a picture">
      <figcaption className="border-b border-ink font-cond text-[1.25rem] font-semibold">Headroom</figcaption>
      <p className="mt-1 text-[0.9375rem] leading-snug">
        To the right: more in the vehicle. Up: a heavier trailer. In the shaded shape every limit holds; each line is
        where one ends.
      </p>
      <p
        className={`mt-1 border-l-4 pl-2 text-[1rem] leading-snug font-semibold ${chart.exceeded.length ? "border-vermilion" : "border-spruce"}`}
        data-part="room-says"
      >
        {chart.says}
      </p>
      <svg viewBox={`0 0 ${W} ${H}`} className="mt-2 block w-full" role="img" aria-label={chart.says}>
        <defs>
          <clipPath id="room-clip">
            <rect x={LEFT} y={TOP} width={W - LEFT - RIGHT} height={H - BOTTOM - TOP} />
          </clipPath>
          <pattern id="room-fill" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="8" height="8" fill="var(--card)" />
            <rect width="1.4" height="8" fill="var(--spruce)" opacity="0.55" />
          </pattern>
        </defs>
        {steps(chart.most_trailer).map((value) => (
          <g key={value}>
            <path d={`M${LEFT} ${y(value)}H${W - RIGHT}`} stroke="var(--rule)" strokeWidth={0.8} />
            <text x={LEFT - 7} y={y(value) + 4} textAnchor="end" fontSize={13} fill="var(--soft)">
              {mass(value)}
            </text>
          </g>
        ))}
        {steps(chart.most_load).map((value) => (
          <text key={value} x={x(value)} y={H - BOTTOM + 18} textAnchor="middle" fontSize={13} fill="var(--soft)">
            {mass(value)}
          </text>
        ))}
        <polygon
          points={chart.region.map(([load, trailer]) => `${x(load)},${y(trailer)}`).join(" ")}
          fill="url(#room-fill)"
          stroke="var(--spruce)"
          strokeWidth={2.2}
          data-part="region"
        />
        <g clipPath="url(#room-clip)">
          {chart.lines.map((line) => (
            <path
              key={line.check}
              d={`M${x(0)} ${y(line.start)}L${x(chart.most_load)} ${y(line.end)}`}
              stroke={line.check === chart.nearest ? "var(--ochre)" : "var(--ink)"}
              strokeWidth={line.check === chart.nearest ? 3 : edge.has(line.check) ? 1.6 : 0.9}
              strokeDasharray={edge.has(line.check) ? undefined : "3 4"}
              opacity={edge.has(line.check) ? 1 : 0.55}
              fill="none"
            />
          ))}
        </g>
        {labels.map((label) => (
          <text
            key={label.check}
            x={label.x}
            y={label.y}
            textAnchor="end"
            fontSize={13.5}
            fontWeight={label.check === chart.nearest ? 600 : 500}
            className="font-cond"
            fill="var(--ink)"
            stroke="var(--paper)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {label.text}
          </text>
        ))}
        {chart.phases.length > 1 && (
          <path
            d={`M${chart.phases.map((each) => `${x(each.load)} ${y(each.trailer)}`).join("L")}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.4}
            strokeDasharray="5 3"
          />
        )}
        {chart.phases.map((each) => (
          <circle
            key={each.name}
            cx={x(each.load)}
            cy={y(each.trailer)}
            r={3.2}
            fill="var(--paper)"
            stroke="var(--ink)"
          >
            <title>{each.name}</title>
          </circle>
        ))}
        {point && (
          <g data-part="room-point">
            <path
              d={`M${x(point.load - point.load_pm)} ${y(point.trailer)}H${x(point.load + point.load_pm)}M${x(point.load)} ${y(point.trailer - point.trailer_pm)}V${y(point.trailer + point.trailer_pm)}`}
              stroke="var(--ink)"
              strokeWidth={1.4}
            />
            <circle
              cx={x(point.load)}
              cy={y(point.trailer)}
              r={7}
              fill={point.measured ? "var(--ink)" : "var(--paper)"}
              stroke="var(--ink)"
              strokeWidth={2.4}
            />
            <text
              x={x(point.load) + 12}
              y={y(point.trailer) + 18}
              fontSize={14.5}
              fontWeight={600}
              className="font-cond"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {point.name}
            </text>
          </g>
        )}
        <path d={`M${LEFT} ${TOP}V${H - BOTTOM}H${W - RIGHT}`} stroke="var(--ink)" strokeWidth={1.6} fill="none" />
        <text x={(LEFT + W) / 2} y={H - 12} textAnchor="middle" fontSize={14.5} fill="var(--ink)">
          people and gear in the vehicle, {unit}
        </text>
        <text
          transform={`translate(15 ${(H - BOTTOM) / 2}) rotate(-90)`}
          textAnchor="middle"
          fontSize={14.5}
          fill="var(--ink)"
        >
          loaded trailer, {unit}
        </text>
      </svg>
      {chart.phases.length > 1 && (
        <p className="text-[0.8125rem] text-soft">
          The dashed path is the trip: {chart.phases.map((each) => each.name).join(", ")}.
        </p>
      )}
    </figure>
  );
}

type Line = RoomChart["lines"][number];

const at = (chart: RoomChart, line: Line, load: number) =>
  line.start + ((line.end - line.start) * load) / chart.most_load;

/** Whether a line is an edge of the region somewhere. */
function touches(chart: RoomChart, line: Line): boolean {
  const slack = chart.most_trailer / 400;
  return chart.region.some(([load, trailer]) => Math.abs(at(chart, line, load) - trailer) < slack && trailer > slack);
}

/** A label at the right end of each edge's visible part, pushed apart so that none hides another. */
function placed(
  chart: RoomChart,
  edge: ReadonlySet<string>,
  x: (load: number) => number,
  y: (trailer: number) => number,
) {
  const found = chart.lines
    .filter((line) => edge.has(line.check) || line.check === chart.nearest)
    .map((line) => {
      const last = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2].find((part) => {
        const trailer = at(chart, line, chart.most_load * part);
        return trailer > chart.most_trailer * 0.06 && trailer < chart.most_trailer * 0.97;
      });
      const load = chart.most_load * (last ?? 0.2);
      return { check: line.check, text: line.label, x: Math.max(x(load) - 4, 150), y: y(at(chart, line, load)) - 6 };
    })
    .sort((a, b) => a.y - b.y);
  for (let index = 1; index < found.length; index++) {
    const here = found[index];
    const above = found[index - 1];
    if (here && above && Math.abs(here.x - above.x) < 150 && here.y < above.y + 16) here.y = above.y + 16;
  }
  return found;
}
