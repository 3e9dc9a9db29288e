import { mass } from "../format";
import { statusInk } from "../ui/Status";
import { Handle } from "./Handle";
import { fillOf, type Layout, type Post, type PostId, type Sizes } from "./layout";
import { loadText, type Pick, spoken, verdictOf } from "./said";

const NAMES: Record<PostId, string> = {
  front: "Front axle",
  rear: "Rear axle",
  tongue: "Tongue",
  trailer: "Trailer axles",
};

/** One post: its frame is the rating, its fill the load; what is over stands out beyond the frame. */
export function PostMark(props: {
  post: Post;
  predicted: boolean;
  layout: Layout;
  sizes: Sizes;
  picked: string | null;
  onPick: Pick | undefined;
  pin: boolean;
  tongue: string;
  unit: string;
}) {
  const { post, layout, sizes, picked, onPick, pin, tongue } = props;
  const predicted = props.predicted || post.expected;
  const { frameTop, frameBottom, ground } = layout;
  const { check } = post;
  const left = post.x - post.width / 2;
  const top = frameBottom - post.fill;
  const known = check?.limit !== null && check?.limit !== undefined;
  const loaded = known && (check?.actual ?? check?.expected?.actual ?? check?.at_least ?? null) !== null;
  const floor = loaded && check?.actual === null && !post.expected;
  const fill = floor && check?.status !== "over" ? "url(#dots)" : fillOf(check?.status);
  const name = post.id === "tongue" ? tongue : NAMES[post.id];
  const pick = onPick && check ? () => onPick(check.id) : undefined;
  const leader = ground + 7;
  const said = check ? spoken(check, props.unit, predicted) : name;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the handle, below, is what is named
    <g
      {...(pick ? {} : { role: "img", "aria-label": said })}
      data-post={post.id}
      data-status={check?.status}
      onClick={pick}
      className={pick ? "cursor-pointer" : ""}
    >
      {(post.id === "tongue" || Math.abs(post.x - post.acts) > 2) && (
        <path
          d={`M${post.acts} ${layout.up(pin ? 1.3 : 0.45)}V${leader}H${post.x}V${frameTop - 2}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.2}
          strokeDasharray="2 3"
        />
      )}
      {post.id === "trailer" && layout.marks.axles.length > 1 && (
        <path
          d={`M${layout.across(layout.marks.axles[0] ?? 0)} ${ground + 3}v4H${layout.across(layout.marks.axles.at(-1) ?? 0)}v-4`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
      )}
      {loaded && !predicted && (
        <rect className="moves" x={left} y={top} width={post.width} height={post.fill} fill={fill} />
      )}
      {loaded && predicted && (
        <rect
          className="moves"
          x={left + 3}
          y={top}
          width={(post.weighed === null ? 1 : 0.55) * post.width - 6}
          height={post.fill}
          fill="var(--card)"
          stroke={
            post.beyond > 0
              ? "var(--vermilion)"
              : (check?.expected?.outlook ?? check?.status) === "within"
                ? "var(--spruce)"
                : "var(--ochre)"
          }
          strokeWidth={2}
        />
      )}
      {predicted && post.weighed !== null && (
        <rect
          data-weighed
          x={left + post.width * 0.62}
          y={frameBottom - post.weighed}
          width={Math.max(3, post.width * 0.24)}
          height={post.weighed}
          fill="var(--ink)"
        />
      )}
      <rect
        x={left}
        y={frameTop}
        width={post.width}
        height={sizes.post}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={picked === check?.id ? 2.6 : 1.4}
        strokeDasharray={known ? undefined : "2 4"}
      />
      {post.beyond > 0 && (
        <g>
          <rect
            className="moves"
            x={left - 4}
            y={frameTop - post.beyond}
            width={post.width + 8}
            height={post.beyond}
            fill={predicted ? "var(--card)" : "var(--vermilion)"}
            stroke="var(--vermilion)"
            strokeWidth={predicted ? 2 : 0}
          />
          {post.cut && (
            <path
              d={`M${left - 7} ${frameTop - post.beyond + 9}l${(post.width + 14) / 4} -5 ${(post.width + 14) / 4} 5 ${(post.width + 14) / 4} -5 ${(post.width + 14) / 4} 5`}
              fill="none"
              stroke="var(--paper)"
              strokeWidth={3}
            />
          )}
        </g>
      )}
      {post.whisker > 1.2 && loaded && !floor && (
        <path d={whisker(post, top)} stroke="var(--ink)" strokeWidth={1.4} fill="none" />
      )}
      <path d={`M${left - 7} ${frameBottom}h${post.width + 14}`} stroke="var(--ink)" strokeWidth={2.4} />
      {sizes.labels === "beside" && <LabelBeside post={post} layout={layout} name={name} sizes={sizes} />}
      {sizes.labels === "below" && <LabelBelow post={post} layout={layout} name={name} />}
      {pick && (
        <Handle
          says={said}
          onPick={pick}
          x={post.x - Math.max(post.width, 44) / 2}
          y={layout.ground + 2}
          width={Math.max(post.width, 44)}
          height={layout.frameBottom - layout.ground + (sizes.labels === "below" ? 50 : 4)}
        />
      )}
    </g>
  );
}

const leftward = (post: Post) => post.id === "front" || post.id === "rear";

/** The ± as an I beside the post, on the side away from its label. */
function whisker(post: Post, top: number): string {
  const x = post.x + (leftward(post) ? 1 : -1) * (post.width / 2 + 6);
  return `M${x - 3} ${top - post.whisker}h6M${x} ${top - post.whisker}V${top + post.whisker}M${x - 3} ${top + post.whisker}h6`;
}

function LabelBeside({ post, layout, name, sizes }: { post: Post; layout: Layout; name: string; sizes: Sizes }) {
  const { check } = post;
  const x = leftward(post) ? post.x - post.width / 2 - 12 : post.x + post.width / 2 + 12;
  const anchor = leftward(post) ? "end" : "start";
  const loadless = check?.actual === null || check?.actual === undefined; // else the verdict says so below
  const big = sizes.post > 70 ? 29 : 24;
  const y = layout.frameBottom - (sizes.post > 70 ? 68 : 58);
  return (
    <g textAnchor={anchor} className="font-cond">
      <text x={x} y={y} fontSize={14.5} fill="var(--soft)">
        {name}
      </text>
      <text x={x} y={y + big - 2} fontSize={big} fontWeight={600} fill="var(--ink)">
        {loadText(check)}
        {check?.plus_minus !== null && check?.plus_minus !== undefined && (
          <tspan fontSize={14} fontWeight={500} fill="var(--soft)" dx={4}>
            ±{mass(check.plus_minus)}
          </tspan>
        )}
      </text>
      <text x={x} y={y + big + 15} fontSize={14.5} fill="var(--ink)">
        {check?.limit !== null && check?.limit !== undefined ? `of ${mass(check.limit)}` : loadless && "no rating"}
      </text>
      <text
        x={x}
        y={y + big + 32}
        fontSize={15.5}
        fontWeight={600}
        className={`fill-current ${statusInk(check?.status ?? "unknown")}`}
      >
        {verdictOf(check, sizes.labels === "below")}
      </text>
    </g>
  );
}

function LabelBelow({ post, layout, name }: { post: Post; layout: Layout; name: string }) {
  const { check } = post;
  const y = layout.frameBottom + 19;
  const verdict = verdictOf(check, true);
  return (
    <g textAnchor="middle" className="font-cond">
      <text x={post.x} y={y} fontSize={18} fontWeight={600} fill="var(--ink)">
        <title>{name}</title>
        {loadText(check)}
      </text>
      <text x={post.x} y={y + 14} fontSize={12.5} fill="var(--ink)">
        {check?.limit !== null && check?.limit !== undefined ? `of ${mass(check.limit)}` : "no rating"}
      </text>
      <text
        x={post.x}
        y={y + 29}
        fontSize={13}
        fontWeight={600}
        className={`fill-current ${statusInk(check?.status ?? "unknown")}`}
      >
        {verdict.replace(": too close", "").replace("not known", "?").replace("no rating entered", "")}
      </text>
    </g>
  );
}
