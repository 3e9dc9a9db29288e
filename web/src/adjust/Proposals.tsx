import { useRef, useState } from "react";
import { api, type Proposals as Found, type Step } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";

export function Proposals({ steps, onTake }: { steps: Step[]; onTake: (steps: Step[]) => void }) {
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
          <p className="text-[1rem] leading-snug font-semibold">{each.says.join(". ")}.</p>
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
