import type { Check, Evaluation } from "../api/client";
import { mass } from "../format";
import { statusInk } from "../ui/Status";
import { Handle } from "./Handle";
import type { Layout, PostId, Sizes } from "./layout";
import { loadText, type Pick, spoken, verdictOf } from "./said";

/** Width of a character of the condensed face, as a share of its size; measured on the longest labels. */
const ROOM_PER_CHARACTER = 0.39;

/** How the figures add up: each axle into the vehicle, tongue and axles into the trailer, all into the combination. */
export function Braces(props: {
  evaluation: Evaluation;
  layout: Layout;
  sizes: Sizes;
  picked: string | null;
  predicted: boolean;
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
  let trailerAt = trailer ? edge(((tongue ?? trailer).x + trailer.x) / 2, total) : 0;
  const overlap = vehicleAt + half(vehicle) + 16 - (trailerAt - half(total));
  if (trailer && overlap > 0) {
    trailerAt = edge(trailerAt + overlap, total);
    vehicleAt = Math.min(vehicleAt, trailerAt - half(total) - half(vehicle) - 16);
  }
  const moved = evaluation.bars_moved?.value ?? 0;
  const roomToSay = trailer && tongue && !small && trailer.x - trailer.width / 2 - tongue.x > 235;
  const shared = { ...props, size, unit: evaluation.units.mass };
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
      {trailer && (
        <>
          {tongue && (
            <path d={`M${rear.x} ${first}H${tongue.x}`} stroke="var(--ink)" strokeWidth={1.3} strokeDasharray="2 4" />
          )}
          {moved >= 1 && roomToSay && (
            <text textAnchor="end" fontSize={13} fill="var(--soft)" className="font-cond" data-part="bars-moved">
              <tspan x={trailer.x - trailer.width / 2 - 14} y={layout.frameBottom - 20}>
                {mass(moved)} of the {evaluation.terms.tongue}
              </tspan>
              <tspan x={trailer.x - trailer.width / 2 - 14} y={layout.frameBottom - 5}>
                moved here by the bars
              </tspan>
            </text>
          )}
          <Brace
            {...shared}
            check={find("trailer.gross")}
            from={tongue ? tongue.x : trailer.x - trailer.width}
            to={tongue ? trailer.x : trailer.x + trailer.width}
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
  const verdict = verdictOf(check, small);
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
  predicted: boolean;
  unit: string;
  onPick: Pick | undefined;
}) {
  const { check, from, to, y, text, at, size, picked, onPick } = props;
  if (!check) return null;
  const pick = onPick ? () => onPick(check.id) : undefined;
  const said = spoken(check, props.unit, props.predicted);
  const over = check.status === "over";
  const stroke = over ? "var(--vermilion)" : "var(--ink)";
  const middle = (from + to) / 2;
  const dip = Math.min(9, (to - from) / 6);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the handle, below, is what is named
    <g
      {...(pick ? {} : { role: "img", "aria-label": said })}
      data-brace={check.id}
      data-status={check.status}
      onClick={pick}
      className={pick ? "cursor-pointer" : ""}
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
      {pick && <Handle says={said} onPick={pick} x={from} y={y - 6} width={Math.max(24, to - from)} height={32} />}
    </g>
  );
}
