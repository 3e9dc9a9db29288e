import { Link, useLocation } from "react-router";
import { useDesk } from "../api/useSheet";
import { Foot } from "./Foot";
import { useStale } from "./Offline";
import { useCalm } from "./useCalm";

const FLAG = {
  stop: "bg-vermilion text-paper",
  incomplete: "border border-ink",
  caution: "bg-ochre text-paper",
  within: "bg-spruce text-paper",
} as const;

/** The verdict so far, live, at the foot of a short path: all of it is one tap away. */
export function VerdictBar() {
  const { sheet, evaluation } = useDesk();
  const weighIn = new URLSearchParams(useLocation().search).get("weigh-in");
  const stale = useStale();
  const { verdict, headline } = useCalm(evaluation);
  const { lead } = headline;
  const sentence = headline.sentence.replace(/^Nothing has been weighed yet\. /, ""); // its lead says so
  return (
    <Foot>
      <div className="no-print flex items-stretch border-t border-ink bg-card">
        <Link
          to={`/rigs/${sheet.id}/margins${weighIn ? `?weigh-in=${weighIn}` : ""}`}
          data-part="verdict-bar"
          data-settled={headline === evaluation.headline}
          className="flex min-h-14 min-w-0 flex-1 items-center gap-3 px-4 py-2 hover:bg-sunk lg:px-6"
        >
          <span aria-live="polite" className="min-w-0 flex-1">
            {(stale ?? evaluation.of) && (
              <span className="block text-[0.8125rem] leading-tight">{stale ?? evaluation.of}</span>
            )}
            <span
              className={`mr-2 inline-block px-1.5 font-cond text-[1rem] font-semibold ${stale ? "border border-dashed border-ink" : FLAG[verdict]}`}
            >
              {lead.replace(/[.:]$/, "")}
            </span>
            <span className="line-clamp-3 font-cond text-[1.0625rem] leading-tight font-semibold md:inline">
              {sentence}
            </span>
          </span>
          <span className="shrink-0 font-cond text-[1.0625rem] font-semibold underline underline-offset-2">
            See it all
          </span>
        </Link>
      </div>
    </Foot>
  );
}
