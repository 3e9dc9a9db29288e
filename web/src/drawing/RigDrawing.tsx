import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import type { Check, Evaluation } from "../api/client";
import { mass } from "../format";
import { statusInk } from "../ui/Status";
import { fillOf, type Layout, layOut, NARROW, type Post, type PostId, SHORT, type Sizes, STRIP, WIDE } from "./layout";
import { Outlines } from "./Outlines";

const NAMES: Record<PostId, string> = {
  front: "Front axle",
  rear: "Rear axle",
  tongue: "Tongue",
  trailer: "Trailer axles",
};

/** What is left, or over, in the words of the drawing. */
export function verdictOf(check: Check | undefined): string {
  if (!check) return "";
  if (check.margin === null || check.margin === undefined) {
    if (check.at_least !== null && check.at_least !== undefined)
      return check.status === "over" ? "over already" : "not settled";
    return check.actual === null ? "not known" : "no rating entered";
  }
  const left = mass(Math.abs(check.margin));
  switch (check.status) {
    case "over":
      return `${left} over`;
    case "tight":
      return check.plus_minus !== null && check.margin <= check.plus_minus ? `${left} left: too close` : `${left} left`;
    case "unconfirmed":
      return check.margin < 0 ? `${left} over?` : `${left} left?`;
    default:
      return `${left} left`;
  }
}

const loadText = (check: Check | undefined) => {
  if (check?.actual !== null && check?.actual !== undefined) return mass(check.actual);
  return check?.at_least !== null && check?.at_least !== undefined ? `≥ ${mass(check.at_least)}` : "?";
};

function useWidth() {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const watcher = new ResizeObserver(([entry]) => entry && setWidth(Math.floor(entry.contentRect.width)));
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return [box, width] as const;
}

type Pick = (check: string) => void;
const pressed = (act: () => void) => (event: KeyboardEvent) => {
  if (event.key !== "Enter" && event.key !== " ") return;
  event.preventDefault();
  act();
};

/**
 * The centre of the product: the rig from the side, a post under each axle and the tongue (frame = rating, fill = load,
 * both on one scale, so that areas compare as weights do), and braces that show how the figures add up.
 */
export function RigDrawing(props: {
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
  onPlace?: (index: number, metres: number, gesture: string) => void;
}) {
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
  } = props;
  const [box, width] = useWidth();
  const sizes: Sizes = width < 700 ? (strip ? STRIP : NARROW) : short ? SHORT : WIDE;
  const layout = width ? layOut(evaluation.geometry, evaluation.towing, evaluation.checks, sizes, width) : null;
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
              tongue={isPinKind(evaluation) ? "Pin" : capital(evaluation.terms.tongue ?? "tongue")}
              pin={isPinKind(evaluation)}
            />
          ))}
          {items && <Items items={items} layout={layout} sizes={sizes} onPlace={onPlace} />}
          {layout.braces.length > 0 && (
            <Braces evaluation={evaluation} layout={layout} sizes={sizes} picked={picked} onPick={onPick} />
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

export type Placed = { index: number; name: string; on: "vehicle" | "trailer"; metres: number };

/** The things aboard, each where it lies; a thing is dragged along, or moved with the arrow keys. */
function Items(props: {
  items: readonly Placed[];
  layout: Layout;
  sizes: Sizes;
  onPlace: ((index: number, metres: number, gesture: string) => void) | undefined;
}) {
  const { items, layout, onPlace } = props;
  const origin = (on: Placed["on"]) => (on === "vehicle" ? 0 : layout.marks.hitch);
  const drag = (item: Placed) => (event: PointerEvent<SVGGElement>) => {
    if (!onPlace) return;
    const gesture = crypto.randomUUID();
    const group = event.currentTarget;
    const from = event.clientX;
    group.setPointerCapture(event.pointerId);
    const move = (now: globalThis.PointerEvent) =>
      onPlace(item.index, item.metres + (now.clientX - from) / layout.scale, gesture);
    const end = () => {
      group.removeEventListener("pointermove", move);
      group.removeEventListener("pointerup", end);
    };
    group.addEventListener("pointermove", move);
    group.addEventListener("pointerup", end);
  };
  const nudge = (item: Placed) => (event: KeyboardEvent) => {
    const step = event.key === "ArrowLeft" ? -0.1 : event.key === "ArrowRight" ? 0.1 : 0;
    if (!step || !onPlace) return;
    event.preventDefault();
    onPlace(item.index, item.metres + step, `nudge ${item.index}`);
  };
  return (
    <g>
      {items.map((item, order) => {
        const x = layout.across(origin(item.on) + item.metres);
        const y = layout.up(item.on === "vehicle" ? 1.0 : 1.15) - (order % 3) * 12;
        return (
          <g
            key={item.index}
            role="slider"
            tabIndex={0}
            aria-label={item.name}
            aria-valuenow={Math.round(item.metres * 100)}
            aria-valuetext={`${item.metres.toFixed(2)} m ${item.on === "vehicle" ? "behind the front axle" : "behind the coupler"}`}
            data-item={item.index}
            className="cursor-ew-resize touch-none"
            onPointerDown={drag(item)}
            onKeyDown={nudge(item)}
          >
            <path d={`M${x} ${y + 6}l-7 -12h14z`} fill="var(--ink)" stroke="var(--card)" strokeWidth={1.2} />
            <title>{item.name}</title>
          </g>
        );
      })}
    </g>
  );
}

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);

const isPinKind = (evaluation: Evaluation) =>
  evaluation.geometry.kind === "fifth_wheel" || evaluation.geometry.kind === "gooseneck";

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

function PostMark(props: {
  post: Post;
  predicted: boolean;
  layout: Layout;
  sizes: Sizes;
  picked: string | null;
  onPick: Pick | undefined;
  pin: boolean;
  tongue: string;
}) {
  const { post, predicted, layout, sizes, picked, onPick, pin, tongue } = props;
  const { frameTop, frameBottom, ground } = layout;
  const { check } = post;
  const left = post.x - post.width / 2;
  const top = frameBottom - post.fill;
  const known = check?.limit !== null && check?.limit !== undefined;
  const loaded = known && (check?.actual ?? check?.at_least ?? null) !== null;
  const floor = loaded && check?.actual === null;
  const fill = floor && check?.status !== "over" ? "url(#dots)" : fillOf(check?.status);
  const name = post.id === "tongue" ? tongue : NAMES[post.id];
  const pick = onPick && check ? () => onPick(check.id) : undefined;
  const leader = ground + 7;
  return (
    // biome-ignore lint/a11y/useSemanticElements: SVG has no button
    <g
      role="button"
      tabIndex={pick ? 0 : -1}
      aria-label={check?.sentence ?? name}
      data-post={post.id}
      data-status={check?.status}
      onClick={pick}
      onKeyDown={pick ? pressed(pick) : undefined}
      className={pick ? "cursor-pointer outline-offset-4" : ""}
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
          width={post.width - 6}
          height={post.fill}
          fill="var(--card)"
          stroke={post.beyond > 0 ? "var(--vermilion)" : check?.status === "within" ? "var(--spruce)" : "var(--ochre)"}
          strokeWidth={2}
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
        {check?.limit !== null && check?.limit !== undefined ? `of ${mass(check.limit)}` : "no rating"}
      </text>
      <text
        x={x}
        y={y + big + 32}
        fontSize={15.5}
        fontWeight={600}
        className={`fill-current ${statusInk(check?.status ?? "unknown")}`}
      >
        {verdictOf(check)}
      </text>
    </g>
  );
}

function LabelBelow({ post, layout, name }: { post: Post; layout: Layout; name: string }) {
  const { check } = post;
  const y = layout.frameBottom + 19;
  const verdict = verdictOf(check);
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

/** Width of a character of the condensed face, as a share of its size; measured on the longest labels. */
const ROOM_PER_CHARACTER = 0.39;

function Braces(props: {
  evaluation: Evaluation;
  layout: Layout;
  sizes: Sizes;
  picked: string | null;
  onPick: Pick | undefined;
}) {
  const { evaluation, layout, sizes } = props;
  const find = (id: string) => evaluation.checks.find((check) => check.id === id);
  const post = (id: PostId) => layout.posts.find((each) => each.id === id);
  const [front, rear, tongue, trailer] = [post("front"), post("rear"), post("tongue"), post("trailer")];
  const small = sizes.labels === "below";
  if (!front || !rear) return null;
  const size = small ? 13.5 : 17.5;
  const half = (text: string) => (text.length * size * ROOM_PER_CHARACTER) / 2;
  const pair = (limits: boolean) =>
    [find("vehicle.gross"), find("trailer.gross")].map((check) => braceText(check, small, limits));
  const whole = pair(true);
  const fits = whole.reduce((sum, text) => sum + 2 * half(text), 28) < layout.width;
  const [vehicle = "", total = ""] = fits || !trailer ? whole : pair(false);
  const edge = (at: number, text: string) => Math.max(half(text) + 4, Math.min(layout.width - half(text) - 4, at));
  let vehicleAt = edge((front.x + rear.x) / 2, vehicle);
  let trailerAt = trailer && tongue ? edge((tongue.x + trailer.x) / 2, total) : 0;
  const overlap = vehicleAt + half(vehicle) + 16 - (trailerAt - half(total));
  if (trailer && overlap > 0) {
    trailerAt = edge(trailerAt + overlap, total);
    vehicleAt = Math.min(vehicleAt, trailerAt - half(total) - half(vehicle) - 16);
  }
  const shared = { ...props, size };
  const [first = 0, second = 0] = layout.braces;
  return (
    <>
      <Brace
        {...shared}
        check={find("vehicle.gross")}
        from={front.x}
        to={rear.x}
        y={first}
        text={vehicle}
        at={vehicleAt}
      />
      {trailer && tongue && (
        <>
          <path d={`M${rear.x} ${first}H${tongue.x}`} stroke="var(--ink)" strokeWidth={1.3} strokeDasharray="2 4" />
          <Brace
            {...shared}
            check={find("trailer.gross")}
            from={tongue.x}
            to={trailer.x}
            y={first}
            text={total}
            at={trailerAt}
          />
          <Brace
            {...shared}
            check={find("combination.gross")}
            from={front.x}
            to={trailer.x}
            y={second}
            text={braceText(find("combination.gross"), small)}
            at={edge((front.x + trailer.x) / 2, braceText(find("combination.gross"), small))}
          />
        </>
      )}
    </>
  );
}

function braceText(check: Check | undefined, small: boolean, limits = true): string {
  if (!check) return "";
  const of =
    limits && check.limit !== null && check.limit !== undefined
      ? ` of ${mass(check.limit)}${small ? "" : ` ${(check.limit_label ?? "").replace(/^trailer /, "")}`}`
      : "";
  const verdict = verdictOf(check);
  const name = small ? check.label.replace(", loaded", "").replace(", in total", "") : check.label;
  return `${name} ${loadText(check)}${of}${verdict ? ` · ${verdict}` : ""}`;
}

function Brace(props: {
  check: Check | undefined;
  from: number;
  to: number;
  y: number;
  text: string;
  at: number;
  size: number;
  picked: string | null;
  onPick: Pick | undefined;
}) {
  const { check, from, to, y, text, at, size, picked, onPick } = props;
  if (!check) return null;
  const pick = onPick ? () => onPick(check.id) : undefined;
  const over = check.status === "over";
  const stroke = over ? "var(--vermilion)" : "var(--ink)";
  const middle = (from + to) / 2;
  const dip = Math.min(9, (to - from) / 6);
  return (
    // biome-ignore lint/a11y/useSemanticElements: SVG has no button
    <g
      role="button"
      tabIndex={pick ? 0 : -1}
      aria-label={check.sentence}
      data-brace={check.id}
      data-status={check.status}
      onClick={pick}
      onKeyDown={pick ? pressed(pick) : undefined}
      className={pick ? "cursor-pointer outline-offset-2" : ""}
    >
      <path
        d={`M${from} ${y - 6}V${y}H${middle - dip}L${middle} ${y + 7}L${middle + dip} ${y}H${to}V${y - 6}`}
        fill="none"
        stroke={stroke}
        strokeWidth={picked === check.id ? 2.8 : over ? 2.2 : 1.6}
        strokeDasharray={check.actual === null ? "5 4" : undefined}
        strokeLinejoin="round"
      />
      <text
        x={at}
        y={y + 9 + size}
        textAnchor="middle"
        fontSize={size}
        fontWeight={600}
        className={`font-cond fill-current ${over || check.status === "tight" ? statusInk(check.status) : "text-ink"}`}
      >
        {text}
      </text>
    </g>
  );
}
