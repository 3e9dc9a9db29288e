import { useState } from "react";
import type { Pass } from "../api/client";
import { useDesk } from "../api/useSheet";
import { atRest } from "../format";
import { Field } from "../ui/Field";
import { type FormField, InsertForm } from "../ui/InsertForm";

const link = "font-cond text-[0.9375rem] underline underline-offset-2";

/** What made this pass differ from the others: fuel burned, a person out. It is added back, so that the passes match. */
export function Corrections({ path, pass, unit }: { path: string; pass: Pass; unit: string }) {
  const { change } = useDesk();
  const [asking, setAsking] = useState(false);
  const all = pass.adjustments ?? [];
  const fields: readonly FormField[] = [
    { name: "what", label: "What", text: true, start: "" },
    { name: "mass", label: "Add to this pass", unit, hint: "“12 gal diesel”, “165”; minus takes away" },
    {
      name: "front_share",
      label: "Of it on the front axle",
      hint: "“50 %”; a fuel tank lies about midway",
      start: "50 %",
    },
  ];
  return (
    <div className="border-t border-rule pt-2">
      {all.map((each, index) => (
        <div key={each.id} className="mb-2 border-l-2 border-rule pl-2">
          <div className="flex items-baseline justify-between gap-2">
            <span className="text-[0.9375rem] font-semibold">{each.what || "correction"}</span>
            <button
              type="button"
              className={link}
              onClick={() => change([{ path: `${path}.adjustments[${index}]`, op: "remove" }], "take out a correction")}
            >
              take out
            </button>
          </div>
          <Field path={`${path}.adjustments[${index}].mass`} label="Added to this pass" unit={unit} />
          <Field path={`${path}.adjustments[${index}].front_share`} label="Share on the front axle" />
        </div>
      ))}
      {asking ? (
        <InsertForm
          path={`${path}.adjustments[${all.length}]`}
          value={{}}
          fields={fields}
          what="a correction"
          button="Add this correction"
          onDone={() => setAsking(false)}
        />
      ) : (
        <button type="button" className={link} onClick={() => setAsking(true)}>
          correct for fuel burned or someone out
        </button>
      )}
    </div>
  );
}

/** What came aboard after the weighing: the checks are then shown as estimates as well. */
export function AddedSince({ weighIn }: { weighIn: number }) {
  const { rig, change, evaluation } = useDesk();
  const [asking, setAsking] = useState<"vehicle" | "trailer" | null>(null);
  const path = `weigh_ins[${weighIn - 1}].added_since`;
  const all = rig.weigh_ins?.[weighIn - 1]?.added_since ?? [];
  const unit = rig.units.mass;
  const fields = (on: "vehicle" | "trailer"): readonly FormField[] => [
    { name: "what", label: "What", text: true },
    { name: "mass", label: "Mass", unit, hint: "minus when it went ashore" },
    {
      name: "position",
      label: on === "vehicle" ? "Behind the front axle" : "Behind the coupler",
      unit: evaluation.length,
      hint: "left out, its ± covers every place",
    },
  ];
  return (
    <section aria-label="Came aboard since">
      <h2 className="font-cond text-[1.25rem] font-semibold">Came aboard since</h2>
      <p className="mt-1 mb-2 max-w-[60ch] text-[0.875rem] leading-snug text-soft">
        A ticket grows stale as items are loaded. What is listed here is added as an estimate; Margins shows it beside
        what was weighed.
      </p>
      {all.map((each, index) => (
        <p
          key={each.id}
          className="flex items-baseline justify-between gap-3 border-b border-rule py-1 text-[0.9375rem]"
        >
          <span>
            {each.what || "something"}, {each.on === "vehicle" ? "in the vehicle" : "in the trailer"}
          </span>
          <span className="whitespace-nowrap">
            <span className="font-cond text-[1.125rem] font-semibold">{atRest(each.mass)}</span>{" "}
            {typeof each.mass === "number" ? unit : ""}{" "}
            <button
              type="button"
              className={`${link} ml-2`}
              onClick={() => change([{ path: `${path}[${index}]`, op: "remove" }], `take out ${each.what}`)}
            >
              take out
            </button>
          </span>
        </p>
      ))}
      {asking ? (
        <InsertForm
          key={asking}
          path={`${path}[${all.length}]`}
          value={{ on: asking }}
          fields={fields(asking)}
          what="was added since"
          button="Add it"
          onDone={() => setAsking(null)}
        />
      ) : (
        <div className="flex gap-4 pt-2">
          <button type="button" className={link} onClick={() => setAsking("vehicle")}>
            something in the vehicle
          </button>
          {evaluation.towing && (
            <button type="button" className={link} onClick={() => setAsking("trailer")}>
              something in the trailer
            </button>
          )}
        </div>
      )}
    </section>
  );
}
