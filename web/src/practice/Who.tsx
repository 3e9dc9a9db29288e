import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Button, Picks } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";
import { type PracticeHome, practice, type Settings } from "./yard";

export function Who(props: { home: PracticeHome; settings: Settings; change: (changed: Partial<Settings>) => void }) {
  const { home, settings, change } = props;
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const { problem, attempt } = useAttempt();
  const act = (doing: Promise<unknown>) => attempt(doing, () => queries.invalidateQueries({ queryKey: ["practice"] }));
  const add = (event: FormEvent) => {
    event.preventDefault();
    void act(
      practice.add(name).then((made) => {
        setName("");
        change({ learner: made.id });
      }),
    );
  };
  const here = home.learners.find((each) => each.id === settings.learner);
  return (
    <details className="mt-3 max-w-2xl" open={Boolean(here)}>
      <summary className="flex min-h-11 cursor-pointer items-center text-[1rem]">
        {here ? (
          <span>
            <b>{here.name}</b> practises
          </span>
        ) : (
          <span className="underline underline-offset-2">Keep my progress: under a name, on this machine only</span>
        )}
      </summary>
      {home.learners.length > 0 && (
        <Picks
          small
          label="Who practises"
          value={settings.learner}
          options={[...home.learners.map((each) => [each.id, each.name] as const), ["", "nobody"] as const]}
          onChange={(learner) => change({ learner })}
        />
      )}
      <form className="mt-2 flex gap-2" onSubmit={add}>
        <input
          aria-label="Name"
          placeholder="A name"
          maxLength={60}
          className="h-11 min-w-0 flex-1 border border-edge bg-card px-2"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" className="min-h-11">
          Add
        </Button>
      </form>
      {here && (
        <div className="mt-2 flex flex-wrap gap-x-4 text-[0.9375rem]">
          <a
            className="flex min-h-11 items-center underline underline-offset-2"
            href={`/api/practice/learners/${here.id}/record`}
            target="_blank"
            rel="noreferrer"
          >
            Record, to print
          </a>
          <a
            className="flex min-h-11 items-center underline underline-offset-2"
            href={`/api/practice/learners/${here.id}/record?form=json`}
          >
            as a file
          </a>
          <button
            type="button"
            className="min-h-11 underline underline-offset-2"
            onClick={() => void act(practice.reset(here.id))}
          >
            Forget the progress
          </button>
          <button
            type="button"
            className="min-h-11 underline underline-offset-2"
            onClick={() => void act(practice.remove(here.id).then(() => change({ learner: "" })))}
          >
            Take {here.name} off
          </button>
        </div>
      )}
      <Refused problem={problem} />
    </details>
  );
}
