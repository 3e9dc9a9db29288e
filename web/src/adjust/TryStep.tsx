import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, RequestFailed, type Step, type TypedStep } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice, Picks } from "../ui/controls";

const KINDS = [
  ["move", "move"],
  ["leave", "leave"],
  ["swap", "to the other"],
  ["tank", "tank"],
  ["bars", "bars"],
  ["add", "add"],
  ["drop", "ball height"],
  ["hitch", "another hitch"],
  ["vehicle", "another vehicle"],
] as const;
type Kind = (typeof KINDS)[number][0];

/** A step made by hand: which item, and where to, how full, how tight. */
export function TryStep({ steps, onAdd }: { steps: Step[]; onAdd: (step: Step) => void }) {
  const { rig, evaluation, sheet, number } = useDesk();
  const [kind, setKind] = useState<Kind>("move");
  const [index, setIndex] = useState(0);
  const [figure, setFigure] = useState("");
  const [weight, setWeight] = useState("");
  const [on, setOn] = useState<"vehicle" | "trailer">("vehicle");
  const [problem, setProblem] = useState<Error | null>(null);
  const [thing, setThing] = useState("");
  const garage = useQuery({
    queryKey: ["garage"],
    queryFn: api.garage,
    enabled: kind === "hitch" || kind === "vehicle",
  });
  const offered = (garage.data ?? []).filter((each) => each.kind === kind && !each.retired);
  const loads = rig.loads ?? [];
  const tanks = rig.tanks ?? [];
  const length = evaluation.length;
  const unit = rig.units.mass;
  const typed: TypedStep = {
    kind,
    ...(kind === "move" || kind === "leave" || kind === "swap" || kind === "tank" ? { index } : {}),
    ...(kind === "tank" || kind === "bars" ? { level: figure } : { place: figure }),
    ...(kind === "add" ? { on, mass: weight } : {}),
    ...(kind === "hitch" || kind === "vehicle" ? { thing } : {}),
  };
  const add = (event: FormEvent) => {
    event.preventDefault();
    api.understandStep(sheet.id, steps, typed, number).then(
      (step) => {
        setProblem(null);
        setFigure("");
        setWeight("");
        onAdd(step);
      },
      (error: Error) => setProblem(error),
    );
  };
  const wrong = problem instanceof RequestFailed ? (problem.problem?.errors ?? []).map((each) => each.path) : [];
  const input =
    "h-10 w-32 border-b-2 border-edge bg-paper px-2 text-right outline-none placeholder:text-soft focus:border-ink aria-invalid:border-vermilion";
  const needsLoad = kind === "move" || kind === "leave" || kind === "swap";
  const chosen = loads[index];
  const target =
    kind === "swap" ? (chosen?.on === "vehicle" ? "trailer" : "vehicle") : kind === "add" ? on : chosen?.on;
  const usual = sheet.pack.places.filter((place) => place.on === target);
  return (
    <form onSubmit={add} aria-label="Try a step" className="mt-4 border border-rule p-3">
      <h2 className="mb-2 font-cond text-[1.25rem] font-semibold">Or try a step of your own</h2>
      <div className="flex flex-wrap items-center gap-2">
        <Picks
          label="What to try"
          value={kind}
          options={KINDS}
          onChange={(value) => {
            setKind(value);
            setIndex(0);
            setProblem(null);
          }}
          small
        />
        {needsLoad && (
          <select
            aria-label="Which item"
            value={index}
            onChange={(event) => setIndex(Number(event.currentTarget.value))}
            className="h-10 max-w-full min-w-11 border border-ink bg-card px-2"
          >
            {loads.map((load, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: its place in the list is its name
              <option key={at} value={at}>
                {load.name || "an item"} ({load.on})
              </option>
            ))}
          </select>
        )}
        {kind === "tank" && (
          <select
            aria-label="Which tank"
            value={index}
            onChange={(event) => setIndex(Number(event.currentTarget.value))}
            className="h-10 border border-ink bg-card px-2"
          >
            {tanks.map((tank, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: its place in the list is its name
              <option key={at} value={at}>
                {tank.name || tank.fluid}
              </option>
            ))}
          </select>
        )}
        {kind === "add" && (
          <>
            <input
              value={weight}
              aria-label="Its mass"
              aria-invalid={wrong.includes("mass")}
              placeholder={`mass, ${unit}`}
              onChange={(event) => setWeight(event.currentTarget.value)}
              className={input}
            />
            <Choice
              label="Where it goes"
              value={on}
              options={[
                ["vehicle", "vehicle"],
                ["trailer", "trailer"],
              ]}
              onChange={setOn}
            />
          </>
        )}
        {(kind === "hitch" || kind === "vehicle") && (
          <select
            aria-label={`Which ${kind}`}
            value={thing}
            onChange={(event) => setThing(event.currentTarget.value)}
            className="h-10 max-w-full min-w-11 border border-ink bg-card px-2"
          >
            <option value="">choose…</option>
            {offered.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name || `unnamed, of ${each.rigs[0]?.name ?? "no rig"}`}
              </option>
            ))}
          </select>
        )}
        {kind !== "leave" && kind !== "hitch" && kind !== "vehicle" && (
          <input
            value={figure}
            aria-invalid={wrong.includes("place") || wrong.includes("level")}
            aria-label={
              kind === "tank" ? "Level" : kind === "bars" ? "Given back" : kind === "drop" ? "Lower by" : "Place"
            }
            placeholder={
              kind === "tank"
                ? "level, %"
                : kind === "bars"
                  ? "restored, %"
                  : kind === "drop"
                    ? `lower by, ${length}`
                    : `place, ${length}`
            }
            onChange={(event) => setFigure(event.currentTarget.value)}
            className={input}
          />
        )}
        <Button type="submit">Try it</Button>
      </div>
      {(kind === "move" || kind === "swap" || kind === "add") && usual.length > 0 && (
        <div className="mt-2 flex flex-wrap gap-1.5">
          {usual.map((place) => (
            <button
              key={place.name}
              type="button"
              onClick={() => setFigure(place.text)}
              className="border border-rule px-1.5 py-0.5 font-cond text-[0.875rem] hover:border-ink"
            >
              {place.name}
            </button>
          ))}
        </div>
      )}
      {kind === "swap" && <p className="mt-1 text-[0.8125rem] text-soft">Into the {target}, at the place named.</p>}
      {problem && <p className="mt-1 border-l-4 border-ink pl-2 text-[0.875rem] font-semibold">{problem.message}</p>}
    </form>
  );
}
