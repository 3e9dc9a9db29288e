import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";
import {
  type Adjustment,
  api,
  type Evaluation,
  type Proposals as Found,
  RequestFailed,
  type Step,
} from "../api/client";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { mass, share as shareText } from "../format";
import { Button } from "../ui/controls";
import { statusWord } from "../ui/Status";
import { AllowMore } from "./AllowMore";
import { BarsChart } from "./BarsChart";
import { Kept } from "./Kept";
import { Levers } from "./Levers";
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
  const shown: Evaluation = { ...evaluation, checks: tried.checks_after, bars_moved: null };
  return (
    <>
      <div className="border-b border-ink bg-paper md:sticky md:top-0 md:z-10 short:static">
        <RigDrawing evaluation={shown} short predicted measured={tried.checks_before} />
      </div>
      <div className="mx-auto grid max-w-[87.5rem] grid-cols-1 items-start gap-x-10 gap-y-6 px-4 py-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] lg:px-6">
        <div>
          <p className="text-[0.875rem] text-soft">
            {tried.weighed
              ? "Starting from the scale."
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
          <TryStep steps={steps} onAdd={(step) => setSteps([...steps, step])} />
          <Proposals steps={steps} onTake={(more) => setSteps([...steps, ...more])} />
          <AllowMore />
        </div>
        <div>
          <ChangeTable tried={tried} />
          <Levers levers={found.levers} />
          {found.bars && (
            <BarsChart
              curve={found.bars}
              onTry={(level) => setSteps([...steps.filter((each) => each.kind !== "bars"), { kind: "bars", level }])}
            />
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
      {(problems.length ? problems : [{ path: "", message: error.message }]).map((each) => (
        <p key={each.path} className="mt-1 text-[1rem]">
          {each.path && <b>{each.path.split(".").slice(-2).join(", ").replaceAll("_", " ")} </b>}
          {each.message}.
        </p>
      ))}
      <p className="mt-3 text-[1rem]">
        Adjust starts from a weigh-in with the vehicle alone, or from a plan that can be predicted:{" "}
        <Link className="underline" to={`/rigs/${sheet.id}/weigh`}>
          weigh
        </Link>
        , or fill in{" "}
        <Link className="underline" to={`/rigs/${sheet.id}/pack`}>
          the plan
        </Link>
        .
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
  const { ask, number } = useDesk();
  const [name, setName] = useState("");
  const [told, setTold] = useState<string | null>(null);
  if (steps.length === 0) return told && <p className="mt-3 border-l-4 border-spruce pl-2 text-[0.9375rem]">{told}</p>;
  const keep = () =>
    ask((id) => api.keepSteps(id, name.trim() || says.join("; ").slice(0, 120), steps, number)).then(
      () => setTold("Kept. The next weigh-in will be compared with it."),
      (error: Error) => setTold(error.message),
    );
  const apply = () =>
    ask((id) => api.applySteps(id, steps, number)).then(
      () => {
        onChange([]);
        setTold("Now in Pack. Undo reverses it.");
      },
      (error: Error) => setTold(error.message),
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
      {told && <p className="mt-1 text-[0.875rem]">{told}</p>}
    </section>
  );
}

function Proposals({ steps, onTake }: { steps: Step[]; onTake: (steps: Step[]) => void }) {
  const { sheet, number } = useDesk();
  const [found, setFound] = useState<Found | null>(null);
  const [working, setWorking] = useState<AbortController | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const asked = useRef(0);
  const ask = () => {
    const stop = new AbortController();
    const turn = ++asked.current;
    setWorking(stop);
    setProblem(null);
    api
      .propose(sheet.id, steps, number, stop.signal)
      .then(
        (answer) => turn === asked.current && setFound(answer),
        (error: Error) => !stop.signal.aborted && setProblem(error.message),
      )
      .finally(() => turn === asked.current && setWorking(null));
  };
  return (
    <section aria-label="Proposals" className="mt-5">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">Easiest fixes</h2>
      <div className="mt-2 flex items-center gap-3">
        <Button strong onClick={ask} disabled={working !== null}>
          {found ? "Look again" : "Find it"}
        </Button>
        {working && (
          <>
            <span role="status" className="text-[0.9375rem]">
              looking…
            </span>
            <button type="button" className="underline" onClick={() => working.abort()}>
              stop looking
            </button>
          </>
        )}
      </div>
      {problem && <p className="mt-2 border-l-4 border-ink pl-2 font-semibold">{problem}</p>}
      {found && <p className="mt-2 text-[0.9375rem]">{found.says}</p>}
      {found?.proposals.map((each, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: proposals are distinguished by their rank
        <article key={index} data-proposal={index} className="mt-2 border border-edge bg-card p-3">
          <p className="text-[1rem] leading-snug font-semibold">{each.says.join("; ")}.</p>
          <p className="mt-1 text-[0.875rem] leading-snug text-soft">{each.summary}</p>
          {each.rules.map((rule) => (
            <p key={rule} className="mt-1 border-l-4 border-ochre pl-2 text-[0.875rem] leading-snug">
              {rule}
            </p>
          ))}
          <Button className="mt-2" onClick={() => onTake(each.steps)}>
            Try this one
          </Button>
        </article>
      ))}
      {found?.unmet.map((each) => (
        <p
          key={each.check}
          data-unmet={each.check}
          className="mt-2 border-l-4 border-vermilion pl-2 text-[0.9375rem] leading-snug"
        >
          {each.says}
        </p>
      ))}
      {found?.proof.map((line) => (
        <p key={line} className="mt-1 text-[0.875rem] leading-snug text-soft">
          {line}
        </p>
      ))}
    </section>
  );
}

/** Every check before and after, with what its margin gained or lost. */
function ChangeTable({ tried }: { tried: Adjustment["tried"] }) {
  const { rig } = useDesk();
  const text = (value: number | null, isShare: boolean) =>
    value === null ? "?" : isShare ? shareText(value) : `${mass(Math.abs(value))} ${value < 0 ? "over" : "left"}`;
  const ink = (status: string) =>
    status === "over" || status === "low"
      ? "text-vermilion font-semibold"
      : status === "within"
        ? ""
        : "text-ochre font-semibold";
  return (
    <section aria-label="Before and after">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">
        Before and after, in {rig.units.mass}
      </h2>
      <table className="w-full text-[0.9375rem]">
        <thead>
          <tr className="text-[0.8125rem] text-soft">
            <th className="text-left font-normal">
              <span className="sr-only">Check</span>
            </th>
            <th className="text-right font-normal">before</th>
            <th className="text-right font-normal">after</th>
            <th className="text-right font-normal">change</th>
          </tr>
        </thead>
        <tbody>
          {tried.changes.map((row) => (
            <tr key={row.check} className="border-t border-rule" data-change={row.check} data-now={row.now}>
              <td className="py-1">{row.label}</td>
              <td className={`text-right font-cond text-[1rem] ${ink(row.was)}`}>{text(row.before, row.share)}</td>
              <td className={`text-right font-cond text-[1rem] ${ink(row.now)}`}>
                {text(row.after, row.share)}
                <span className="sr-only"> {statusWord(row.now)}</span>
              </td>
              <td className="w-20 text-right font-cond text-[1rem]">
                {row.change === null || Math.abs(row.change) < (row.share ? 0.0005 : 0.5)
                  ? "·"
                  : `${row.change > 0 ? "+" : "−"}${row.share ? (Math.abs(row.change) * 100).toFixed(1) : mass(Math.abs(row.change))}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
