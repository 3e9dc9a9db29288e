import { type FormEvent, useId, useState } from "react";
import { api, type LeverLength, RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { useWords } from "../ui/useTerms";

const FIELDS = [
  ["mass", "What was moved weighs", "mass"],
  ["moved_back", "Moved back by", "length"],
  ["before", "Load on the hitch before", "mass"],
  ["after", "Load on the hitch after", "mass"],
  ["resolution", "The scale reads to", "mass"],
] as const;
type Name = (typeof FIELDS)[number][0];
const BLANK: Record<Name, string> = { mass: "", moved_back: "", before: "", after: "", resolution: "" };

/** Two positions, one truth: the tongue before and after a known move gives the lever length that no tape finds. */
export function TwoPositions() {
  const { sheet, evaluation, apply, rig } = useDesk();
  const word = useWords();
  const [texts, setTexts] = useState(BLANK);
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [found, setFound] = useState<LeverLength | null>(null);
  const id = useId();
  const work = (event: FormEvent) => {
    event.preventDefault();
    api.leverLength(sheet.id, texts).then(
      (answer) => {
        setFound(answer);
        setProblems({});
      },
      (error: unknown) => {
        setFound(null);
        const found = error instanceof RequestFailed ? (error.problem?.errors ?? []) : [];
        setProblems(
          found.length ? Object.fromEntries(found.map((each) => [each.path, each.message])) : { after: String(error) },
        );
      },
    );
  };
  const use = () =>
    found &&
    apply(
      [
        { path: "trailer.geometry.coupler_to_axles", op: "type", text: found.text },
        {
          path: "trailer.geometry.coupler_to_axles",
          op: "source",
          source: "scale",
          note: `from two readings of the ${word("tongue_weight")}`,
        },
      ],
      "coupler to axles",
    ).then(() => setFound(null));
  return (
    <details className="mt-3 border border-rule px-3" data-part="two-positions">
      <summary className="cursor-pointer py-2 font-cond text-[1rem] font-semibold">
        The lever length from two readings of the {word("tongue_weight")}
      </summary>
      <form onSubmit={work} className="pb-3">
        <p className="mb-2 text-[0.875rem] leading-snug text-soft">
          Read the {word("tongue_weight")}, move something of known mass straight back, read it again at the same
          height: what it lost gives the distance from coupler to axles. Chock the wheels; nobody aboard.
        </p>
        {FIELDS.map(([name, label, kind]) => (
          <div key={name} className="border-b border-rule py-1">
            <div className="flex items-center gap-2">
              <label htmlFor={id + name} className="flex-1 text-[0.9375rem]">
                {label}
              </label>
              <input
                id={id + name}
                value={texts[name]}
                inputMode="decimal"
                onChange={(event) => setTexts({ ...texts, [name]: event.currentTarget.value })}
                className="h-9 w-28 border-b-2 border-edge bg-card px-2 text-right font-cond text-[1.125rem] font-semibold outline-none focus:border-ink"
              />
              <span className="w-7 text-[0.8125rem] text-soft">
                {kind === "mass" ? rig.units.mass : evaluation.length}
              </span>
            </div>
            {problems[name] && (
              <p className="border-l-4 border-ink pl-2 text-[0.8125rem] font-semibold">{problems[name]}</p>
            )}
          </div>
        ))}
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <Button type="submit">Work it out</Button>
          {found && (
            <>
              <span className="font-cond text-[1.1875rem] font-semibold">{found.says}</span>
              <Button strong onClick={() => void use()}>
                Use it
              </Button>
            </>
          )}
        </div>
      </form>
    </details>
  );
}
