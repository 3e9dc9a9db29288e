import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { mass } from "../format";
import { Button, Choice } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { YardPanel } from "./YardPanel";
import { CopyRun } from "./YardPlace";
import { type Challenge, practice, usePlay, type Word } from "./yard";

const WORDS: readonly (readonly [Word, string])[] = [
  ["over", "over"],
  ["within", "within"],
  ["cannot_tell", "cannot tell"],
];

/** A challenge: an unknown rig, a budget, traps in the tickets; then a word on every limit, and a fix. */
export function ChallengePlace() {
  const [search, setSearch] = useSearchParams();
  const run = search.get("run") ?? "";
  const { seen, problem, play, begin } = usePlay<Challenge>();
  const [words, setWords] = useState<Record<string, Word>>({});
  const [given, setGiven] = useState<Challenge | null>(null);
  const asked = useRef("");
  useEffect(() => {
    if (asked.current === run) return;
    asked.current = run;
    setWords({});
    setGiven(null);
    void begin(() => practice.challenge({ run, act: null, words: null, cured: false }));
  }, [run, begin]);
  const go = async (more: { act?: string; words?: Record<string, Word>; cured?: boolean }) => {
    const found = await play((now) =>
      practice.challenge({
        run: now?.yard.run ?? run,
        act: more.act ?? null,
        words: more.words ?? null,
        cured: more.cured ?? false,
      }),
    );
    if (found?.judged) setGiven(found);
    if (found && found.yard.run !== run) {
      asked.current = found.yard.run;
      setSearch({ run: found.yard.run }, { replace: true });
    }
  };
  const unsaid = seen ? seen.asked.filter(([check]) => !words[check as string]).length : 0;
  const spent = seen && (seen.yard.minutes > seen.minutes || seen.yard.spent > seen.money);
  return (
    <PageFrame
      name="Practice"
      title="A challenge"
      beside={
        <Link to="/practice" className="flex min-h-11 items-center text-[0.9375rem] underline underline-offset-2">
          all lessons
        </Link>
      }
    >
      {problem && (
        <p role="alert" className="mb-3 border-l-4 border-ink pl-3 font-semibold">
          {problem}
        </p>
      )}
      {seen && (
        <div className="mx-auto max-w-[78rem] items-start gap-8 lg:grid lg:grid-cols-[1fr_25rem]">
          <div>
            <h1 className="font-cond text-[1.625rem] leading-tight font-semibold">Is this rig within its ratings?</h1>
            <p className="text-[1rem] leading-snug">
              Weigh it, say a word on every limit, then bring it into order. Look twice at what you are handed.
            </p>
            <p data-part="budget" className={`mt-1 text-[1rem] ${spent ? "font-semibold" : "text-soft"}`}>
              {seen.yard.minutes} of {seen.minutes} min · {seen.yard.spent} of {seen.money} dollars spent
              {spent ? ": more than there was. Go on if you like." : ""}
            </p>
            <YardPanel yard={seen.yard} onAct={(act) => void go({ act })} />
          </div>
          <section aria-label="Your word" className="mt-6 lg:mt-0 lg:border-l lg:border-rule lg:pl-6">
            <h2 className="font-cond text-[1.5rem] leading-tight font-semibold">Your word on every limit</h2>
            {given ? <Judged challenge={given} /> : <Words seen={seen} words={words} onSay={setWords} />}
            {!given && (
              <Button
                strong
                className="mt-3 min-h-12 w-full text-[1.1875rem]"
                disabled={unsaid > 0 || seen.yard.tickets.length === 0}
                onClick={() => void go({ words })}
              >
                {seen.yard.tickets.length === 0
                  ? "Weigh it first"
                  : unsaid
                    ? `${unsaid} still without a word`
                    : "Judge me"}
              </Button>
            )}
            {given && (
              <>
                <h2 className="mt-5 font-cond text-[1.375rem] font-semibold">Now fix it</h2>
                <p className="text-[1rem] leading-snug">
                  Move, leave behind or drain in the yard until nothing is over. The true loads decide.
                </p>
                <Button strong className="mt-2 min-h-12 w-full" onClick={() => void go({ cured: true })}>
                  Look at the fix
                </Button>
                {seen.still_over && (
                  <p
                    role="status"
                    className="mt-2 border-l-4 border-ink pl-3 text-[1.0625rem] leading-snug font-semibold"
                  >
                    {seen.still_over.length
                      ? seen.still_over.join(". ")
                      : "Nothing is over any more, by the true loads."}
                  </p>
                )}
              </>
            )}
            <div className="no-print mt-5 border-t border-rule pt-3">
              <CopyRun run={seen.yard.run} />
            </div>
          </section>
        </div>
      )}
    </PageFrame>
  );
}

function Words(props: { seen: Challenge; words: Record<string, Word>; onSay: (words: Record<string, Word>) => void }) {
  const { seen, words, onSay } = props;
  return (
    <ul className="mt-1">
      {seen.asked.map(([check, label]) => (
        <li key={check as string} className="border-b border-rule py-1.5">
          <p className="text-[1rem] leading-tight">{label as string}</p>
          <Choice
            wide
            label={label as string}
            value={words[check as string] ?? ""}
            options={WORDS}
            onChange={(word) => onSay({ ...words, [check as string]: word })}
          />
        </li>
      ))}
    </ul>
  );
}

function Judged({ challenge }: { challenge: Challenge }) {
  const { judged, traps, right, of } = challenge;
  return (
    <div aria-live="polite">
      <p className="mt-1 text-[1.0625rem] font-semibold">
        {right} of {of}: words that hold{traps.length > 0 && ", and traps taken out of the tickets"}.
      </p>
      <ul>
        {(judged ?? []).map((each) => (
          <li
            key={each.check}
            data-judged={each.right}
            className={`mt-2 border-l-[6px] pl-3 ${each.right ? "border-spruce" : "border-ochre"}`}
          >
            <p className="font-cond text-[1.125rem] leading-tight font-semibold">
              {each.label}: {each.word.replace("_", " ")}
              {each.right ? "" : `, but ${each.knowable.replace("_", " ")}`}
            </p>
            <p className="text-[0.9375rem] leading-snug">
              {mass(each.true)} of {mass(each.limit)}. {each.says}
            </p>
          </li>
        ))}
      </ul>
      {traps.map((trap) => (
        <p key={trap.says} className="mt-2 border-l-4 border-ink pl-3 text-[1rem] leading-snug">
          <b>{trap.standing ? "A trap that still stands in your tickets:" : "A trap that you took out:"}</b> {trap.says}
        </p>
      ))}
    </div>
  );
}
