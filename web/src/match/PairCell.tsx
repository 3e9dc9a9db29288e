import type { MatchCell } from "../api/client";
import { mass } from "../format";
import { StatusMark } from "../ui/Status";

export type Plan = "rated" | "expected";
export const key = (cell: MatchCell) => `${cell.vehicle} ${cell.trailer}`;
export const verdictOf = (cell: MatchCell, plan: Plan) =>
  (plan === "expected" ? (cell.verdict_expected ?? cell.verdict) : cell.verdict) as
    | "stop"
    | "incomplete"
    | "caution"
    | "within";
export const roomOf = (cell: MatchCell, plan: Plan) =>
  plan === "expected" ? (cell.room_expected ?? cell.room) : cell.room;
/** A front axle that stays over its limit whatever room there is besides. */
const inFrontOf = (cell: MatchCell, plan: Plan) =>
  plan === "expected" && cell.verdict_expected ? cell.in_front_expected : cell.in_front;

/** One pair: how much room is left or how much is too much, and the limiting rating. */
export function PairCell(props: { cell: MatchCell; plan: Plan; picked: boolean; onPick: () => void }) {
  const { cell, plan, picked, onPick } = props;
  const verdict = verdictOf(cell, plan);
  const room = roomOf(cell, plan);
  const inFront = inFrontOf(cell, plan);
  const roomed = room === null ? "?" : room < 0 ? `${mass(-room)} too much` : `${mass(room)} room`;
  const [said, what] =
    inFront !== null && (room ?? 0) >= 0
      ? [`${mass(inFront)} over in front`, "front axle"]
      : [roomed, cell.binding?.toLowerCase() ?? "no limit known"];
  const status = { stop: "over", incomplete: "unknown", caution: "unconfirmed", within: "within" } as const;
  return (
    <button
      type="button"
      aria-pressed={picked}
      data-pair={`${cell.vehicle} ${cell.trailer}`}
      data-verdict={verdict}
      title={[cell.says, ...cell.missing].join("\n")}
      onClick={onPick}
      className={`flex w-full min-w-36 items-start gap-2 p-1.5 text-left leading-tight ${picked ? "bg-sunk shadow-[inset_0_0_0_2px_var(--ink)]" : "hover:bg-card"}`}
    >
      <span className="mt-0.5 shrink-0">
        <StatusMark always status={status[verdict]} />
      </span>
      <span>
        <b className={`font-cond text-[1.0625rem] ${verdict === "stop" ? "text-vermilion" : ""}`}>{said}</b>
        <span className="block text-[0.8125rem] text-soft">
          {what}
          {verdict === "incomplete" && `; ${cell.missing.length} not known`}
          {verdict === "caution" && cell.too_close && "; too close to say"}
        </span>
      </span>
    </button>
  );
}
