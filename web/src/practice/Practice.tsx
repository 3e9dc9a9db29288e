import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useState } from "react";
import { Link, Route, Routes, useNavigate } from "react-router";
import { Button, Choice, Picks } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { ChallengePlace } from "./ChallengePlace";
import { LessonPlace } from "./LessonPlace";
import { YardPlace } from "./YardPlace";
import { newSeed, type PracticeHome, practice, type Settings, type TermSet, useSettings } from "./yard";

const TERMS: readonly (readonly [TermSet, string])[] = [
  ["north_america", "North America"],
  ["australia", "Australia, NZ"],
  ["europe", "Europe, UK"],
];
const RIGS = [
  ["bars", "trailer on spring bars"],
  ["plain", "trailer on a ball"],
  ["torsion", "torsion axles"],
  ["pin", "fifth wheel"],
  ["caravan", "caravan and car"],
  ["motorhome", "motorhome and towed car"],
] as const;

/** The practice yard: lessons, challenges, an open yard, exercises on paper. It touches no rig of one's own. */
export function Practice() {
  return (
    <Routes>
      <Route index element={<Home />} />
      <Route path="lessons/:name" element={<LessonPlace />} />
      <Route path="yard" element={<YardPlace />} />
      <Route path="challenge" element={<ChallengePlace />} />
    </Routes>
  );
}

function Home() {
  const { settings, change } = useSettings();
  const home = useQuery({
    queryKey: ["practice", settings.learner],
    queryFn: () =>
      practice.home(settings.learner).catch(() => {
        change({ learner: "" });
        return practice.home("");
      }),
  });
  const seen = home.data;
  return (
    <PageFrame name="Practice" title="Practice">
      <div className="mx-auto max-w-[70rem]">
        <h1 className="font-cond text-[2rem] leading-tight font-semibold">Learn to weigh before it counts</h1>
        <p className="mt-1 max-w-[70ch] text-[1.0625rem] leading-snug">
          A yard with a scale, and rigs whose true loads are hidden. It names the mistake behind a wrong figure. Nothing
          here touches your own rigs.
        </p>
        {home.error && (
          <p role="alert" className="mt-2 border-l-4 border-ink pl-3 font-semibold">
            {home.error.message}
          </p>
        )}
        <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3">
          <Choice
            label="Unit"
            value={settings.unit}
            options={[
              ["lb", "lb"],
              ["kg", "kg"],
            ]}
            onChange={(unit) => change({ unit })}
          />
          <Choice label="Terms" value={settings.terms} options={TERMS} onChange={(terms) => change({ terms })} />
        </div>
        {seen && <Who home={seen} settings={settings} change={change} />}
        {seen && seen.due.length > 0 && (
          <Part title="Comes back today">
            <ul className="flex flex-wrap gap-2">
              {seen.due.map((each) => (
                <li key={each.slip}>
                  <Link
                    to={`/practice/lessons/${each.lesson}?seed=${each.seed}`}
                    className="flex min-h-11 items-center border-l-[6px] border-ochre bg-card px-3 font-cond text-[1.0625rem] font-semibold underline underline-offset-2"
                  >
                    {each.name}
                  </Link>
                </li>
              ))}
            </ul>
          </Part>
        )}
        <div className="items-start gap-10 lg:grid lg:grid-cols-[1fr_21rem]">
          <Part title="Lessons, in the order of the work">{seen && <Lessons home={seen} />}</Part>
          <div>
            <Challenges today={seen?.today ?? ""} settings={settings} />
            <OpenYard settings={settings} />
            {seen && <Paper home={seen} settings={settings} />}
          </div>
        </div>
      </div>
    </PageFrame>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="mt-6">
    <h2 className="mb-2 border-b-2 border-ink font-cond text-[1.375rem] font-semibold">{title}</h2>
    {children}
  </section>
);

function Lessons({ home }: { home: PracticeHome }) {
  const how = new Map(home.progress.map((each) => [each.about, each]));
  return (
    <ol>
      {home.lessons.map((each) => {
        const known = how.get(`lesson:${each.id}`);
        return (
          <li key={each.id} className="border-b border-rule">
            <Link
              to={`/practice/lessons/${each.id}?seed=${newSeed()}`}
              className="grid min-h-11 grid-cols-[2rem_1fr_auto] items-baseline gap-x-2 py-1.5 hover:bg-sunk"
            >
              <span className="font-cond text-[1.1875rem] font-semibold text-soft">{each.number}</span>
              <span>
                <span className="font-cond text-[1.1875rem] leading-tight font-semibold underline underline-offset-2">
                  {each.name}
                </span>
                <span className="block text-[0.875rem] leading-snug text-soft max-md:hidden">{each.task}</span>
              </span>
              <span className="text-[0.875rem] text-soft">
                {known ? (known.right ? `right ${known.right} ×` : "not yet") : `${each.minutes} min`}
              </span>
            </Link>
          </li>
        );
      })}
    </ol>
  );
}

function Who(props: { home: PracticeHome; settings: Settings; change: (changed: Partial<Settings>) => void }) {
  const { home, settings, change } = props;
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const act = (doing: Promise<unknown>) =>
    doing.then(
      () => {
        setProblem(null);
        return queries.invalidateQueries({ queryKey: ["practice"] });
      },
      (error: Error) => setProblem(error.message),
    );
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
        <p className="mt-2 flex flex-wrap gap-x-4 text-[0.9375rem]">
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
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-1 border-l-4 border-ink pl-2 font-semibold">
          {problem}
        </p>
      )}
    </details>
  );
}

function Challenges({ today, settings }: { today: string; settings: Settings }) {
  const [level, setLevel] = useState<"1" | "2" | "3">("1");
  const navigate = useNavigate();
  const start = (seed: string) =>
    navigate(
      `/practice/challenge?run=${encodeURIComponent(`yard1/challenge${level}.${settings.unit}.${settings.terms}/${seed}/`)}`,
    );
  return (
    <Part title="A challenge">
      <p className="mb-2 text-[1rem] leading-snug">
        An unknown rig, a budget of minutes and money. Say over, within or cannot tell; then fix it.
      </p>
      <Choice
        wide
        label="Difficulty"
        value={level}
        options={[
          ["1", "honest tickets"],
          ["2", "one trap"],
          ["3", "two traps"],
        ]}
        onChange={setLevel}
      />
      <p className="mt-2 flex flex-wrap gap-2">
        <Button strong className="min-h-11" onClick={() => start(today || newSeed())}>
          Today's
        </Button>
        <Button className="min-h-11" onClick={() => start(newSeed())}>
          Another
        </Button>
      </p>
      <p className="mt-1 text-[0.875rem] leading-snug text-soft">Today's is the same for everybody.</p>
    </Part>
  );
}

function OpenYard({ settings }: { settings: Settings }) {
  const [text, setText] = useState("");
  const navigate = useNavigate();
  const go = (run: string) =>
    navigate(`/practice/${run.startsWith("yard1/challenge") ? "challenge" : "yard"}?run=${encodeURIComponent(run)}`);
  const play = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) go(text.trim());
  };
  return (
    <Part title="The open yard">
      <div className="flex flex-wrap gap-1.5">
        {RIGS.map(([kind, name]) => (
          <Button
            key={kind}
            className="min-h-11 px-2.5 text-[1rem]"
            onClick={() => go(`yard1/${kind}.${settings.unit}.${settings.terms}/${newSeed()}/`)}
          >
            {name}
          </Button>
        ))}
      </div>
      <form className="mt-3 flex gap-2" onSubmit={play}>
        <input
          aria-label="A run as a text"
          placeholder="A run somebody sent you"
          className="h-11 min-w-0 flex-1 border border-edge bg-card px-2 text-[0.9375rem]"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Button type="submit" className="min-h-11">
          Play it
        </Button>
      </form>
    </Part>
  );
}

/** For instructors: exercises on paper, from a seed and a choice of lessons. */
function Paper({ home, settings }: { home: PracticeHome; settings: Settings }) {
  const [seed, setSeed] = useState(newSeed);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    new Set(["ticket", "trailer", "tongue", "payload", "combined"]),
  );
  const wanted = home.lessons.filter((each) => chosen.has(each.id)).map((each) => each.id);
  const flip = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const asked = new URLSearchParams({ seed, lessons: wanted.join(","), unit: settings.unit, terms: settings.terms });
  return (
    <Part title="For a class, on paper">
      <p className="text-[1rem] leading-snug">
        Exercises with tickets and labels, an answer sheet with the usual slips, tickets to cut out. The same seed
        prints the same sheet.
      </p>
      <details className="mt-1">
        <summary className="flex min-h-11 cursor-pointer items-center underline underline-offset-2">
          {wanted.length} lessons chosen
        </summary>
        {home.lessons
          .filter((each) => each.id !== "cure")
          .map((each) => (
            <label key={each.id} className="flex min-h-11 items-center gap-2 text-[1rem] leading-tight">
              <input
                type="checkbox"
                className="h-5 w-5 accent-[var(--ink)]"
                checked={chosen.has(each.id)}
                onChange={() => flip(each.id)}
              />
              {each.name}
            </label>
          ))}
      </details>
      <p className="mt-1 flex items-end gap-2">
        <label className="min-w-0 flex-1 text-[0.875rem] text-soft">
          Seed
          <input
            className="block h-11 w-full border border-edge bg-card px-2 text-[1rem] text-ink"
            maxLength={40}
            value={seed}
            onChange={(event) => setSeed(event.currentTarget.value.replace(/[^A-Za-z0-9-]/g, ""))}
          />
        </label>
        <a
          href={`/api/practice/sheet.pdf?${asked}`}
          aria-disabled={!seed || wanted.length === 0}
          className="flex min-h-11 items-center border border-ink px-3 font-cond text-[1.0625rem] font-semibold hover:bg-sunk"
        >
          Make the sheet
        </a>
      </p>
    </Part>
  );
}
