import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, type Category, RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Button, Choice } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { ImportList } from "./ImportList";

export const CATEGORIES = [
  ["people", "people"],
  ["essential", "essential"],
  ["comfort", "comfort"],
  ["fixed", "fixed"],
] as const;

/** Items as people jot them down, one a line: “4 chairs 3 kg”. A list pasted from elsewhere is added whole, or not at all. */
export function AddItems() {
  const { addItems, evaluation, sheet } = useDesk();
  const [text, setText] = useState("");
  const [place, setPlace] = useState("");
  const [on, setOn] = useState<"vehicle" | "trailer">("vehicle");
  const [problems, setProblems] = useState<string[]>([]);
  const [asking, setAsking] = useState<"catalogue" | "list" | null>(null);
  const fail = (error: unknown) => {
    const failed = error instanceof RequestFailed ? error : new RequestFailed(String(error));
    const found = failed.problem?.errors?.map((each) => `${each.path}: ${each.message}`) ?? [];
    setProblems(found.length ? found : [failed.message]);
  };
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    addItems({ text, on, position: place }).then(() => {
      setText("");
      setProblems([]);
    }, fail);
  };
  const usual = sheet.pack.places.filter((each) => each.on === on);
  const link = "font-cond text-[0.9375rem] underline underline-offset-2";
  return (
    <form onSubmit={add} className="mb-5 border border-ink bg-card p-3" aria-label="Add items">
      <label className="block text-[0.9375rem]">
        What, and its mass; one a line
        <textarea
          value={text}
          rows={Math.min(6, Math.max(1, text.split("\n").length))}
          placeholder="4 chairs 3 kg"
          onChange={(event) => setText(event.currentTarget.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && !event.shiftKey && !text.includes("\n")) add(event);
          }}
          className="mt-1 block w-full resize-y border-b-2 border-edge bg-paper px-2 py-1.5 text-[1.0625rem] outline-none placeholder:text-soft focus:border-ink"
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
          className="h-9 w-36 border-b-2 border-edge bg-paper px-2 outline-none placeholder:text-soft focus:border-ink"
        />
        <span className="text-[0.8125rem] text-soft">{evaluation.length}</span>
        <Button strong type="submit">
          Add
        </Button>
      </div>
      {usual.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-1.5 text-[0.8125rem] text-soft">
          about:
          {usual.map((each) => (
            <button
              key={each.name}
              type="button"
              title={each.text}
              aria-pressed={place === each.text}
              onClick={() => setPlace(each.text)}
              className={`border px-1.5 py-0.5 font-cond text-[0.875rem] ${place === each.text ? "border-ink bg-ink text-paper" : "border-rule text-ink hover:border-ink"}`}
            >
              {each.name}
            </button>
          ))}
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
        <button type="button" className={link} onClick={() => setAsking("catalogue")}>
          ordinary items, with typical masses
        </button>
        <button type="button" className={link} onClick={() => setAsking("list")}>
          a list from a spreadsheet
        </button>
      </div>
      {problems.map((each) => (
        <p key={each} className="mt-2 border-l-4 border-ink pl-2 text-[0.875rem] font-semibold">
          {each}
        </p>
      ))}
      <Slip
        open={asking === "catalogue"}
        onOpenChange={() => setAsking(null)}
        title="Ordinary items"
        lead={`Typical masses, marked as guesses until you weigh them. They go ${on === "vehicle" ? "in the vehicle" : "in the trailer"}${place ? `, ${place} ${evaluation.length} back` : ""}.`}
        wide
      >
        <Catalogue
          onAdd={(name, kg, category) =>
            addItems({ text: `${name} ${kg} kg`, on, position: place, category, typical: true }).then(
              () => setProblems([]),
              fail,
            )
          }
        />
      </Slip>
      <Slip open={asking === "list"} onOpenChange={() => setAsking(null)} title="A list from a spreadsheet" wide>
        <ImportList on={on} onDone={() => setAsking(null)} />
      </Slip>
    </form>
  );
}

function Catalogue({ onAdd }: { onAdd: (name: string, kg: number, category: Category) => Promise<void> }) {
  const words = useQuery({ queryKey: ["words"], queryFn: api.words, staleTime: Number.POSITIVE_INFINITY });
  const { rig } = useDesk();
  const [wanted, setWanted] = useState("");
  const [added, setAdded] = useState<Record<string, number>>({});
  const found = (words.data?.catalogue ?? []).filter((each) => each.name.includes(wanted.trim().toLowerCase()));
  const have = (name: string) => (rig.loads ?? []).filter((load) => load.name === name).length;
  return (
    <>
      <input
        value={wanted}
        aria-label="Look for"
        placeholder="look for…"
        onChange={(event) => setWanted(event.currentTarget.value)}
        className="mb-2 h-10 w-full border-b-2 border-edge bg-paper px-2 text-[1.0625rem] outline-none placeholder:text-soft focus:border-ink"
      />
      {CATEGORIES.map(([category, title]) => {
        const here = found.filter((each) => each.category === category);
        return (
          here.length > 0 && (
            <section key={category} className="mb-3">
              <h3 className="border-b border-ink font-cond text-[1.0625rem] font-semibold">{title}</h3>
              <ul className="md:columns-2 md:gap-6">
                {here.map((each) => (
                  <li key={each.name} className="break-inside-avoid border-b border-rule">
                    <button
                      type="button"
                      className="flex min-h-9 w-full items-center justify-between gap-3 px-1 text-left text-[0.9375rem] hover:bg-sunk"
                      onClick={() => {
                        setAdded({ ...added, [each.name]: (added[each.name] ?? 0) + 1 });
                        void onAdd(each.name, each.kg, each.category);
                      }}
                    >
                      <span>
                        {each.name}
                        {have(each.name) > 0 && (
                          <span className="ml-2 text-[0.8125rem] text-soft">{have(each.name)} listed</span>
                        )}
                      </span>
                      <span className="font-cond text-[1rem] font-semibold">{mass(each.kg)} kg</span>
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          )
        );
      })}
      {found.length === 0 && <p className="text-[0.9375rem]">Nothing of that name. Type it with its mass instead.</p>}
    </>
  );
}
