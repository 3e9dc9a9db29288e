import { useState } from "react";
import { useDesk } from "../api/useSheet";
import { Choice, Picks } from "../ui/controls";
import { InsertForm } from "../ui/InsertForm";

export const FLUIDS = [
  ["gasoline", "gasoline"],
  ["diesel", "diesel"],
  ["def", "DEF"],
  ["fresh", "fresh water"],
  ["hot_water", "hot water"],
  ["grey", "grey water"],
  ["black", "black water"],
  ["propane", "propane"],
] as const;

type Fluid = (typeof FLUIDS)[number][0];

export const fluidWord = (fluid: string) => FLUIDS.find(([value]) => value === fluid)?.[1] ?? fluid;

export function NewTank({ index, onDone }: { index: number; onDone: () => void }) {
  const { rig, evaluation } = useDesk();
  const [fluid, setFluid] = useState<Fluid>("fresh");
  const [on, setOn] = useState<"vehicle" | "trailer">(evaluation.towing ? "trailer" : "vehicle");
  const volume = rig.units.volume ?? (rig.units.mass === "lb" ? "gal" : "l");
  return (
    <div className="mt-2 border border-ink bg-card p-3">
      <div className="mb-2">
        <Picks label="What is in it" value={fluid} options={FLUIDS} onChange={setFluid} small />
      </div>
      {evaluation.towing && (
        <div className="mb-2">
          <Choice
            label="Which carries it"
            value={on}
            options={[
              ["vehicle", "in the vehicle"],
              ["trailer", "in the trailer"],
            ]}
            onChange={setOn}
          />
        </div>
      )}
      <InsertForm
        key={`${fluid}${on}`}
        path={`tanks[${index}]`}
        value={{
          fluid,
          on,
          levels:
            fluid === "grey" || fluid === "black"
              ? { leaving: 0, heading_home: 1 }
              : fluid === "fresh"
                ? { leaving: 1, heading_home: 0 }
                : { leaving: 1 },
        }}
        what="a tank"
        button="Add it"
        onDone={onDone}
        fields={[
          { name: "name", label: "Name", text: true, start: fluidWord(fluid) },
          { name: "capacity", label: "Holds", unit: volume },
          {
            name: "position",
            label: on === "vehicle" ? "Behind the front axle" : "Behind the coupler",
            unit: evaluation.length,
          },
        ]}
      />
    </div>
  );
}
