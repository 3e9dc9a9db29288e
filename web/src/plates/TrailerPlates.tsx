import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { Plate } from "./Plate";
import { useTerms } from "./useTerms";

export function TrailerPlates() {
  const { rig, sheet, change, evaluation } = useDesk();
  const mass = rig.units.mass;
  const t = useTerms();
  const typed = sheet.fields
    .map((field) => /^trailer\.ratings\.gawr\[(\d+)\]$/.exec(field.path)?.[1])
    .map((index) => (index === undefined ? 0 : Number(index) + 1));
  const rated = rig.trailer?.ratings?.gawr?.length ?? 0;
  const axles = Math.max(rated, ...typed, 1);
  const pin = rig.kind === "fifth_wheel" || rig.kind === "gooseneck";
  const small = "font-cond text-[14px] underline underline-offset-2";
  return (
    <>
      <Plate title="Trailer label" where="Outside, front left side.">
        <Field path="trailer.name" label="What you call it" mode="text" />
        <Field
          path="trailer.ratings.gvwr"
          label={t("trailer.gvwr")}
          hint="trailer in total, tongue included"
          unit={mass}
          sourced
        />
        {Array.from({ length: Math.min(9, axles) }, (_, index) => (
          <Field
            // biome-ignore lint/suspicious/noArrayIndexKey: axles are named by their number
            key={index}
            path={`trailer.ratings.gawr[${index}]`}
            label={axles > 1 ? `${t("trailer.gawr")}, axle ${index + 1}` : t("trailer.gawr")}
            unit={mass}
            sourced
          />
        ))}
        <p className="flex gap-4 border-b border-rule py-1.5">
          <button
            type="button"
            className={small}
            disabled={rated === 0 || rated >= 9}
            onClick={() =>
              change(
                [
                  {
                    path: `trailer.ratings.gawr[${rated}]`,
                    op: "insert",
                    value: rig.trailer?.ratings?.gawr?.[rated - 1],
                  },
                ],
                "add a trailer axle",
              )
            }
          >
            one more axle
          </button>
          {rated > 1 && (
            <button
              type="button"
              className={small}
              onClick={() =>
                change([{ path: `trailer.ratings.gawr[${rated - 1}]`, op: "remove" }], "one trailer axle less")
              }
            >
              one axle less
            </button>
          )}
        </p>
        <Field
          path="trailer.ratings.axle_group"
          label={t("trailer.axle_group")}
          hint="all its axles, if the label gives one"
          unit={mass}
          sourced
        />
      </Plate>
      <Plate title="Trailer cargo label" where="Near the door: “the weight of cargo should never exceed …”.">
        <Field path="trailer.ratings.ccc" label={t("trailer.ccc")} unit={mass} sourced />
        <Field path="trailer.dry_weight" label={t("dry_weight")} hint="with its options" unit={mass} sourced />
        <Field path="trailer.dry_tongue" label={pin ? "Dry pin weight" : t("dry_tongue")} unit={mass} sourced />
      </Plate>
      <Plate title="The trailer itself">
        <Field
          path="trailer.geometry.coupler_to_axles"
          label={pin ? "Pin to middle of axles" : "Coupler to middle of axles"}
          unit={evaluation.length}
          sourced
        />
        <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5">
          <span className="text-[15px]">Suspension</span>
          <Choice
            label="Suspension"
            value={rig.trailer?.suspension ?? ""}
            options={[
              ["leaf", "leaf springs"],
              ["torsion", "torsion"],
              ["other", "other"],
            ]}
            onChange={(value) => change([{ path: "trailer.suspension", op: "set", value }], "suspension")}
          />
        </div>
        <Field path="trailer.tires.max_load" label="Its tires, each" unit={mass} sourced />
        <Field path="trailer.tires.count" label="Tires, all axles" />
      </Plate>
    </>
  );
}
