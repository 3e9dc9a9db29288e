import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Evaluation, RequestFailed, type Step } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Boundary } from "../app/Boundary";
import { RigDrawing } from "../drawing/RigDrawing";
import { Button } from "../ui/controls";
import { Missing } from "../ui/Missing";
import { NextStep } from "../ui/NextStep";
import { Standing } from "../ui/Standing";
import { AllowMore } from "./AllowMore";
import { BarsChart } from "./BarsChart";
import { ChangeTable } from "./ChangeTable";
import { Kept } from "./Kept";
import { Lengths } from "./Lengths";
import { Levers } from "./Levers";
import { Proposals } from "./Proposals";
import { TryStep } from "./TryStep";

/** What to move, drain, leave or tighten: try it, see every limit before and after, or let Noxel find the easiest fix. */
export function Adjust() {
  const { sheet, evaluation, number } = useDesk();
  const [steps, setSteps] = useState<Step[]>([]);
  const looked = number;
  const answer = useQuery({
    queryKey: ["adjust", sheet.id, sheet.saved_at, looked ?? 0, steps],
    queryFn: () => api.adjust(sheet.id, steps, looked),
    placeholderData: (before) => before,
    retry: false,
  });
  const found = answer.data;
  if (answer.error) {
    return <Needs error={answer.error} onBack={steps.length ? () => setSteps(steps.slice(0, -1)) : undefined} />;
  }
  if (!found) return null;
  const { tried } = found;
  const needed = tried.verdict === "stop" || found.levers.length > 0;
  const shown: Evaluation = { ...evaluation, checks: tried.checks_after, bars_moved: null };
  return (
    <>
      <Standing shown={{ verdict: tried.verdict, headline: tried.headline, checks: tried.checks_after }} />
      <RigDrawing evaluation={shown} short predicted measured={tried.checks_before} />
      <div className="mx-auto grid max-w-[87.5rem] grid-cols-1 items-start gap-x-10 gap-y-6 px-4 py-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] lg:px-6">
        <div>
          <p className="text-[0.875rem] text-soft">
            {tried.weighed
              ? (evaluation.of ?? "Starting from the scale.")
              : "Starting from the plan: nothing was weighed that could be used."}{" "}
            Solid: before. Outlined: with the steps below.
          </p>
          <h2 className="font-cond text-[1.5rem] leading-tight font-semibold" data-adjusted={tried.verdict}>
            <span
              className={
                tried.verdict === "stop" ? "text-vermilion" : tried.verdict === "within" ? "text-spruce" : "text-ochre"
              }
            >
              {tried.headline.lead}
            </span>{" "}
            {tried.headline.sentence}
          </h2>
          {tried.bars && <p className="mt-1 border-l-4 border-rule pl-2 text-[0.875rem] leading-snug">{tried.bars}</p>}
          {tried.attitude && <p className="mt-1 text-[0.875rem] text-soft">{tried.attitude}</p>}
          <StepList steps={steps} says={tried.says} onChange={setSteps} />
          <Levers levers={found.levers} />
          <Lengths figures={found.missing} />
          <Proposals steps={steps} needed={needed} onTake={(more) => setSteps([...steps, ...more])} />
          <TryStep steps={steps} onAdd={(step) => setSteps([...steps, step])} />
          <AllowMore />
        </div>
        <div>
          <ChangeTable tried={tried} />
          {found.bars && (
            <Boundary part="The chart of the bars">
              <BarsChart
                curve={found.bars}
                onTry={(level) => setSteps([...steps.filter((each) => each.kind !== "bars"), { kind: "bars", level }])}
              />
            </Boundary>
          )}
          <Kept kept={found.kept} />
        </div>
      </div>
    </>
  );
}

function Needs({ error, onBack }: { error: Error; onBack?: (() => void) | undefined }) {
  const { sheet } = useDesk();
  const problems = error instanceof RequestFailed ? (error.problem?.errors ?? []) : [];
  return (
    <div className="mx-auto max-w-3xl px-4 py-6">
      <h2 className="font-cond text-[1.5rem] font-semibold">Nothing to adjust yet</h2>
      <p className="mt-1 text-[1rem]">
        Adjust shows what each change does to every limit at once, and finds the easiest fixes. It starts from anything
        that was weighed, or from a plan.
      </p>
      <Missing figures={problems.length ? problems : [{ path: "", message: error.message }]} />
      <NextStep to={`/rigs/${sheet.id}/weigh`}>Weigh it</NextStep>
      <p className="mt-3 text-[1rem]">
        or{" "}
        <Link className="underline" to={`/rigs/${sheet.id}/pack`}>
          fill in the plan
        </Link>
      </p>
      {onBack && (
        <Button className="mt-4" onClick={onBack}>
          Undo the last step
        </Button>
      )}
    </div>
  );
}

function StepList(props: { steps: Step[]; says: string[]; onChange: (steps: Step[]) => void }) {
  const { steps, says, onChange } = props;
  const { ask, number, sheet } = useDesk();
  const seen = sheet.edits;
  const [name, setName] = useState("");
  const [notice, setNotice] = useState<string | null>(null);
  if (steps.length === 0)
    return notice && <p className="mt-3 border-l-4 border-spruce pl-2 text-[0.9375rem]">{notice}</p>;
  const keep = () =>
    ask((id, key) =>
      api.keepSteps(id, { name: name.trim() || says.join(". ").slice(0, 120), steps, seen }, key, number),
    ).then(
      () => setNotice("Kept. The next weigh-in will be compared with it."),
      (error: Error) => setNotice(error.message),
    );
  const apply = () =>
    ask((id, key) => api.applySteps(id, { steps, seen }, key, number)).then(
      () => {
        onChange([]);
        setNotice("Now in Pack. Undo reverses it.");
      },
      (error: Error) => setNotice(error.message),
    );
  return (
    <section aria-label="Steps tried" className="mt-3 border border-ink bg-card p-3">
      <ol className="text-[1rem]">
        {says.map((said, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a step's place is its name
          <li key={index} className="flex items-baseline justify-between gap-3 border-b border-rule py-1">
            <span>
              {index + 1}. {said}
            </span>
            <button
              type="button"
              className="font-cond text-[0.875rem] underline"
              aria-label={`Undo: ${said}`}
              onClick={() => onChange(steps.filter((_, other) => other !== index))}
            >
              take back
            </button>
          </li>
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button strong onClick={() => void apply()}>
          Use in Pack
        </Button>
        <input
          value={name}
          aria-label="Name of this plan"
          placeholder="a name for it"
          onChange={(event) => setName(event.currentTarget.value)}
          className="h-10 w-44 border-b-2 border-edge bg-paper px-2 outline-none placeholder:text-soft focus:border-ink"
        />
        <Button onClick={() => void keep()}>Keep as a plan</Button>
        <button type="button" className="underline" onClick={() => onChange([])}>
          all back
        </button>
      </div>
      {notice && <p className="mt-1 text-[0.875rem]">{notice}</p>}
    </section>
  );
}
