import { useId, useState } from "react";
import { api, type PastedAnswer } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice } from "./controls";
import { Slip } from "./Dialog";

const PARTS = [
  ["vehicle", "vehicle"],
  ["trailer", "trailer"],
  ["hitch", "hitch"],
] as const;

/** Text of a label or a weigh message, as phones read it off photographs: taken apart, looked at, kept. */
export function PasteText({ into, className = "" }: { into?: string; className?: string }) {
  const { sheet, rig, change, named } = useDesk();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [answer, setAnswer] = useState<PastedAnswer | null>(null);
  /** Where each figure goes, by identity: from another window a list may have changed by the time it is kept. */
  const [places, setPlaces] = useState<Record<string, string>>({});
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const id = useId();
  const ask = (part: PastedAnswer["part"] | null) =>
    api.takeApart(sheet.id, { text, part, into: into ?? null }).then(
      (found) => {
        setAnswer(found);
        setPlaces(Object.fromEntries(found.found.map(({ path }) => [path, named(path)])));
        setLeft(new Set());
        setProblem(null);
      },
      (error: Error) => setProblem(error.message),
    );
  const close = () => {
    setOpen(false);
    setText("");
    setAnswer(null);
  };
  const wanted = answer?.found.filter((each) => !left.has(each.path)) ?? [];
  const keep = () => {
    change(
      wanted.map((each) => ({
        path: places[each.path] ?? each.path,
        op: "type",
        text: each.text,
        ...(answer?.part === "pass" ? {} : { source: "plate" }),
      })),
      into ? "a pasted weigh message" : "a pasted label",
    );
    close();
  };
  return (
    <>
      <button
        type="button"
        className={`min-h-9 font-cond text-[1rem] underline underline-offset-2 ${className}`}
        onClick={() => setOpen(true)}
      >
        {into ? "paste a weigh message" : "paste a label's text"}
      </button>
      <Slip
        open={open}
        onOpenChange={(now) => (now ? setOpen(true) : close())}
        title={into ? "Paste a weigh message" : "Paste a label's text"}
        lead="Most phones read text off a photograph: hold on it, choose all, copy. What is understood is shown first."
      >
        <label htmlFor={id} className="block text-[0.9375rem]">
          The text
        </label>
        <textarea
          id={id}
          rows={5}
          value={text}
          className="mt-1 w-full border border-ink bg-paper p-2 text-[1rem]"
          onChange={(event) => {
            setText(event.currentTarget.value);
            setAnswer(null);
          }}
        />
        {problem && <p className="mt-1 border-l-4 border-ink pl-2 font-semibold">{problem}</p>}
        {!answer && (
          <Button
            strong
            className="mt-3 min-h-12"
            disabled={!text.trim()}
            onClick={() => void ask(into ? "pass" : null)}
          >
            Read it
          </Button>
        )}
        {answer && (
          <div className="mt-3">
            {answer.part !== "pass" && (
              <p className="mb-2 flex flex-wrap items-center gap-2 text-[0.9375rem]">
                It is a label of the
                <Choice
                  label="What the label is of"
                  value={answer.part}
                  options={PARTS}
                  onChange={(part) => void ask(part)}
                />
              </p>
            )}
            {answer.found.length === 0 && (
              <p className="text-[1rem] leading-snug">
                Nothing in it was understood. Is all of the label in it, with its words (GVWR, GAWR, “should never
                exceed”)?
              </p>
            )}
            <ul>
              {answer.found.map((each) => (
                <li key={each.path} className="border-b border-rule">
                  <label className="flex items-start gap-3 py-2" data-pasted={each.path}>
                    <input
                      type="checkbox"
                      className="mt-1 h-5 w-5 shrink-0 accent-[var(--ink)]"
                      checked={!left.has(each.path)}
                      onChange={() => {
                        const next = new Set(left);
                        if (!next.delete(each.path)) next.add(each.path);
                        setLeft(next);
                      }}
                    />
                    <span className="min-w-0 flex-1 leading-tight">
                      <span className="text-[1rem]">{each.label}</span>
                      <span className="block text-[0.8125rem] text-soft">
                        “{each.words}”{each.unit_assumed && `; no unit is named: taken as ${rig.units.mass}`}
                        {each.now !== null && `; now ${each.now}`}
                      </span>
                    </span>
                    <span className="shrink-0 font-cond text-[1.25rem] font-semibold">{each.text}</span>
                  </label>
                </li>
              ))}
            </ul>
            {answer.found.length > 0 && (
              <Button strong className="mt-3 min-h-12" disabled={wanted.length === 0} onClick={keep}>
                Keep {wanted.length === 1 ? "this figure" : `these ${wanted.length} figures`}
              </Button>
            )}
          </div>
        )}
      </Slip>
    </>
  );
}
