import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { VisitState, VisitStep } from "../api/client";
import { useWhereabouts } from "../api/presence";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { Offline, useStale } from "../ui/Offline";
import { Photos } from "../ui/Photos";
import { passKinds } from "../weigh/AddPass";
import { Jot } from "../weigh/Jot";
import { endVisit, visitOf } from "../weigh/visit";
import { OnPlatforms } from "./OnPlatforms";
import { Reweigh } from "./Reweigh";
import { SetUp } from "./SetUp";
import { useVisit } from "./useVisit";

/** The visit to the scale, one thing at a time in the biggest type: usable with gloves, with and without a network. */
export function Companion() {
  const { sheet, rig } = useDesk();
  const { state, steps, problem, keep, end } = useVisit(sheet.id);
  const navigate = useNavigate();
  useWhereabouts(sheet.id, "visit");
  const main = useRef<HTMLElement>(null);
  const [wrong, setWrong] = useState(false);
  const at = Math.min(state?.at ?? 0, Math.max(0, steps.length - 1));
  const step = steps[at];
  useEffect(() => {
    document.title = `At the scale · ${rig.name || "a rig"} · Noxel`;
  }, [rig.name]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another step is what starts at its top
  useEffect(() => {
    main.current?.scrollTo(0, 0);
    main.current?.focus({ preventScroll: true });
  }, [at, state === null]);
  const over = () => {
    end();
    endVisit(sheet.id);
    navigate(`/rigs/${sheet.id}/margins`);
  };
  if (!state || !step) {
    return (
      <Frame title="At the scale" leave={`/rigs/${sheet.id}/weigh`}>
        <main ref={main} tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto px-4 py-4 outline-none">
          {state ? <p>{problem ?? "Making the steps…"}</p> : <SetUp onStart={keep} />}
        </main>
      </Frame>
    );
  }
  const typed = step.kind === "ticket" || step.kind === "tongue";
  const passes = steps.filter((each) => each.kind === "drive").length;
  const pass = steps.slice(0, at + 1).filter((each) => each.kind === "drive").length;
  const next = () => (at + 1 < steps.length ? keep({ at: at + 1 }) : over());
  return (
    <Frame
      title="At the scale"
      beside={pass ? `pass ${pass} of ${passes}` : passes ? "before" : "at home"}
      leave={`/rigs/${sheet.id}/weigh`}
      bar={<Segments steps={steps} at={at} onPick={(to) => keep({ at: to })} />}
    >
      <Offline />
      <main ref={main} tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto px-4 pt-3 pb-6 outline-none">
        <div className="mx-auto max-w-2xl">
          <h1 className="font-cond text-[2.125rem] leading-[1.08] font-semibold">{step.title}</h1>
          {step.lead && <p className="mt-2 text-[1.125rem] leading-snug">{step.lead}</p>}
          <Content step={step} state={state} keep={keep} next={next} />
          {step.caution && (
            <p className="mt-4 border-l-4 border-ink pl-3 font-cond text-[1.3125rem] leading-tight font-semibold">
              {step.caution}
            </p>
          )}
          <Reweigh state={state} keep={keep} />
        </div>
      </main>
      <footer className="shrink-0 border-t border-ink bg-card px-4 pt-2 pb-[max(0.75rem,env(safe-area-inset-bottom))]">
        <div className="mx-auto max-w-2xl">
          {step.settles && step.kind === "drive" && (
            <p className="mb-2 flex justify-between gap-4 text-[0.9375rem] leading-tight">
              <span className="shrink-0 text-soft">this pass settles</span>
              <span className="text-right font-cond text-[1rem] font-semibold">{step.settles}</span>
            </p>
          )}
          {!typed && (
            <Button strong className="min-h-14 w-full text-[1.3125rem]" onClick={next}>
              {step.done}
            </Button>
          )}
          <p className="mt-1 flex justify-between">
            <button
              type="button"
              disabled={at === 0}
              className="min-h-11 px-1 text-[1rem] underline underline-offset-2 disabled:invisible"
              onClick={() => keep({ at: at - 1 })}
            >
              back
            </button>
            {(step.trouble ?? []).length > 0 && (
              <button
                type="button"
                className="min-h-11 px-1 text-[1rem] font-semibold underline underline-offset-2"
                onClick={() => setWrong(true)}
              >
                something went wrong
              </button>
            )}
            {typed && (
              <button type="button" className="min-h-11 px-1 text-[1rem] underline underline-offset-2" onClick={next}>
                go on without it
              </button>
            )}
          </p>
        </div>
      </footer>
      <Slip open={wrong} onOpenChange={setWrong} title="Something went wrong" quiet>
        <dl className="space-y-3 text-[1.0625rem] leading-snug">
          {(step.trouble ?? []).map((each) => (
            <div key={each.what}>
              <dt className="font-semibold">{each.what}</dt>
              <dd>{each.say}</dd>
            </div>
          ))}
        </dl>
      </Slip>
    </Frame>
  );
}

function Frame(props: {
  title: string;
  beside?: string;
  leave: string;
  bar?: React.ReactNode;
  children: React.ReactNode;
}) {
  return (
    <div className="flex h-full flex-col bg-paper">
      <header className="flex h-13 shrink-0 items-center justify-between border-b border-ink px-4">
        <span className="font-cond text-[1.1875rem] font-semibold">{props.title}</span>
        <span className="text-[0.9375rem] text-soft">{props.beside}</span>
        <Link
          to={props.leave}
          className="flex min-h-11 items-center px-1 font-cond text-[1.0625rem] underline underline-offset-2"
        >
          Leave
        </Link>
      </header>
      {props.bar}
      {props.children}
    </div>
  );
}

function Segments({ steps, at, onPick }: { steps: readonly VisitStep[]; at: number; onPick: (to: number) => void }) {
  return (
    <div className="flex shrink-0 gap-1.5 px-4">
      {steps.map((step, index) => (
        <button
          // biome-ignore lint/suspicious/noArrayIndexKey: a step is named by its place
          key={index}
          type="button"
          aria-label={`Step ${index + 1} of ${steps.length}: ${step.title}`}
          aria-current={index === at ? "step" : undefined}
          onClick={() => onPick(index)}
          className="flex h-7 flex-1 items-center"
        >
          <span className={`h-[6px] w-full ${index === at ? "bg-spruce" : index < at ? "bg-ink" : "bg-rule"}`} />
        </button>
      ))}
    </div>
  );
}

function Content(props: {
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
          {(step.asked ?? []).length > 0 && <Asked step={step} />}
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
            fee={(step.first ? state.first_price : state.again_price) ?? ""}
            onKept={() => {
              if (step.first && step.kind === "ticket") keep({ ticket_at: Date.now() });
              next();
            }}
          />
          <div className="mt-2">
            <Photos
              big
              about="ticket"
              label={step.kind === "tongue" ? "What it read" : "The ticket"}
              visit={visitOf(sheet.id)}
              weighIn={step.first ? undefined : sheet.window.keys.at(-1)}
            />
          </div>
        </div>
      );
    }
    case "answer":
    case "verdict":
      return <Says />;
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

function Asked({ step }: { step: VisitStep }) {
  return (
    <table className="w-full border border-ink bg-card text-left">
      <caption className="bg-ink px-3 py-1.5 text-left font-cond text-[1rem] font-semibold text-paper">
        The voice will ask · you say
      </caption>
      <tbody>
        {(step.asked ?? []).map((each) => (
          <tr key={each.what} className="border-t border-rule">
            <th scope="row" className="px-3 py-2.5 text-[1.0625rem] font-normal">
              {each.what}
            </th>
            <td className="px-3 text-right font-cond text-[1.25rem] font-semibold">{each.say}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The verdict so far in the biggest type, and what is still open. */
function Says() {
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
