import { type FormEvent, useState } from "react";
import { RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice } from "../ui/controls";

/** Items as people jot them down, one a line: “4 chairs 3 kg”. A list pasted from elsewhere is added whole, or not at all. */
export function AddItems() {
  const { addItems, evaluation } = useDesk();
  const [text, setText] = useState("");
  const [place, setPlace] = useState("");
  const [on, setOn] = useState<"vehicle" | "trailer">("vehicle");
  const [problems, setProblems] = useState<string[]>([]);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    addItems(text, on, place).then(
      () => {
        setText("");
        setProblems([]);
      },
      (error: unknown) => {
        const failed = error instanceof RequestFailed ? error : new RequestFailed(String(error));
        const told = failed.problem?.errors?.map((each) => `${each.path}: ${each.message}`) ?? [];
        setProblems(told.length ? told : [failed.message]);
      },
    );
  };
  return (
    <form onSubmit={add} className="mb-5 border border-ink bg-card p-3" aria-label="Add items">
      <label className="block text-[15px]">
        What, and its mass; one a line
        <textarea
          value={text}
          rows={Math.min(6, Math.max(1, text.split("\n").length))}
          placeholder="4 chairs 3 kg"
          onChange={(event) => setText(event.currentTarget.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && !event.shiftKey && !text.includes("\n")) add(event);
          }}
          className="mt-1 block w-full resize-y border-b-2 border-rule bg-paper px-2 py-1.5 text-[17px] outline-none placeholder:text-soft focus:border-ink"
        />
      </label>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {evaluation.towing && (
          <Choice
            label="Where"
            value={on}
            onChange={setOn}
            options={[
              ["vehicle", "in the vehicle"],
              ["trailer", "in the trailer"],
            ]}
          />
        )}
        <input
          value={place}
          inputMode="decimal"
          aria-label={on === "vehicle" ? "Behind the front axle" : "Behind the coupler"}
          placeholder={on === "vehicle" ? "behind front axle" : "behind coupler"}
          onChange={(event) => setPlace(event.currentTarget.value)}
          className="h-9 w-36 border-b-2 border-rule bg-paper px-2 outline-none placeholder:text-soft focus:border-ink"
        />
        <span className="text-[13px] text-soft">{evaluation.length}</span>
        <Button strong type="submit">
          Add
        </Button>
      </div>
      {problems.map((each) => (
        <p key={each} className="mt-2 border-l-4 border-ink pl-2 text-[14px] font-semibold">
          {each}
        </p>
      ))}
    </form>
  );
}
