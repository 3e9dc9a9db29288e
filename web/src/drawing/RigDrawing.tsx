import type { Evaluation } from "../api/client";
import { Boundary } from "../app/Boundary";
import { capital } from "../format";
import { useLow, useWidth } from "../ui/useWidth";
import { Braces } from "./Braces";
import { Items, type OnPlace, type Placed } from "./Items";
import { layOut, NARROW, SHORT, type Sizes, STRIP, WIDE } from "./layout";
import { Outlines } from "./Outlines";
import { PostMark } from "./PostMark";
import type { Pick } from "./said";

/**
 * The centre of the product: the rig from the side, a post under each axle and the tongue (frame = rating, fill = load,
 * both on one scale, so that areas compare as weights do), and braces that show how the figures add up.
 */
export const RigDrawing = (props: DrawingProps) => (
  <Boundary part="The drawing">
    <Drawing {...props} />
  </Boundary>
);

type DrawingProps = {
  evaluation: Evaluation;
  short?: boolean;
  /** On a narrow screen, show only the rig and its posts. */
  strip?: boolean;
  lit?: "front" | "rear" | "trailer" | null;
  picked?: string | null;
  onPick?: Pick;
  /** Loads that were worked out and not weighed are outlined, not filled. */
  predicted?: boolean;
  items?: readonly Placed[];
  onPlace?: OnPlace;
  /** What was weighed, shown solid beside what is predicted. */
  measured?: Evaluation["checks"] | undefined;
};

function Drawing(props: DrawingProps) {
  const {
    evaluation,
    short = false,
    strip = false,
    lit = null,
    picked = null,
    onPick,
    predicted = false,
    items,
    onPlace,
    measured,
  } = props;
  const { pin } = evaluation.geometry.outline;
  const [box, width] = useWidth();
  const low = useLow();
  const sizes: Sizes = low ? STRIP : width < 700 ? (strip ? STRIP : NARROW) : short ? SHORT : WIDE;
  const layout = width
    ? layOut(evaluation.geometry, evaluation.towing, evaluation.checks, sizes, width, measured)
    : null;
  return (
    <div ref={box} data-part="drawing">
      {layout && (
        // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot hold a drawing
        <svg
          width={layout.width}
          height={layout.height}
          className="block"
          role="group"
          aria-label="The rig and its loads"
        >
          <Patterns />
          <Outlines geometry={evaluation.geometry} towing={evaluation.towing} layout={layout} lit={lit} />
          {layout.posts.map((post) => (
            <PostMark
              key={post.id}
              post={post}
              predicted={predicted}
              layout={layout}
              sizes={sizes}
              picked={picked}
              onPick={onPick}
              tongue={capital(evaluation.terms.tongue ?? "tongue")}
              pin={pin}
              unit={evaluation.units.mass}
            />
          ))}
          {items && <Items items={items} layout={layout} sizes={sizes} towing={evaluation.towing} onPlace={onPlace} />}
          {layout.braces.length > 0 && (
            <Braces
              evaluation={evaluation}
              layout={layout}
              sizes={sizes}
              picked={picked}
              predicted={predicted}
              onPick={onPick}
            />
          )}
          {evaluation.geometry.assumed.length > 0 && sizes.labels === "beside" && (
            <text x={14} y={22} fontSize={13} fill="var(--soft)">
              drawn with usual lengths until yours are entered
            </text>
          )}
        </svg>
      )}
    </div>
  );
}

function Patterns() {
  return (
    <defs>
      <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="3.4" height="7" fill="var(--ochre)" />
      </pattern>
      <pattern id="lined" width="5" height="5" patternUnits="userSpaceOnUse">
        <rect width="2" height="5" fill="var(--spruce)" />
      </pattern>
      <pattern id="dots" width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="2" cy="2" r="1.1" fill="var(--soft)" />
      </pattern>
    </defs>
  );
}
