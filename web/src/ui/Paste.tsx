import { useId, useState } from "react";
import { api, type TakenApart } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "./controls";
import { Slip } from "./Dialog";
import { ReadList, useTake } from "./ReadList";
import { Refused, useAttempt } from "./useAttempt";

/** Text of a label or a weigh message: taken apart, looked at, kept. */
export function PasteText({ into, className = "" }: { into?: string; className?: string }) {
  const { sheet } = useDesk();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [answer, setAnswer] = useState<TakenApart | null>(null);
  const { problem, attempt } = useAttempt();
  const take = useTake(into);
  const id = useId();
  const ask = (part: TakenApart["part"] | null) =>
    attempt(api.takeApart(sheet.id, { text, part, into: into ?? null }), setAnswer);
  const close = () => {
    setOpen(false);
    setText("");
    setAnswer(null);
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
        lead="From a message, or from what your phone reads off a picture. What is understood is shown first."
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
        <Refused problem={problem} />
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
          <ReadList
            key={answer.part}
            answer={answer}
            onPart={(part) => void ask(part)}
            onTake={(figures) => {
              take(answer, figures, into ? "a pasted weigh message" : "a pasted label");
              close();
            }}
            nothing="Nothing in it was understood. Is all of the label in it, with its words (GVWR, GAWR, “should never exceed”)?"
          />
        )}
      </Slip>
    </>
  );
}
