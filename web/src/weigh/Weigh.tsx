import { useState } from "react";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { mass } from "../format";
import { Button } from "../ui/controls";
import { Field } from "../ui/Field";
import { AddPass } from "./AddPass";
import type { Lit } from "./readings";
import { Ticket } from "./Ticket";

/** The tickets, pass by pass: side by side at a table, one at a time by thumb. */
export function Weigh() {
  const { rig, evaluation, weighIn, newWeighIn } = useDesk();
  const [lit, setLit] = useState<Lit>(null);
  const [turn, setTurn] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const here = weighIn ? rig.weigh_ins?.[weighIn - 1] : undefined;
  const start = () =>
    newWeighIn().then(
      () => setTurn(0),
      (error: Error) => setProblem(error.message),
    );
  const passes = here?.passes ?? [];
  const current = Math.min(turn, Math.max(0, passes.length - 1));
  return (
    <div className="flex min-h-full flex-col">
      <div className="sticky top-0 z-10 border-b border-ink bg-paper">
        <RigDrawing evaluation={evaluation} short strip lit={lit} />
      </div>
      {here && weighIn ? (
        <>
          <div className="flex-1 px-4 py-3 lg:px-6">
            <Progress
              count={passes.length}
              current={current}
              done={evaluation.passes.map((pass) => pass.total !== null)}
              onTurn={setTurn}
            />
            <div className="grid items-start gap-5 md:grid-cols-2 lg:grid-cols-3">
              {passes.map((pass, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a pass is named by its place
                <div key={index} className={index === current ? "" : "max-md:hidden"}>
                  <Ticket weighIn={weighIn} index={index} pass={pass} onLit={setLit} />
                </div>
              ))}
              <div className="max-md:border-t max-md:border-rule max-md:pt-3">
                <AddPass weighIn={weighIn} onAdded={() => setTurn(passes.length)} />
                <section aria-label="This weigh-in" className="mt-5">
                  <h2 className="font-cond text-[18px] font-semibold">This weigh-in</h2>
                  <Field path={`weigh_ins[${weighIn - 1}].date`} label="Date" mode="text" />
                  <Field path={`weigh_ins[${weighIn - 1}].place`} label="Place" mode="text" />
                  <Field
                    path={`weigh_ins[${weighIn - 1}].scale.resolution`}
                    label="Graduation of the scale"
                    hint="the steps it prints in"
                    unit={rig.units.mass}
                    sourced
                  />
                </section>
                <Button className="mt-5" onClick={() => void start()}>
                  Start another weigh-in
                </Button>
              </div>
            </div>
          </div>
          <NextBar count={passes.length} current={current} onTurn={setTurn} />
        </>
      ) : (
        <div className="px-4 py-8 lg:px-6">
          <h1 className="font-cond text-[28px] font-semibold">Not weighed yet</h1>
          <p className="mt-2 max-w-[65ch] text-[16px] leading-relaxed">
            Two passes over a three-platform truck scale settle most of it: once hitched, once the vehicle alone with
            the same people and fuel. Full fuel, everyone aboard, tanks as you travel.
          </p>
          <Button strong className="mt-5" onClick={() => void start()}>
            Start a weigh-in
          </Button>
        </div>
      )}
      {problem && <p className="m-4 border-l-4 border-ink pl-2 font-semibold">{problem}</p>}
    </div>
  );
}

function Progress(props: { count: number; current: number; done: boolean[]; onTurn: (turn: number) => void }) {
  return (
    <div className="mb-3 flex gap-2 md:hidden">
      {Array.from({ length: props.count }, (_, index) => (
        <button
          // biome-ignore lint/suspicious/noArrayIndexKey: a pass is named by its place
          key={index}
          type="button"
          aria-label={`Pass ${index + 1} of ${props.count}`}
          aria-current={index === props.current}
          onClick={() => props.onTurn(index)}
          className="flex h-7 flex-1 items-center"
        >
          <span
            className={`h-[6px] w-full ${index === props.current ? "bg-ink" : props.done[index] ? "bg-spruce" : "bg-rule"}`}
          />
        </button>
      ))}
    </div>
  );
}

/** What this pass settles and the answer so far, within reach of the thumb; the way to the next field or pass. */
function NextBar({ count, current, onTurn }: { count: number; current: number; onTurn: (turn: number) => void }) {
  const { evaluation } = useDesk();
  const pass = evaluation.passes[current];
  const tongue = evaluation.derived.tongue_static;
  const shared = evaluation.derived.tongue_share;
  const last = current + 1 >= count;
  return (
    <div className="sticky bottom-0 z-10 border-t border-ink bg-card px-4 py-2.5 md:hidden">
      <dl className="mb-2 grid grid-cols-[auto_1fr] gap-x-3 text-[14px]">
        <dt className="text-soft">This pass settles</dt>
        <dd className="text-right font-semibold">{pass?.settles ?? "–"}</dd>
        {evaluation.towing && (
          <>
            <dt className="text-soft">Tongue so far</dt>
            <dd className="text-right font-cond text-[16px] font-semibold">
              {tongue
                ? `${mass(tongue.value)} ±${mass(tongue.plus_minus)} ${evaluation.units.mass}${shared ? ` · ${(shared.value * 100).toFixed(1)} %` : ""}`
                : "not known yet"}
            </dd>
          </>
        )}
      </dl>
      {!last && (
        <Button strong className="w-full" onClick={() => onTurn(current + 1)}>
          Next pass: {evaluation.passes[current + 1]?.title.toLowerCase()}
        </Button>
      )}
    </div>
  );
}
