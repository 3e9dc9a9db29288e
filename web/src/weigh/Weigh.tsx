import { type ReactNode, useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { useQueue } from "../api/queue";
import { useLost } from "../api/reach";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { mass } from "../format";
import { Button } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { Field } from "../ui/Field";
import { Foot } from "../ui/Foot";
import { NextStep } from "../ui/NextStep";
import { Photos } from "../ui/Photos";
import { Standing } from "../ui/Standing";
import { useTerms } from "../ui/useTerms";
import { useLow } from "../ui/useWidth";
import { AddPass } from "./AddPass";
import { AddedSince } from "./Corrections";
import { Jot } from "./Jot";
import { LiveScale } from "./LiveScale";
import { Proof } from "./Proof";
import type { Grain, Lit } from "./readings";
import { StartWeighIn } from "./StartWeighIn";
import { Ticket } from "./Ticket";
import { Tongue } from "./Tongue";

/** The tickets, pass by pass: side by side at a table, one at a time by thumb. */
export function Weigh() {
  const { rig, sheet, evaluation, weighIn } = useDesk();
  const [lit, setLit] = useState<Lit>(null);
  const [turn, setTurn] = useState(0);
  const goTo = useFirstReading(setTurn);
  const [starting, setStarting] = useState(false);
  /** A weigh-in begun from the picture of its ticket: how that is read, and its first reading at once. */
  const begun = useLocation().state as { begun?: boolean; grain?: Grain } | null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the place opens
  useEffect(() => {
    if (begun?.begun) goTo(0);
  }, []);
  const here = weighIn ? rig.weigh_ins?.[weighIn - 1] : undefined;
  const passes = here?.passes ?? [];
  const lost = useLost() !== null;
  const jotted = useQueue().waiting.some((each) => each.kind === "ticket" && each.rig === sheet.id);
  const current = Math.min(turn, Math.max(0, passes.length - 1));
  return (
    <div className="flex min-h-full flex-col">
      <Standing lit={lit} />
      <RigDrawing evaluation={evaluation} short strip lit={lit} />
      {(lost || jotted) && (
        <div className="px-4 pt-3 lg:px-6">
          <Jot />
        </div>
      )}
      <p className="no-print px-4 pt-2 lg:px-6">
        <Link
          to={`/rigs/${sheet.id}/visit`}
          className="inline-flex min-h-11 items-center font-cond text-[1.125rem] font-semibold underline underline-offset-2"
        >
          At the scale: one step at a time
        </Link>
      </p>
      {here && weighIn ? (
        <div className="flex-1 px-4 py-3 lg:px-6">
          <Progress
            count={passes.length}
            current={current}
            done={evaluation.passes.map((pass) => pass.total !== null)}
            onTurn={goTo}
          />
          <div className="grid items-start gap-5 md:grid-cols-2 lg:grid-cols-3">
            {passes.map((pass, index) => (
              <div key={pass.id} className={index === current ? "" : "max-md:hidden"}>
                <Ticket
                  weighIn={weighIn}
                  index={index}
                  pass={pass}
                  grain={begun?.grain}
                  onLit={(now) => {
                    setLit(now);
                    if (now) setTurn(index);
                  }}
                />
              </div>
            ))}
          </div>
          <NextPass count={passes.length} current={current} onTurn={goTo} />
          {rig.vehicle?.ratings?.gvwr == null && evaluation.passes.some((pass) => pass.total !== null) && (
            <div className="max-md:hidden">
              <NextStep to={`/rigs/${sheet.id}/path?door=labels`}>Now the labels</NextStep>
            </div>
          )}
          <div className="mt-6 grid items-start gap-x-8 gap-y-8 border-t border-ink pt-4 md:grid-cols-2 lg:grid-cols-3">
            <When title="While you weigh">
              <AddPass weighIn={weighIn} onAdded={() => goTo(passes.length)} />
              {passes[current] && <LiveScale weighIn={weighIn} index={current} pass={passes[current]} />}
            </When>
            <When title="What it settles">
              {evaluation.towing && <Tongue weighIn={weighIn} />}
              <Proof />
            </When>
            <When title="Afterwards">
              <AddedSince weighIn={weighIn} />
              <ThisWeighIn weighIn={weighIn} />
              <Button onClick={() => setStarting(true)}>Start another weigh-in</Button>
            </When>
          </div>
        </div>
      ) : (
        <div className="px-4 py-6 lg:px-6">
          <h2 className="mb-4 font-cond text-[1.75rem] font-semibold">Not weighed yet</h2>
          <StartWeighIn onStarted={() => goTo(0)} />
        </div>
      )}
      <Slip open={starting} onOpenChange={setStarting} title="Another weigh-in" wide>
        <StartWeighIn
          onStarted={() => {
            setStarting(false);
            goTo(0);
          }}
        />
      </Slip>
    </div>
  );
}

/** Goes to a pass, and to its first reading as soon as that is there: in view, ready to be typed into. */
function useFirstReading(setTurn: (turn: number) => void) {
  const [wanted, setWanted] = useState<number | null>(null);
  useEffect(() => {
    if (wanted === null) return;
    const first = document.querySelector<HTMLInputElement>(
      `[data-pass="${wanted + 1}"] input[data-path*=".readings."]`,
    );
    if (!first) return; // comes with the next answer
    first.focus({ preventScroll: true });
    first.scrollIntoView({ block: "center" });
    setWanted(null);
  });
  return (turn: number) => {
    setTurn(turn);
    setWanted(turn);
  };
}

function ThisWeighIn({ weighIn }: { weighIn: number }) {
  const { rig } = useDesk();
  const here = rig.weigh_ins?.[weighIn - 1];
  const path = `weigh_ins[${weighIn - 1}]`;
  return (
    <section aria-label="This weigh-in">
      <h2 className="font-cond text-[1.25rem] font-semibold">This weigh-in</h2>
      <Field path={`${path}.date`} label="Date" mode="text" />
      <Field path={`${path}.place`} label="Place" mode="text" />
      <Field
        path={`${path}.scale.resolution`}
        label="Graduation of the scale"
        hint="the steps it prints in"
        unit={rig.units.mass}
        sourced
      />
      <Field path={`${path}.scale.accuracy`} label="Its accuracy, if stated" hint="share of a reading, “0.1 %”" />
      <Field path={`${path}.scale.slope`} label="The place falls by" hint="only where it is not level: “2 %”" />
      <Field path={`${path}.note`} label="Note" mode="text" />
      <Photos named about="ticket" label="The tickets of this weigh-in" weighIn={here?.id ?? undefined} />
      <Photos named about="load" label="How it was packed" weighIn={here?.id ?? undefined} />
    </section>
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

/** What belongs to one time of a weigh-in. */
const When = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="space-y-8">
    <p className="border-b border-rule pb-1 font-cond text-[1rem] text-soft">{title}</p>
    {children}
  </section>
);

/** By thumb: what this pass settles, and the way to the next one or to the answer, which stays in reach. */
function NextPass({ count, current, onTurn }: { count: number; current: number; onTurn: (turn: number) => void }) {
  const { evaluation, rig, sheet } = useDesk();
  const t = useTerms();
  const low = useLow();
  const { search } = useLocation();
  const labelled = rig.vehicle?.ratings?.gvwr != null;
  const pass = evaluation.passes[current];
  const tongue = evaluation.derived.tongue_static;
  const shared = evaluation.derived.tongue_share;
  const last = current + 1 >= count;
  const labels = `/rigs/${sheet.id}/path?door=labels`;
  const strong =
    "flex min-h-12 w-full items-center justify-center bg-ink px-3 font-cond text-[1.1875rem] font-semibold text-paper";
  const go = (
    <div className="no-print border-t border-ink bg-card px-4 py-1.5 md:hidden">
      {last ? (
        <Link to={labelled ? `/rigs/${sheet.id}/margins${search}` : labels} className={strong}>
          {labelled ? "See what it says" : "Now the labels"}
        </Link>
      ) : (
        <Button strong className="min-h-12 w-full" onClick={() => onTurn(current + 1)}>
          Next pass: {evaluation.passes[current + 1]?.title.toLowerCase()}
        </Button>
      )}
    </div>
  );
  return (
    <>
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-3 text-[0.9375rem] md:hidden">
        <dt className="text-soft">This pass settles</dt>
        <dd className="text-right font-semibold">{pass?.settles ?? "–"}</dd>
        {evaluation.towing && (
          <>
            <dt className="text-soft">{t("tongue")} so far</dt>
            <dd className="text-right font-cond text-[1rem] font-semibold">
              {tongue
                ? `${mass(tongue.value)} ±${mass(tongue.plus_minus)} ${evaluation.units.mass}${shared ? ` · ${(shared.value * 100).toFixed(1)} %` : ""}`
                : "not known yet"}
            </dd>
          </>
        )}
      </dl>
      {!last && !labelled && pass?.total != null && (
        <Link
          to={labels}
          className="flex min-h-11 items-center justify-center font-cond text-[1.0625rem] underline underline-offset-2 md:hidden"
        >
          I have no more tickets
        </Link>
      )}
      {low ? go : <Foot label="The next pass">{go}</Foot>}
    </>
  );
}
