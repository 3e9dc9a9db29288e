import { Link, useLocation } from "react-router";
import type { Check, Evaluation } from "../api/client";
import { useDesk } from "../api/useSheet";
import { fillOf, POSTS, type PostId } from "../drawing/layout";
import { loadText, verdictOf } from "../drawing/said";
import { mass } from "../format";
import { useStale } from "./Offline";
import { Pinned } from "./Pinned";
import { useCalm } from "./useCalm";

const FLAG = {
  stop: "bg-vermilion text-paper",
  incomplete: "border border-ink",
  caution: "bg-ochre text-paper",
  within: "bg-spruce text-paper",
} as const;

/** How it stands, on two lines that stay at the top of a place: the verdict, and each post as a small bar; on a phone
 * the one that the field in hand feeds. */
export function Standing(props: { shown?: Pick<Evaluation, "verdict" | "headline" | "checks">; lit?: PostId | null }) {
  const { evaluation, sheet } = useDesk();
  const weighIn = new URLSearchParams(useLocation().search).get("weigh-in");
  const shown = props.shown ?? evaluation;
  const stale = useStale();
  const { verdict, headline } = useCalm(shown);
  const sentence = headline.sentence.replace(/^Nothing has been weighed yet\. /, ""); // its lead says so
  const { checks } = shown;
  const posts = POSTS.flatMap(({ id, check }) => {
    const found = checks.find((each) => each.id === check);
    return found?.limit == null ? [] : [{ id, check: found }];
  });
  return (
    <Pinned className="no-print sticky top-0 z-10">
      <Link
        to={`/rigs/${sheet.id}/margins${weighIn ? `?weigh-in=${weighIn}` : ""}`}
        data-part="verdict-bar"
        data-settled={headline === shown.headline}
        className="flex min-h-11 flex-wrap content-center items-center gap-x-3 gap-y-0.5 px-4 py-1 font-cond max-md:h-13 hover:bg-sunk md:flex-nowrap lg:px-6"
      >
        <span aria-live="polite" className="flex min-w-0 flex-[1_1_100%] items-center gap-2 md:flex-1">
          <span
            className={`shrink-0 px-1.5 text-[1rem] font-semibold ${stale ? "border border-dashed border-ink" : FLAG[verdict]}`}
          >
            {headline.lead.replace(/[.:]$/, "")}
          </span>
          <span
            className={`min-w-0 flex-1 text-[1.0625rem] leading-tight font-semibold md:truncate max-md:text-[0.9375rem] ${props.lit ? "max-md:truncate" : "max-md:line-clamp-2"}`}
          >
            {[stale, sentence, evaluation.of].filter(Boolean).join(" ")}
          </span>
          <span className="shrink-0 text-[0.9375rem] underline underline-offset-2 max-md:sr-only">See it all</span>
          <span aria-hidden="true" className="shrink-0 text-[1.25rem] md:hidden">
            ›
          </span>
        </span>
        <span className="flex shrink-0 gap-3 text-[0.875rem] leading-none max-md:w-full max-md:gap-5">
          {posts.map(({ id, check }) => (
            <span
              key={id}
              className={`flex items-center gap-1.5 ${props.lit === id ? "" : "max-md:hidden"} ${props.lit === id ? "font-semibold" : ""}`}
            >
              <Bar check={check} />
              <span>
                <span className="text-soft">{id === "tongue" ? (evaluation.terms.tongue ?? id) : id}</span>{" "}
                <span className={props.lit === id ? "" : "md:hidden"}>
                  {loadText(check)} of {mass(check.limit ?? 0)},{" "}
                </span>
                {verdictOf(check, true)}
              </span>
            </span>
          ))}
        </span>
      </Link>
    </Pinned>
  );
}

const shareOf = (check: Check) => (check.actual ?? check.expected?.actual ?? check.at_least ?? 0) / (check.limit || 1);

/** A post as small as a word: its frame is the rating, its fill the load, what is over stands out. */
function Bar({ check }: { check: Check }) {
  const share = Math.min(1.3, shareOf(check));
  const weighed = check.actual != null;
  return (
    <svg aria-hidden="true" width={12} height={20} viewBox="0 0 12 20" className="shrink-0">
      <rect
        x={2}
        y={19 - 14 * share}
        width={8}
        height={14 * share}
        fill={weighed ? fillOf(check.status) : "none"}
        stroke={weighed ? "none" : "var(--ink)"}
        strokeDasharray={weighed ? undefined : "2 2"}
      />
      <rect x={1} y={5} width={10} height={14} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
    </svg>
  );
}
