import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type TowAnswer } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Foot } from "../ui/Foot";
import { useStale } from "../ui/Offline";
import { StatusMark } from "../ui/Status";
import { useCalm } from "../ui/useCalm";

/** Whether it can tow that, as far as that is known; the one before stands until the next is there. */
function useCanTow() {
  const { sheet, number } = useDesk();
  const answer = useQuery({
    queryKey: ["can-tow", sheet.id, sheet.saved_at, number ?? 0],
    queryFn: () => api.canTow(sheet.id, number),
    placeholderData: (before) => before,
    retry: false,
  });
  return useCalm(answer.data);
}

const FLAG = {
  yes: "bg-spruce text-paper",
  no: "bg-vermilion text-paper",
  too_close: "bg-ochre text-paper",
  not_yet: "border border-ink",
} as const;
const INK = { yes: "text-spruce", no: "text-vermilion", too_close: "text-ochre", not_yet: "" } as const;

/** What is known so far, in the words of the question, at the foot of each of its steps. */
export function TowBar({ onAnswer }: { onAnswer: (() => void) | undefined }) {
  const tow = useCanTow();
  const stale = useStale();
  if (!tow) return null;
  return (
    <Foot>
      <div className="no-print flex min-h-14 items-center gap-3 border-t border-ink bg-card px-4 py-2 lg:px-6">
        <span
          aria-live="polite"
          data-part="tow-bar"
          data-answer={tow.answer}
          className="min-w-0 flex-1 font-cond text-[1.0625rem] leading-tight font-semibold"
        >
          {stale && <span className="block text-[0.8125rem] font-normal">{stale}</span>}
          {tow.answer !== "not_yet" && (
            <span
              className={`mr-2 inline-block px-1.5 ${stale ? "border border-dashed border-ink" : FLAG[tow.answer]}`}
            >
              {tow.lead}
            </span>
          )}
          {tow.bar}
        </span>
        {onAnswer && (
          <button
            type="button"
            className="min-h-11 shrink-0 font-cond text-[1.0625rem] font-semibold underline underline-offset-2"
            onClick={onAnswer}
          >
            See it all
          </button>
        )}
      </div>
    </Foot>
  );
}

/** The answer to the question: yes, no or too close, by how much, by which limit, what would change it. */
export function TowAnswerPage() {
  const tow = useCanTow();
  const { sheet, rig, evaluation } = useDesk();
  const link = "inline-flex min-h-12 items-center border border-ink px-4 font-cond text-[1.0625rem] font-semibold";
  if (!tow) return null;
  return (
    <>
      <h1 className="mt-1 font-cond text-[1.75rem] leading-tight font-semibold" data-tow={tow.answer}>
        <span className={INK[tow.answer]}>{tow.lead}.</span> {tow.sentence}
      </h1>
      {tow.changes.length > 0 && (
        <section aria-label="What would change it" className="mt-4 border-l-4 border-ink pl-3">
          <h2 className="font-cond text-[1.1875rem] font-semibold">What would change it</h2>
          {tow.changes.map((line) => (
            <p key={line} className="mt-1 text-[1rem] leading-snug">
              {line}
            </p>
          ))}
        </section>
      )}
      {tow.rows.length > 0 && <Rows tow={tow} unit={rig.units.mass} />}
      <div className="mt-5 flex flex-wrap gap-3">
        <Link className={`${link} bg-ink text-paper`} to={`/rigs/${sheet.id}/match`}>
          Every limit, and other {evaluation.towing ? "shares" : "trailers"}
        </Link>
        <Link className={link} to={`/rigs/${sheet.id}/weigh`}>
          Weigh it
        </Link>
        <Link className={link} to={`/rigs/${sheet.id}/pack`}>
          List what you load
        </Link>
      </div>
      <p className="mt-4 text-[0.875rem] leading-snug text-soft">{evaluation.caution}</p>
    </>
  );
}

function Rows({ tow, unit }: { tow: TowAnswer; unit: string }) {
  return (
    <section aria-label="Limit by limit" className="mt-4">
      <h2 className="border-b border-ink font-cond text-[1.1875rem] font-semibold">Limit by limit, in {unit}</h2>
      <ul>
        {tow.rows.slice(0, 6).map((row) => (
          <li
            key={row.check}
            className="flex items-baseline gap-2 border-b border-rule py-1 text-[1rem]"
            data-row={row.check}
          >
            <StatusMark always status={row.status as Parameters<typeof StatusMark>[0]["status"]} />
            <span className="flex-1">
              {row.label}
              {row.worked_out && <span className="text-soft"> (not confirmed: {row.worked_out})</span>}
            </span>
            <b className={`font-cond text-[1.0625rem] ${row.status === "over" ? "text-vermilion" : ""}`}>
              {mass(Math.abs(row.margin))} {row.margin < 0 ? "over" : "left"}
            </b>
            <span className="w-14 text-right text-[0.875rem] text-soft">
              {row.plus_minus >= 0.5 && `± ${mass(row.plus_minus)}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
