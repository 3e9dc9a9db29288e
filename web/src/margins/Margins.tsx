import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Check, Evaluation } from "../api/client";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { Choice } from "../ui/controls";
import { useBackCloses } from "../ui/Dialog";
import { NextStep } from "../ui/NextStep";
import { useStale } from "../ui/Offline";
import { useNarrow } from "../ui/useWidth";
import { Advisories } from "./Advisories";
import { Doubts } from "./Doubts";
import { Ledger } from "./Ledger";
import { Rooms } from "./Rooms";
import { WorkingPanel } from "./WorkingPanel";

/** Which check is open: the one picked, else the tightest. */
function usePicked(checks: readonly Check[]) {
  const [picked, setPicked] = useState<string | null>(null);
  const there = checks.some((check) => check.id === picked);
  useEffect(() => {
    if (picked && !there) setPicked(null);
  }, [picked, there]);
  return { picked: there ? picked : null, shown: there ? picked : (checks[0]?.id ?? null), setPicked };
}

/** Everything at once: the drawing, the verdict, every check tightest first, the working of the one picked. */
export function Margins() {
  const { evaluation } = useDesk();
  const [view, setView] = useState<"weighed" | "estimate">("weighed");
  const [order, setOrder] = useState<"tightest" | "parts">("tightest");
  const estimate = view === "estimate" ? evaluation.estimate : null;
  const checks = estimate?.checks ?? evaluation.checks;
  const { picked, shown, setPicked } = usePicked(checks);
  const check = checks.find((each) => each.id === shown) ?? checks[0];
  useBackCloses(useNarrow() && picked !== null, () => setPicked(null));
  return (
    <div className="lg:flex lg:h-full lg:flex-col">
      <div className="border-b border-ink bg-paper">
        <RigDrawing evaluation={evaluation} picked={shown} onPick={setPicked} />
      </div>
      <div className="lg:flex lg:min-h-0 lg:flex-1">
        <div className="min-w-0 px-4 pb-4 lg:flex-1 lg:overflow-y-auto lg:px-6">
          <Doubts />
          <div className="items-start justify-between gap-4 md:flex">
            <Headline
              verdict={estimate?.verdict ?? evaluation.verdict}
              headline={estimate?.headline ?? evaluation.headline}
              estimated={estimate !== null && estimate !== undefined}
            />
            <div className="no-print flex shrink-0 flex-wrap gap-2 pb-2 md:flex-col md:items-end md:py-2.5">
              <Choice
                label="Order of the checks"
                value={order}
                onChange={setOrder}
                options={[
                  ["tightest", "tightest first"],
                  ["parts", "by part"],
                ]}
              />
              {evaluation.estimate && (
                <Choice
                  label="What is shown"
                  value={view}
                  onChange={setView}
                  options={[
                    ["weighed", "as weighed"],
                    ["estimate", "with what was added since"],
                  ]}
                />
              )}
            </div>
          </div>
          <Ledger
            checks={checks}
            grouped={order === "parts"}
            picked={check?.id ?? null}
            opened={picked}
            onPick={setPicked}
          />
          <Rooms />
          <Advisories />
          <p className="mt-4 text-[0.875rem] leading-snug text-soft">{evaluation.caution}</p>
        </div>
        {check && (
          <aside
            aria-label="Working"
            className="border-ink bg-card max-lg:hidden lg:w-[22.25rem] lg:overflow-y-auto lg:border-l"
          >
            <WorkingPanel check={check} />
          </aside>
        )}
      </div>
    </div>
  );
}

function Headline(props: { verdict: Evaluation["verdict"]; headline: Evaluation["headline"]; estimated: boolean }) {
  const { verdict, estimated } = props;
  const { sheet, evaluation } = useDesk();
  /** Nothing to compare, and nothing to compare with. */
  const blank = evaluation.checks.every((each) => (each.limit ?? null) === null && each.actual === null);
  const { lead, sentence, rest, unknown = [] } = props.headline;
  const stale = useStale();
  const ink = stale
    ? "underline decoration-dashed"
    : verdict === "stop"
      ? "text-vermilion"
      : verdict === "within"
        ? "text-spruce"
        : "text-ochre";
  return (
    <div className="py-2.5" data-verdict={verdict}>
      {stale && <p className="text-[0.9375rem] font-semibold">{stale}</p>}
      {evaluation.of && <p className="text-[0.9375rem] font-semibold">{evaluation.of}</p>}
      {estimated && <p className="text-[0.875rem] font-semibold text-ochre">Estimated, not weighed</p>}
      <h1 className="font-cond text-[1.375rem] leading-tight font-semibold md:text-[1.5rem]">
        <span className={ink}>{lead}</span> {sentence}
      </h1>
      {rest.length > 0 && <p className="mt-0.5 text-[0.9375rem] leading-snug">{rest.slice(0, 4).join(" ")}</p>}
      {unknown.length > 0 && (
        <p className="mt-1 text-[0.9375rem] leading-snug" data-part="unknown">
          <span className="text-soft">Not known: </span>
          {unknown.map((each, index) => (
            <span key={each.label}>
              {index > 0 && ", "}
              <Link
                className="underline underline-offset-2"
                to={each.path ? `/rigs/${sheet.id}/plates#${each.path}` : `/rigs/${sheet.id}/weigh`}
              >
                {each.label}
              </Link>
            </span>
          ))}
        </p>
      )}
      {verdict === "stop" && <NextStep to={`/rigs/${sheet.id}/adjust`}>How to fix it</NextStep>}
      {blank && <NextStep to={`/rigs/${sheet.id}/path?door=labels`}>Enter the first label</NextStep>}
    </div>
  );
}
