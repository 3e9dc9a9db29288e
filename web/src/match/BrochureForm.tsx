import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { api, type EquipmentKind, RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice } from "../ui/controls";
import { useTerms } from "../ui/useTerms";

const FIGURES: Record<Exclude<EquipmentKind, "hitch">, readonly (readonly [string, string])[]> = {
  vehicle: [
    ["ratings.gvwr", "gvwr"],
    ["ratings.payload", "payload"],
    ["ratings.gawr_rear", "gawr_rear"],
    ["ratings.gcwr", "gcwr"],
    ["ratings.tow_rating", "tow_rating"],
    ["ratings.tongue_rating", "tongue_rating"],
    ["curb_weight", "curb_weight"],
  ],
  trailer: [
    ["ratings.gvwr", "trailer.gvwr"],
    ["dry_weight", "Weight as built, with options"],
    ["dry_tongue", "Hitch or pin weight as built"],
    ["ratings.gawr[0]", "Axle rating, first axle"],
    ["ratings.gawr[1]", "Axle rating, second axle"],
    ["ratings.ccc", "trailer.ccc"],
  ],
};

/** A vehicle or a trailer typed from a brochure; what is missing is named in the answer. */
export function BrochureForm({ kind, onDone }: { kind: "vehicle" | "trailer"; onDone: () => void }) {
  const { rig } = useDesk();
  const t = useTerms();
  const queries = useQueryClient();
  const [texts, setTexts] = useState<Record<string, string>>(kind === "trailer" ? { coupling: "ball" } : {});
  const [problems, setProblems] = useState<Record<string, string>>({});
  const id = useId();
  const add = (event: FormEvent) => {
    event.preventDefault();
    const typed = Object.fromEntries(Object.entries(texts).filter(([, text]) => text.trim()));
    api.brochure({ kind, mass: rig.units.mass, texts: typed }).then(
      () => {
        void queries.invalidateQueries({ queryKey: ["match"] });
        void queries.invalidateQueries({ queryKey: ["garage"] });
        onDone();
      },
      (error: unknown) => {
        const found = error instanceof RequestFailed ? (error.problem?.errors ?? []) : [];
        setProblems(
          found.length
            ? Object.fromEntries(found.map((each) => [each.path.replace(`${kind}.`, ""), each.message]))
            : { name: String(error) },
        );
      },
    );
  };
  return (
    <form onSubmit={add} className="space-y-2">
      {([["name", "What you call it"], ...FIGURES[kind]] as const).map(([path, label]) => (
        <div key={path}>
          <div className="flex items-center gap-2">
            <label htmlFor={id + path} className="flex-1 text-[0.9375rem]">
              {t(label)}
            </label>
            <input
              id={id + path}
              value={texts[path] ?? ""}
              onChange={(event) => setTexts({ ...texts, [path]: event.currentTarget.value })}
              className={`h-10 border-b-2 border-edge bg-paper px-2 outline-none focus:border-ink ${path === "name" ? "w-44" : "w-32 text-right font-cond text-[1.25rem] font-semibold"}`}
            />
            <span className="w-6 text-[0.8125rem] text-soft">{path === "name" ? "" : rig.units.mass}</span>
          </div>
          {problems[path] && (
            <p className="border-l-4 border-ink pl-2 text-[0.8125rem] font-semibold">{problems[path]}</p>
          )}
        </div>
      ))}
      {kind === "trailer" && (
        <div className="flex items-center justify-between gap-2 text-[0.9375rem]">
          It hitches to
          <Choice
            label="It hitches to"
            value={(texts.coupling ?? "ball") as "ball" | "pin"}
            options={[
              ["ball", "a ball behind"],
              ["pin", "a pin above the axle"],
            ]}
            onChange={(coupling) => setTexts({ ...texts, coupling })}
          />
        </div>
      )}
      <div className="flex gap-2 pt-1">
        <Button strong type="submit">
          Put it in the garage
        </Button>
        <Button onClick={onDone}>Not now</Button>
      </div>
    </form>
  );
}
