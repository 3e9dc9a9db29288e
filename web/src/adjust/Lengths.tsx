import type { Geometry } from "../api/client";
import { useDesk } from "../api/useSheet";
import { layOut, type Sizes } from "../drawing/layout";
import { Coupling, Strokes, Ticks, Wheels } from "../drawing/Outlines";
import { Field } from "../ui/Field";
import { Missing } from "../ui/Missing";

const SIZES: Sizes = { labels: "none", elevation: 92, post: 0, widest: 0, gap: 0, brace: 0, side: 12 };
const WIDTH = 420;

/** The three lengths that a tape gives: how to take each, and from where to where. */
const LENGTHS = {
  "vehicle.geometry.wheelbase": ["Wheelbase", "middle of the front wheel to middle of the rear wheel"],
  "vehicle.geometry.hitch_offset": ["Rear axle to hitch point", "middle of the rear wheel to the ball or the pin"],
  "trailer.geometry.coupler_to_axles": ["Coupler to axles", "ball or pin to the middle of the axle group"],
} as const;
type LengthPath = keyof typeof LENGTHS;
const isLength = (path: string): path is LengthPath => path in LENGTHS;

/** What is still needed to tell what a change does to every axle: all of it together, lengths with a picture. */
export function Lengths({ figures }: { figures: readonly { path: string; message: string }[] }) {
  const { evaluation } = useDesk();
  const lengths = figures.map((figure) => figure.path).filter(isLength);
  const others = figures.filter((figure) => !isLength(figure.path));
  if (figures.length === 0) return null;
  return (
    <section aria-label="Figures still needed" className="mt-4 border border-ink bg-card p-3" data-part="lacking">
      <h2 className="font-cond text-[1.25rem] font-semibold">
        {lengths.length ? "Take a tape: then every axle can be told" : "Then every axle can be told"}
      </h2>
      <p className="mt-0.5 text-[0.9375rem] leading-snug">
        Sums are known without it. What a change does to each axle and to the hitch needs these, once.
      </p>
      {lengths.length > 0 && (
        <>
          <Tape geometry={evaluation.geometry} towing={evaluation.towing} paths={lengths} />
          <div className="mt-2 grid gap-x-6 sm:grid-cols-2">
            {lengths.map((path, index) => (
              <Field
                key={path}
                path={path}
                label={`${index + 1}. ${LENGTHS[path][0]}`}
                hint={LENGTHS[path][1]}
                unit={evaluation.length}
              />
            ))}
          </div>
        </>
      )}
      <Missing figures={others} />
    </section>
  );
}

/** The rig from its side with the tape laid along what is asked for. */
function Tape(props: { geometry: Geometry; towing: boolean; paths: readonly LengthPath[] }) {
  const { geometry, towing, paths } = props;
  const layout = layOut(geometry, towing, [], SIZES, WIDTH);
  const { rear, hitch, centre, vehicle, trailer } = geometry.outline;
  const ends: Record<LengthPath, [number, number]> = {
    "vehicle.geometry.wheelbase": [0, rear],
    "vehicle.geometry.hitch_offset": [rear, hitch],
    "trailer.geometry.coupler_to_axles": [hitch, centre],
  };
  const below = layout.ground + 22;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${below + 22}`}
      className="mt-2 block w-full max-w-xl"
      role="img"
      aria-label="Where the tape goes"
    >
      <Ticks layout={layout} />
      <path d={`M0 ${layout.ground}H${WIDTH}`} stroke="var(--ink)" />
      <Strokes of={vehicle.strokes} layout={layout} />
      <Wheels of={vehicle} layout={layout} />
      {towing && <Strokes of={trailer.strokes} layout={layout} />}
      {towing && <Wheels of={trailer} layout={layout} />}
      {towing && <Coupling geometry={geometry} layout={layout} />}
      {paths.map((path, index) => {
        const [from, till] = ends[path].map(layout.across) as [number, number];
        return (
          <g key={path} stroke="var(--ink)" strokeWidth={1.6}>
            <path
              d={`M${from} ${layout.ground}V${below + 6}M${till} ${layout.ground}V${below + 6}M${from} ${below}H${till}`}
            />
            <text
              x={(from + till) / 2}
              y={below + 17}
              textAnchor="middle"
              stroke="none"
              fill="var(--ink)"
              className="font-cond"
              fontSize={15}
              fontWeight={600}
            >
              {index + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
