import { useState } from "react";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Button } from "../ui/controls";
import { Field } from "../ui/Field";
import { type FormField, InsertForm } from "../ui/InsertForm";
import { useTerms } from "../ui/useTerms";
import { MethodDrawing } from "./MethodDrawing";

export type Method = "scale" | "ball_mount_scale" | "beam_scale" | "lever";

const methodsOf = (scale: string): readonly (readonly [Method, string, string])[] => [
  ["scale", scale, "Under the jack or the coupler, level, at towing height."],
  [
    "ball_mount_scale",
    "Scale in the ball mount",
    "Let it settle: a reading can climb by a fifth while the suspension takes up.",
  ],
  [
    "beam_scale",
    "Bathroom scale and a beam",
    "The coupler between a fixed support and the scale. Keep the reading below what the scale may carry, or it is crushed.",
  ],
  ["lever", "Lever and a known weight", "A pipe over a fulcrum. Stay clear of a loaded lever: it can strike."],
];

function fieldsOf(method: Method, mass: string, length: string): readonly FormField[] {
  const heights: readonly FormField[] = [
    { name: "height", label: "Coupler height when measured", unit: length },
    { name: "towing_height", label: "Coupler height when towing", unit: length },
  ];
  switch (method) {
    case "scale":
    case "ball_mount_scale":
      return [
        { name: "value", label: "It reads", unit: mass },
        { name: "resolution", label: "In steps of", unit: mass },
        ...heights,
      ];
    case "beam_scale":
      return [
        { name: "reading", label: "The scale reads", unit: mass },
        { name: "tare", label: "With the beam alone", unit: mass },
        { name: "resolution", label: "In steps of", unit: mass },
        { name: "span", label: "Support to scale", unit: length },
        { name: "span_pm", label: "± on that", unit: length },
        { name: "coupler_from_support", label: "Support to coupler", unit: length },
        { name: "coupler_from_support_pm", label: "± on that", unit: length },
        ...heights,
      ];
    case "lever":
      return [
        { name: "counterweight", label: "Known weight", unit: mass },
        { name: "counterweight_pm", label: "± on that", unit: mass },
        { name: "counterweight_arm", label: "Its arm from the fulcrum", unit: length },
        { name: "counterweight_arm_pm", label: "± on that", unit: length },
        { name: "tongue_arm", label: "Coupler to fulcrum", unit: length },
        { name: "tongue_arm_pm", label: "± on that", unit: length },
        { name: "beam_mass", label: "The lever's own mass", unit: mass },
        { name: "beam_cg_arm", label: "Its middle from the fulcrum", unit: length, hint: "plus on the weight's side" },
        ...heights,
      ];
  }
}

/** The tongue weighed by itself: four ways, each with its lengths drawn, its error budget, and the answer with its ±. */
export function Tongue({ weighIn }: { weighIn: number }) {
  const { rig, evaluation, change } = useDesk();
  const t = useTerms();
  const methods = methodsOf(t("tongue_scale"));
  const [asking, setAsking] = useState<Method | null>(null);
  const path = `weigh_ins[${weighIn - 1}].tongue_measurements`;
  const all = rig.weigh_ins?.[weighIn - 1]?.tongue_measurements ?? [];
  const unit = rig.units.mass;
  const chosen = methods.find(([method]) => method === asking);
  return (
    <section aria-label={`${t("tongue_weight")}, directly`}>
      <h2 className="font-cond text-[1.25rem] font-semibold">{t("tongue_weight")}, directly</h2>
      <p className="mt-1 mb-3 max-w-[65ch] text-[0.875rem] leading-snug text-soft">
        Chock the wheels first. Never go under a trailer on its jack. Block the tail before anyone loads an uncoupled
        trailer.
      </p>
      {all.map((each, index) => {
        const method = each.method as Method;
        const way = evaluation.tongue.find((found) => found.key === `tongue:direct:${index + 1}`);
        const name = methods.find(([known]) => known === method)?.[1] ?? method;
        return (
          <div key={each.id} className="mb-4 border border-ink bg-card" data-measurement={index + 1}>
            <header className="flex items-start justify-between gap-3 border-b border-dashed border-ink px-3 py-2">
              <h3 className="font-cond text-[1.1875rem] leading-tight font-semibold">{name}</h3>
              {way && (
                <p className="text-right font-cond text-[1.5rem] leading-none font-semibold" data-part="answer">
                  {mass(way.value)} <span className="text-[1rem] text-soft">±{mass(way.plus_minus)}</span>{" "}
                  <span className="text-[0.9375rem] font-normal">{unit}</span>
                </p>
              )}
            </header>
            <div className="px-3 py-2">
              <MethodDrawing method={method} />
              {fieldsOf(method, unit, evaluation.length).map((field) => (
                <Field
                  key={field.name}
                  path={`${path}[${index}].${field.name}`}
                  label={field.label}
                  unit={field.unit}
                />
              ))}
              {way && Object.keys(way.budget).length > 0 && <Budget budget={way.budget} />}
              <button
                type="button"
                className="mt-1 font-cond text-[0.875rem] underline underline-offset-2"
                onClick={() =>
                  change([{ path: `${path}[${index}]`, op: "remove" }], `take out the ${name.toLowerCase()}`)
                }
              >
                remove this measurement
              </button>
            </div>
          </div>
        );
      })}
      {chosen ? (
        <div className="border border-ink bg-card px-3 py-3">
          <h3 className="font-cond text-[1.1875rem] font-semibold">{chosen[1]}</h3>
          <p className="mb-2 text-[0.875rem] leading-snug">{chosen[2]}</p>
          <MethodDrawing method={chosen[0]} />
          <InsertForm
            key={chosen[0]}
            path={`${path}[${all.length}]`}
            value={{ method: chosen[0] }}
            fields={fieldsOf(chosen[0], unit, evaluation.length)}
            what={`a ${chosen[1].toLowerCase()}`}
            button="Add this measurement"
            onDone={() => setAsking(null)}
          />
        </div>
      ) : (
        <div className="flex flex-wrap gap-2">
          {methods.map(([method, name]) => (
            <Button key={method} onClick={() => setAsking(method)}>
              {name}
            </Button>
          ))}
        </div>
      )}
    </section>
  );
}

/** What each input adds to the ±: the longest bar is the one to measure better. */
function Budget({ budget }: { budget: Record<string, number> }) {
  const most = Math.max(...Object.values(budget), 1e-9);
  return (
    <div className="pt-2">
      <p className="text-[0.8125rem] text-soft">what each makes of the ±</p>
      {Object.entries(budget).map(([label, part]) => (
        <div key={label} className="flex items-center gap-2 py-0.5 text-[0.875rem]">
          <span className="w-40 shrink-0 leading-tight">{label}</span>
          <span className="h-2 bg-ochre" style={{ width: `${(part / most) * 40}%` }} />
          <span className="font-cond">±{mass(part)}</span>
        </div>
      ))}
    </div>
  );
}
