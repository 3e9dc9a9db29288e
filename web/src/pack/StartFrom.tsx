import { useDesk } from "../api/useSheet";
import { Button, Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { Refused, useAttempt } from "../ui/useAttempt";
import { TwoPositions } from "./TwoPositions";

/** What the prediction starts from: brochure figures, or what the scale found last, the listed items taken out of it. */
export function StartFrom() {
  const { rig, evaluation, change, planFromWeighIn, sheet, number } = useDesk();
  const learned = sheet.pack.calibration;
  const { problem, attempt } = useAttempt();
  const unit = rig.units.mass;
  const take = () => attempt(planFromWeighIn());
  return (
    <section aria-label="Start from" className="mt-8">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">Start from</h2>
      <p className="mt-1 mb-2 max-w-[60ch] text-[0.875rem] leading-snug text-soft">
        What each axle and the trailer carry without the items listed. After a weigh-in, let it start from what the
        scale found: predictions are then changes to measured loads. Tanks count as full as in the phase you look at.
      </p>
      <Button onClick={() => void take()} disabled={!rig.weigh_ins?.length}>
        Take it from {number && number < sheet.window.count ? `weigh-in ${number}` : "the last weigh-in"}
      </Button>
      <Refused problem={problem} />
      <div className="mt-2">
        <Field path="plan.vehicle_base.front" label="Vehicle, front axle" unit={unit} sourced />
        <Field path="plan.vehicle_base.rear" label="Vehicle, rear axle" unit={unit} sourced />
        <div className="flex items-center justify-between gap-2 border-b border-rule py-1.5">
          <span className="text-[0.9375rem]">With the hitch on it</span>
          <Choice
            label="With the hitch on it"
            value={rig.plan?.vehicle_base?.hitch_fitted ? "yes" : "no"}
            options={[
              ["yes", "yes"],
              ["no", "no"],
            ]}
            onChange={(value) =>
              change([{ path: "plan.vehicle_base.hitch_fitted", op: "set", value: value === "yes" }], "hitch fitted")
            }
          />
        </div>
        {evaluation.towing && (
          <>
            <Field
              path="plan.trailer_base.gross"
              label="Trailer, in total"
              hint={`left out: its ${evaluation.terms.dry_weight}`}
              unit={unit}
              sourced
            />
            <Field
              path="plan.trailer_base.tongue"
              label={`Its ${evaluation.terms.tongue}`}
              hint={`left out: its ${evaluation.terms.dry_tongue}`}
              unit={unit}
              sourced
            />
            {rig.hitch?.weight_distribution && (
              <Field
                path="plan.front_restoration"
                term="restoration"
                label="Front axle load restored by the bars"
                hint="share of what it loses, “60 %”"
              />
            )}
          </>
        )}
      </div>
      {learned && (
        <div className="mt-3 border-l-4 border-rule pl-3" data-part="calibration">
          <h3 className="font-cond text-[1.0625rem] font-semibold">What the scale taught</h3>
          {learned.says.map((line) => (
            <p key={line} className="text-[0.875rem] leading-snug">
              {line}
            </p>
          ))}
          <Field
            path="plan.effective_overhang"
            label="Hitch point in use"
            hint="left out: the tape's figure"
            unit={evaluation.length}
          />
        </div>
      )}
      {evaluation.towing && <TwoPositions />}
    </section>
  );
}
