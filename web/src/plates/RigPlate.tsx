import { api, type MassUnit } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { Refused, useAttempt } from "../ui/useAttempt";
import { ChoiceLine, Plate } from "./Plate";

const TERMS = [
  ["north_america", "North America"],
  ["australia", "Australia, NZ"],
  ["europe", "Europe, UK"],
] as const;
const LENGTHS = ["in", "ft", "mm", "cm", "m"] as const;
const PRESSURES = ["psi", "kPa", "bar"] as const;

/** What the rig is called, and in which words and units it is shown; figures keep their values whatever is chosen. */
export function RigPlate() {
  const { rig, change, ask, evaluation, sheet } = useDesk();
  const { problem, attempt } = useAttempt();
  const unit = rig.units.mass;
  const units = (mass: MassUnit, length?: (typeof LENGTHS)[number], pressure?: (typeof PRESSURES)[number]) =>
    attempt(
      ask((id, key, weighIn) =>
        api.units(id, { mass, length: length ?? null, pressure: pressure ?? null }, key, weighIn),
      ),
    );
  const metric = rig.terms === "australia" || rig.terms === "europe";
  const foreign = metric ? unit === "lb" : unit === "kg" && (rig.terms ?? "north_america") === "north_america";
  const european = rig.terms === "europe" && !rig.policy?.tongue_share && rig.kind === "conventional";
  return (
    <Plate title="The rig">
      <Field path="name" label="Name" mode="text" />
      <ChoiceLine label="Terms of">
        <Choice
          label="Set of terms"
          value={rig.terms ?? "north_america"}
          options={TERMS}
          onChange={(value) => change([{ path: "terms", op: "set", value }], "set of terms")}
        />
      </ChoiceLine>
      {(foreign || european) && (
        <p className="border-b border-rule py-1.5 text-[0.875rem] leading-snug">
          Usual there:{" "}
          {foreign && (
            <button type="button" className="mr-3 underline" onClick={() => void units(metric ? "kg" : "lb")}>
              figures in {metric ? "kg" : "lb"}
            </button>
          )}
          {european && (
            <button
              type="button"
              className="underline"
              onClick={() =>
                change([{ path: "policy.tongue_share", op: "set", value: [0.05, 0.07] }], "tongue share aimed at")
              }
            >
              a noseweight of 5–7 %
            </button>
          )}
        </p>
      )}
      <ChoiceLine label="Masses in">
        <Choice
          label="Unit of mass"
          value={unit}
          options={[
            ["lb", "lb"],
            ["kg", "kg"],
          ]}
          onChange={(value) => void units(value)}
        />
      </ChoiceLine>
      <ChoiceLine label="Lengths in">
        <Choice
          label="Unit of length"
          value={evaluation.length}
          options={LENGTHS.map((each) => [each, each] as const)}
          onChange={(value) => void units(unit, value, sheet.plates.pressure_unit)}
        />
      </ChoiceLine>
      <ChoiceLine label="Pressures in">
        <Choice
          label="Unit of pressure"
          value={sheet.plates.pressure_unit}
          options={PRESSURES.map((each) => [each, each] as const)}
          onChange={(value) => void units(unit, evaluation.length, value)}
        />
      </ChoiceLine>
      <p className="py-1 text-[0.8125rem] leading-snug text-soft">
        Figures are not rewritten: each keeps the unit it was typed in and shows it.
      </p>
      <Refused problem={problem} className="text-[0.8125rem]" />
    </Plate>
  );
}
