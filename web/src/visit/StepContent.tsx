import { Link } from "react-router";
import type { VisitState, VisitStep } from "../api/client";
import { useDesk } from "../api/useSheet";
import { useStale } from "../ui/Offline";
import { passKinds } from "../weigh/AddPass";
import { Jot } from "../weigh/Jot";
import { visitOf } from "../weigh/visit";
import { Asked } from "./Asked";
import { OnPlatforms } from "./OnPlatforms";

export function Content(props: {
  step: VisitStep;
  state: VisitState;
  keep: (change: Partial<VisitState>) => void;
  next: () => void;
}) {
  const { step, state, keep, next } = props;
  const { evaluation, rig, sheet } = useDesk();
  switch (step.kind) {
    case "list":
      return <List step={step} state={state} keep={keep} />;
    case "drive":
      return (
        <>
          <OnPlatforms step={step} />
          {step.asked && step.asked.length > 0 && <Asked lines={step.asked} />}
        </>
      );
    case "tongue":
    case "ticket": {
      const kinds = passKinds(evaluation, rig.hitch?.weight_distribution ?? false);
      const kind = kinds.find(
        ([, made]) => made.config === step.config && (made.spring_bars ?? null) === (step.spring_bars ?? null),
      );
      return (
        <div className="mt-3">
          <Jot
            kind={kind?.[0]}
            scale={state.scale ?? "truck_scale"}
            photo={{
              label: step.kind === "tongue" ? "What it read" : "The ticket",
              visit: visitOf(sheet.id),
              weighIn: step.first ? undefined : (rig.weigh_ins?.at(-1)?.id ?? undefined),
            }}
            fee={(step.first ? state.first_price : state.again_price) ?? ""}
            onKept={() => {
              if (step.first && step.kind === "ticket") keep({ ticket_at: Date.now() });
              next();
            }}
          />
        </div>
      );
    }
    case "answer":
    case "verdict":
      return <Says stop={step.stop ?? []} />;
  }
}

function List({
  step,
  state,
  keep,
}: {
  step: VisitStep;
  state: VisitState;
  keep: (change: Partial<VisitState>) => void;
}) {
  const ticked = new Set(state.ticked);
  const name = (line: string) => `${step.key}: ${line}`;
  const tick = (line: string) => {
    const next = new Set(ticked);
    if (!next.delete(name(line))) next.add(name(line));
    keep({ ticked: [...next] });
  };
  return (
    <ul className="mt-3 border-t border-ink">
      {(step.lines ?? []).map((line) => (
        <li key={line} className="border-b border-rule">
          <label className="flex min-h-14 cursor-pointer items-center gap-3 py-2 text-[1.1875rem] leading-snug">
            <input
              type="checkbox"
              checked={ticked.has(name(line))}
              onChange={() => tick(line)}
              className="h-7 w-7 shrink-0 accent-(--spruce)"
            />
            <span className={ticked.has(name(line)) ? "text-soft" : ""}>{line}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}

/** The verdict so far in the biggest type, what is still open, and after a stop what can be done here. */
function Says({ stop }: { stop: readonly string[] }) {
  const { sheet, evaluation } = useDesk();
  const stale = useStale();
  const { lead, sentence, rest } = evaluation.headline;
  return (
    <div className="mt-3" aria-live="polite">
      {stale && <p className="mb-1 text-[1rem] font-semibold">{stale}</p>}
      <p className="font-cond text-[1.625rem] leading-tight font-semibold">
        <span className={stale ? "underline decoration-dashed" : INK[evaluation.verdict]}>{lead}</span> {sentence}
      </p>
      {rest.map((each) => (
        <p key={each} className="mt-2 text-[1.125rem] leading-snug">
          {each}
        </p>
      ))}
      {evaluation.advisories
        .filter((each) => each.level === "warning" && !each.accepted)
        .slice(0, 3)
        .map((each) => (
          <p key={each.code + each.path} className="mt-3 border-l-4 border-ochre pl-3 text-[1.0625rem] leading-snug">
            {each.message}
          </p>
        ))}
      {evaluation.verdict === "stop" && stop.length > 0 && (
        <section aria-label="What you can do here" className="mt-4 border-t border-ink pt-2">
          <h2 className="font-cond text-[1.375rem] leading-tight font-semibold">What you can do here</h2>
          <ol className="mt-1 list-decimal space-y-1.5 pl-6 text-[1.125rem] leading-snug">
            {stop.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          <Link
            className="mt-2 flex min-h-12 items-center justify-center bg-ink px-4 font-cond text-[1.1875rem] font-semibold text-paper"
            to={`/rigs/${sheet.id}/adjust`}
          >
            How to fix it
          </Link>
        </section>
      )}
      <p className="mt-4 flex flex-wrap gap-x-6 text-[1.0625rem]">
        <Link className="flex min-h-11 items-center underline underline-offset-2" to={`/rigs/${sheet.id}/weigh`}>
          Look at the tickets
        </Link>
        <Link className="flex min-h-11 items-center underline underline-offset-2" to={`/rigs/${sheet.id}/margins`}>
          See every check
        </Link>
      </p>
    </div>
  );
}

const INK = { stop: "text-vermilion", within: "text-spruce", caution: "text-ochre", incomplete: "text-ochre" } as const;
