import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useWhereabouts } from "../api/presence";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { Offline } from "../ui/Offline";
import { endVisit } from "../weigh/visit";
import { Frame, Segments } from "./Frame";
import { Reweigh } from "./Reweigh";
import { SetUp } from "./SetUp";
import { Content } from "./StepContent";
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
  const caution = step.caution && (
    <p className="mt-3 border-l-4 border-ink pl-3 font-cond text-[1.3125rem] leading-tight font-semibold">
      {step.caution}
    </p>
  );
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
          {step.kind === "drive" && caution}
          <Content step={step} state={state} keep={keep} next={next} />
          {step.kind !== "drive" && caution}
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
          <div className="mt-1 flex justify-between">
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
          </div>
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
