import { useState } from "react";
import { Part } from "./Part";
import { newSeed, type PracticeHome, type Settings } from "./yard";

/** For instructors: exercises on paper, from a seed and a choice of lessons. */
export function Paper({ home, settings }: { home: PracticeHome; settings: Settings }) {
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
