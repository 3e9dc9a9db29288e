import { layOut, NARROW, WIDE } from "../drawing/layout";
import { Coupling, Strokes, Ticks, Wheels } from "../drawing/Outlines";
import { useWidth } from "../ui/useWidth";
import type { Yard } from "./yard";

const APART = 34;

/** The yard from the side: the rig as it stands, what holds it, the platforms in section and what they showed last. */
export function YardDrawing({ yard }: { yard: Yard }) {
  const [box, width] = useWidth();
  const { geometry } = yard;
  const hasTrailer = yard.trailer;
  const apart = hasTrailer && !yard.coupled;
  const sizes = width < 700 ? { ...NARROW, elevation: 92, side: 12 } : { ...WIDE, elevation: 150, side: 20 };
  const layout = width ? layOut(geometry, hasTrailer, [], sizes, width - (apart ? APART : 0)) : null;
  if (!layout) return <div ref={box} className="min-h-40" />;
  const { across, up, ground, marks, scale } = layout;
  const { vehicle, trailer, pin } = geometry.outline;
  const shown = yard.on_scale ? (["front", "rear", ...(yard.towing ? ["trailer"] : [])] as const) : [];
  const last = yard.on_scale && yard.taken ? yard.tickets.at(-1) : undefined;
  const axles = marks.axles;
  const outside = yard.outside;
  const span = (name: string): [number, number] =>
    name === "front"
      ? [-0.75, 0.75]
      : name === "rear"
        ? [marks.rear - 0.75, marks.rear + 0.75]
        : [(axles[0] ?? 0) - 0.7, (axles.at(-1) ?? 0) + 0.7];
  const behind = (
    <g transform={apart ? `translate(${APART} 0)` : undefined}>
      <Strokes of={trailer.strokes} layout={layout} />
      <Wheels of={trailer} layout={layout} />
      {apart && (
        <path
          d={`M${across(marks.hitch + 0.38)} ${up(0.85)}V${ground}m-6 0h12`}
          stroke="var(--ink)"
          strokeWidth={2.4}
          fill="none"
        />
      )}
      {yard.chocked && (
        <path
          d={`M${across((axles.at(-1) ?? 0) + 0.36)} ${ground}l${0.34 * scale} 0l0 ${-0.26 * scale}Z M${across((axles[0] ?? 0) - 0.36)} ${ground}l${-0.34 * scale} 0l0 ${-0.26 * scale}Z`}
          fill="var(--ochre)"
          stroke="var(--ink)"
          strokeWidth={1}
        />
      )}
    </g>
  );
  return (
    <div ref={box} data-part="yard-drawing">
      <svg
        width={width}
        height={ground + (yard.acts.length || yard.on_scale ? 70 : 42)}
        className="block"
        role="img"
        aria-label={describe(yard)}
      >
        <Ticks layout={layout} width={width} />
        {hasTrailer && pin && behind}
        <Strokes of={vehicle.strokes} layout={layout} />
        {hasTrailer && !pin && behind}
        {hasTrailer && <Coupling geometry={geometry} layout={layout} />}
        {yard.coupled && yard.bars !== "none" && (
          <path
            d={`M${across(marks.hitch)} ${up(0.42)}L${across(marks.hitch + 0.85)} ${up(yard.bars === "engaged" ? 0.5 : 0.2)}`}
            stroke="var(--spruce)"
            strokeWidth={3}
            strokeDasharray={yard.bars === "engaged" ? undefined : "4 3"}
          />
        )}
        {yard.things.map((thing, at) => (
          <ThingMark
            // biome-ignore lint/suspicious/noArrayIndexKey: things stay in their order
            key={at}
            thing={thing}
            x={
              across(thing.metres + (thing.on === "trailer" ? marks.hitch : 0)) +
              (apart && thing.on === "trailer" ? APART : 0)
            }
            y={up(
              thing.on === "trailer" ? (pin && thing.metres < geometry.coupler_to_axles * 0.2 ? 1.95 : 0.72) : 0.72,
            )}
            scale={scale}
          />
        ))}
        <Wheels of={vehicle} layout={layout} />
        {Array.from({ length: outside }, (_, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: figures that stand in a row
          <Person key={at} x={across(-0.95) - 12 - at * 15} ground={ground} tall={1.7 * scale} />
        ))}
        <path d={`M0 ${ground}H${width}`} stroke="var(--ink)" strokeWidth={1.6} />
        {shown.map((name, at) => {
          const [from, to] = span(name);
          const middle = across((from + to) / 2);
          return (
            <g key={name}>
              <rect
                x={across(from)}
                y={ground}
                width={across(to) - across(from)}
                height={15}
                fill="var(--card)"
                stroke="var(--ink)"
                strokeWidth={1.8}
              />
              <text
                x={middle}
                y={ground + 40}
                textAnchor="middle"
                fontSize={22}
                fontWeight={600}
                fill="var(--ink)"
                className="font-cond"
              >
                {last ? Number(last.lines[at]?.[1] ?? 0).toLocaleString("en-US") : yard.asked ? "· · ·" : "–"}
              </text>
              <text
                x={middle}
                y={ground + 59}
                textAnchor="middle"
                fontSize={14}
                fill="var(--soft)"
                className="font-cond"
              >
                {`platform ${at + 1}`}
              </text>
            </g>
          );
        })}
        {!yard.on_scale && (
          <text
            x={width / 2}
            y={ground + 30}
            textAnchor="middle"
            fontSize={15}
            fill="var(--soft)"
            className="font-cond"
          >
            {yard.gone ? "out on the road" : describe(yard)}
          </text>
        )}
      </svg>
    </div>
  );
}

/** An item as a small box, a tank as a trough with its level. */
function ThingMark({ thing, x, y, scale }: { thing: Yard["things"][number]; x: number; y: number; scale: number }) {
  const tank = thing.level !== null && thing.level !== undefined;
  const wide = (tank ? 0.7 : 0.3) * scale;
  const tall = (tank ? 0.2 : 0.26) * scale;
  return (
    <g>
      <title>{tank ? `${thing.name}, ${Math.round((thing.level ?? 0) * 100)} %` : thing.name}</title>
      <rect
        x={x - wide / 2}
        y={y - tall}
        width={wide}
        height={tall}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={1.1}
      />
      {tank ? (
        <rect x={x - wide / 2} y={y - tall} width={wide * (thing.level ?? 0)} height={tall} fill="var(--spruce)" />
      ) : (
        <path d={`M${x - wide / 2} ${y - tall / 2}H${x + wide / 2}`} stroke="var(--ink)" strokeWidth={1} />
      )}
    </g>
  );
}

function Person({ x, ground, tall }: { x: number; ground: number; tall: number }) {
  const head = tall * 0.12;
  return (
    <path
      d={`M${x} ${ground - tall + 2 * head}V${ground - tall * 0.42}L${x - 4} ${ground}M${x} ${ground - tall * 0.42}L${x + 4} ${ground}M${x - 5} ${ground - tall * 0.62}H${x + 5}M${x - head} ${ground - tall + head}a${head} ${head} 0 1 0 ${2 * head} 0a${head} ${head} 0 1 0 ${-2 * head} 0`}
      fill="none"
      stroke="var(--ink)"
      strokeWidth={1.8}
    />
  );
}

function describe(yard: Yard): string {
  const where = yard.on_scale ? "on the platforms" : "in the yard";
  if (!yard.trailer) return `${where} · ${yard.minutes} min, ${yard.spent} dollars spent`;
  const parts = [where, yard.coupled ? "coupled" : "uncoupled"];
  if (yard.chocked) parts.push("chocks set");
  if (yard.bars !== "none" && yard.coupled) parts.push(`bars ${yard.bars}`);
  return `${parts.join(", ")} · ${yard.minutes} min, ${yard.spent} dollars spent`;
}
