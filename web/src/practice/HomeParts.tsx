import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { Button, Choice } from "../ui/controls";
import { Part } from "./Part";
import { newSeed, type PracticeHome, type Settings } from "./yard";

const RIGS = [
  ["bars", "trailer on spring bars"],
  ["plain", "trailer on a ball"],
  ["torsion", "torsion axles"],
  ["pin", "fifth wheel"],
  ["caravan", "caravan and car"],
  ["motorhome", "motorhome and towed car"],
] as const;

export function Lessons({ home }: { home: PracticeHome }) {
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

export function Challenges({ today, settings }: { today: string; settings: Settings }) {
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
      <div className="mt-2 flex flex-wrap gap-2">
        <Button strong className="min-h-11" onClick={() => start(today || newSeed())}>
          Today's
        </Button>
        <Button className="min-h-11" onClick={() => start(newSeed())}>
          Another
        </Button>
      </div>
      <p className="mt-1 text-[0.875rem] leading-snug text-soft">Today's is the same for everybody.</p>
    </Part>
  );
}

export function OpenYard({ settings }: { settings: Settings }) {
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
