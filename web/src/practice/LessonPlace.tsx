import { type FormEvent, useEffect, useRef, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { capital } from "../format";
import { Button } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { Row, YardPanel } from "./YardPanel";
import { type Lesson, newSeed, practice, usePlay, useSettings } from "./yard";

/** One lesson: the yard and its papers, one question, hints in steps, and a reply that knows where the figure is from. */
export function LessonPlace() {
  const { name = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const { settings } = useSettings();
  const { seen, problem, play, begin } = usePlay<Lesson>();
  const [hints, setHints] = useState(0);
  const [answer, setAnswer] = useState("");
  const main = useRef<HTMLElement>(null);
  const seed = search.get("seed") ?? "1";
  const run = search.get("run");
  const begun = `${name} ${seed} ${settings.unit} ${settings.terms}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the run in the address is where a reload goes on
  useEffect(() => {
    setHints(0);
    setAnswer("");
    main.current?.scrollTo(0, 0);
    const from = run ? { run } : { seed, unit: settings.unit, terms: settings.terms };
    void begin(() => practice.lesson(name, from));
  }, [begun]);
  const go = async (more: Parameters<typeof practice.lesson>[1]) => {
    if (!seen) return;
    const found = await play((now) =>
      practice.lesson(name, {
        run: (now ?? seen).yard.run,
        hints,
        learner: settings.learner || null,
        ...more,
      }),
    );
    if (found && more.act) {
      setSearch(
        (now) => {
          now.set("run", found.yard.run);
          return now;
        },
        { replace: true },
      );
    }
  };
  const more = () => {
    setHints(hints + 1);
    void go({ hints: hints + 1 });
  };
  const again = () => setSearch({ seed: newSeed() });
  return (
    <PageFrame
      name="Practice"
      title={seen ? seen.name : "Practice"}
      main={main}
      beside={
        <Link to="/practice" className="flex min-h-11 items-center text-[0.9375rem] underline underline-offset-2">
          {seen ? `lesson ${seen.number} of ${seen.of}` : "all lessons"}
        </Link>
      }
    >
      {problem && (
        <p role="alert" className="mb-3 border-l-4 border-ink pl-3 font-semibold">
          {problem}{" "}
          <button type="button" className="underline" onClick={again}>
            Start again with another rig
          </button>
        </p>
      )}
      {seen && (
        <div className="mx-auto max-w-[78rem] items-start gap-8 lg:grid lg:grid-cols-[1fr_23rem]">
          <div>
            <h1 className="font-cond text-[1.625rem] leading-tight font-semibold">{seen.name}</h1>
            <p className="mt-0.5 text-[1.0625rem] leading-snug">{seen.task}</p>
            <p aria-hidden="true" className="mt-1 font-cond text-[1.25rem] leading-tight font-semibold lg:hidden">
              {seen.question}
            </p>
            <YardPanel yard={seen.yard} onAct={(act) => void go({ act })} />
          </div>
          <section aria-label="Question" className="mt-6 lg:mt-0 lg:border-l lg:border-rule lg:pl-6">
            <Papers lesson={seen} />
            <h2 className="mt-2 font-cond text-[1.75rem] leading-[1.12] font-semibold">{seen.question}</h2>
            {seen.needs ? (
              <p className="mt-2 border-l-4 border-ink pl-3 text-[1.0625rem] leading-snug font-semibold">
                {seen.needs}
              </p>
            ) : (
              <Ask lesson={seen} answer={answer} onAnswer={setAnswer} onGive={(given) => void go({ answer: given })} />
            )}
            <Reply lesson={seen} />
            {seen.hints.length > 0 && (
              <ol className="mt-3 space-y-1">
                {seen.hints.map((hint) => (
                  <li key={hint} className="border-l-4 border-rule pl-3 text-[1.0625rem] leading-snug">
                    {hint}
                  </li>
                ))}
              </ol>
            )}
            {seen.working.length > 0 ? (
              <Working lesson={seen} />
            ) : (
              !seen.needs && (
                <div className="no-print mt-3 flex gap-2">
                  {seen.more_hints && <Button onClick={more}>{hints ? "One more hint" : "A hint"}</Button>}
                  <Button onClick={() => void go({ show: true })}>Show me</Button>
                </div>
              )
            )}
            {seen.school && (
              <p className="mt-4 text-[0.9375rem] leading-snug">
                <b>Schools differ:</b> {seen.school}
              </p>
            )}
            <div className="no-print mt-5 flex flex-wrap gap-2 border-t border-rule pt-3">
              {seen.working.length > 0 && seen.next && (
                <Link
                  to={`/practice/lessons/${seen.next}?seed=${seed}`}
                  className="flex min-h-11 items-center bg-ink px-3 font-cond text-[1.0625rem] font-semibold text-paper"
                >
                  Next lesson
                </Link>
              )}
              <Button className="min-h-11" onClick={again}>
                Again, with another rig
              </Button>
            </div>
          </section>
        </div>
      )}
      <p className="mt-6 text-[0.875rem] text-soft">Nothing here touches your own rigs.</p>
    </PageFrame>
  );
}

function Papers({ lesson }: { lesson: Lesson }) {
  return (
    <div className="mb-4 grid grid-cols-1 gap-2 min-[430px]:grid-cols-2 lg:grid-cols-1">
      {lesson.papers.map((paper) => (
        <div key={paper.title} className="border border-edge bg-card px-3 py-1.5">
          <p className="text-[0.8125rem] text-soft">{paper.title}</p>
          <dl>
            {paper.lines.map((line) => (
              <Row key={line.label} {...line} />
            ))}
          </dl>
        </div>
      ))}
    </div>
  );
}

function Ask(props: {
  lesson: Lesson;
  answer: string;
  onAnswer: (text: string) => void;
  onGive: (text: string) => void;
}) {
  const { lesson, answer, onAnswer, onGive } = props;
  const unit = { mass: lesson.yard.unit, share: "%", pressure: "", choice: "", done: "" }[lesson.form];
  if (lesson.form === "choice") {
    return (
      <div className="mt-3 space-y-2">
        {lesson.options.map(([code, label]) => (
          <button
            key={code as string}
            type="button"
            className="block min-h-11 w-full border border-ink bg-card px-3 py-2 text-left text-[1.0625rem] leading-snug hover:bg-sunk"
            onClick={() => onGive(code as string)}
          >
            {label as string}
          </button>
        ))}
      </div>
    );
  }
  if (lesson.form === "done") {
    return (
      <Button strong className="mt-3 min-h-12 w-full text-[1.1875rem]" onClick={() => onGive("done")}>
        It is done
      </Button>
    );
  }
  const give = (event: FormEvent) => {
    event.preventDefault();
    onGive(answer);
  };
  return (
    <form className="mt-3 flex gap-2" onSubmit={give}>
      <label className="flex min-w-0 flex-1 items-baseline gap-1.5 border border-edge bg-card px-2">
        <span className="sr-only">Your answer</span>
        <input
          className="h-14 min-w-0 flex-1 bg-transparent text-right font-cond text-[1.75rem] font-semibold outline-none"
          inputMode="decimal"
          autoComplete="off"
          maxLength={200}
          value={answer}
          onChange={(event) => onAnswer(event.currentTarget.value)}
        />
        <span className="text-[1.0625rem]">{unit}</span>
      </label>
      <Button strong type="submit" className="min-h-14 text-[1.1875rem]">
        Answer
      </Button>
    </form>
  );
}

function Reply({ lesson }: { lesson: Lesson }) {
  const { reply } = lesson;
  return (
    <div aria-live="polite" data-part="reply">
      {reply && (
        <div className={`mt-4 border-l-[6px] pl-3 ${reply.right ? "border-spruce" : "border-ochre"}`}>
          <p className="font-cond text-[1.3125rem] leading-tight font-semibold">
            {reply.right ? "That is right." : reply.name ? `${capital(reply.name)}.` : "Not yet."}
          </p>
          {!reply.right && <p className="mt-1 text-[1.0625rem] leading-snug">{reply.says}</p>}
          {reply.found === "slip" && reply.name && (
            <p className="mt-1 text-[0.875rem] leading-snug text-soft">
              This slip has a name: <b>{reply.name}</b>. It comes back in later lessons, with other rigs.
            </p>
          )}
        </div>
      )}
    </div>
  );
}

function Working({ lesson }: { lesson: Lesson }) {
  return (
    <div className="mt-4" data-part="working">
      <dl className="border-t border-ink pt-1">
        {lesson.working.map((line) => (
          <Row key={`${line.op}${line.label}`} {...line} />
        ))}
      </dl>
      <p className="mt-2 text-[1.0625rem] leading-snug">{lesson.because}</p>
    </div>
  );
}
