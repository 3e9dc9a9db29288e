import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { Button } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { YardPanel } from "./YardPanel";
import { practice, usePlay, type Yard } from "./yard";

/** The open yard: a rig to drive, uncouple, weigh and load as one likes; the truth on request. */
export function YardPlace() {
  const [search, setSearch] = useSearchParams();
  const run = search.get("run") ?? "";
  const { seen, problem, play, begin } = usePlay<Yard>();
  const [truth, setTruth] = useState(false);
  const asked = useRef("");
  useEffect(() => {
    if (asked.current === run) return;
    asked.current = run;
    void begin(() => practice.yard({ run, truth }));
  }, [run, truth, begin]);
  const go = async (act?: string, shown = truth) => {
    const found = await play((now) => practice.yard({ run: now?.run ?? run, act: act ?? null, truth: shown }));
    if (found && found.run !== run) {
      asked.current = found.run;
      setSearch({ run: found.run }, { replace: true });
    }
  };
  const show = () => {
    setTruth(!truth);
    void go(undefined, !truth);
  };
  const fresh = () => setSearch({ run: `${run.split("/").slice(0, 3).join("/")}/` });
  return (
    <PageFrame
      name="Practice"
      title="The yard"
      beside={
        <Link to="/practice" className="flex min-h-11 items-center text-[0.9375rem] underline underline-offset-2">
          all lessons
        </Link>
      }
    >
      <div className="mx-auto max-w-[62rem]">
        <h1 className="font-cond text-[1.625rem] leading-tight font-semibold">The yard</h1>
        {problem && (
          <p role="alert" className="mt-2 border-l-4 border-ink pl-3 font-semibold">
            {problem}
          </p>
        )}
        {seen && (
          <>
            <p className="text-[1rem] text-soft">
              {seen.minutes} min · {seen.spent} dollars spent · {seen.tickets.length}{" "}
              {seen.tickets.length === 1 ? "ticket" : "tickets"}
            </p>
            <YardPanel yard={seen} onAct={(act) => void go(act)} />
            <div className="no-print mt-5 flex flex-wrap gap-2 border-t border-rule pt-3">
              <Button className="min-h-11" onClick={show}>
                {truth ? "Hide the true loads" : "Show the true loads"}
              </Button>
              <Button className="min-h-11" onClick={fresh}>
                Start again
              </Button>
              <CopyRun run={seen.run} />
            </div>
          </>
        )}
        <p className="mt-4 text-[0.875rem] text-soft">Nothing here touches your own rigs.</p>
      </div>
    </PageFrame>
  );
}

/** The run as a text: whoever plays it stands in the same yard. */
export function CopyRun({ run }: { run: string }) {
  const [copied, setCopied] = useState(false);
  const copy = () =>
    navigator.clipboard.writeText(run).then(
      () => setCopied(true),
      () => setCopied(false),
    );
  return (
    <details className="min-w-0">
      <summary className="flex min-h-11 cursor-pointer items-center px-1 underline underline-offset-2">
        This run as a text
      </summary>
      <code data-part="run" className="block max-w-xl text-[0.875rem] break-all select-all">
        {run}
      </code>
      <Button onClick={() => void copy()}>{copied ? "Copied" : "Copy it"}</Button>
    </details>
  );
}
