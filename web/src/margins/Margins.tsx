import { useEffect, useState } from "react";
import type { Check } from "../api/client";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { Advisories } from "./Advisories";
import { Ledger } from "./Ledger";
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
  const { picked, shown, setPicked } = usePicked(evaluation.checks);
  const check = evaluation.checks.find((each) => each.id === shown) ?? evaluation.checks[0];
  return (
    <div className="lg:flex lg:h-full lg:flex-col">
      <div className="border-b border-ink bg-paper">
        <RigDrawing evaluation={evaluation} picked={shown} onPick={setPicked} />
      </div>
      <div className="lg:flex lg:min-h-0 lg:flex-1">
        <div className="min-w-0 px-4 pb-4 lg:flex-1 lg:overflow-y-auto lg:px-6">
          <Headline />
          <Ledger checks={evaluation.checks} picked={check?.id ?? null} opened={picked} onPick={setPicked} />
          <Advisories />
          <p className="mt-4 text-[14px] leading-snug text-soft">{evaluation.caution}</p>
        </div>
        {check && (
          <aside
            aria-label="Working"
            className="border-ink bg-card max-lg:hidden lg:w-[356px] lg:overflow-y-auto lg:border-l"
          >
            <WorkingPanel check={check} />
          </aside>
        )}
      </div>
    </div>
  );
}

function Headline() {
  const { evaluation } = useDesk();
  const { lead, sentence, rest } = evaluation.headline;
  const ink =
    evaluation.verdict === "stop" ? "text-vermilion" : evaluation.verdict === "within" ? "text-spruce" : "text-ochre";
  return (
    <div className="py-2.5" data-verdict={evaluation.verdict}>
      <h1 className="font-cond text-[22px] leading-tight font-semibold md:text-[24px]">
        <span className={ink}>{lead}</span> {sentence}
      </h1>
      {rest.length > 0 && <p className="mt-0.5 text-[15px] leading-snug">{rest.slice(0, 4).join(" ")}</p>}
    </div>
  );
}
