import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { Plate } from "./Plate";

/** How much of each rating to use, and which tongue share to aim at: schools differ, the owner chooses. */
export function PolicyPlate() {
  const { rig, change, evaluation } = useDesk();
  const row = evaluation.checks.find((check) => check.id === "tongue.share");
  const range = row ? `${((row.low ?? 0) * 100).toFixed(0)}–${((row.high ?? 0) * 100).toFixed(0)} %` : "";
  return (
    <Plate title="Your own rules">
      <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5">
        <span className="text-[15px]">Use of the ratings</span>
        <Choice
          label="Use of the ratings"
          value={rig.policy?.school ?? "plate"}
          options={[
            ["plate", "all of them"],
            ["cushion", "with a cushion"],
          ]}
          onChange={(value) => change([{ path: "policy.school", op: "set", value }], "use of the ratings")}
        />
        <p className="w-full text-[13px] leading-snug text-soft">
          A cushion keeps the trailer below 80 % of the tow rating and its cargo below 85 % of the CCC; past it a check
          reads “too close”. Over a rating is over in either case.
        </p>
      </div>
      {row && (
        <>
          <Field path="policy.tongue_share[0]" label="Tongue share, from" hint={`in use: ${range}`} />
          <Field path="policy.tongue_share[1]" label="Tongue share, to" hint="for instance 12 %" />
        </>
      )}
    </Plate>
  );
}
