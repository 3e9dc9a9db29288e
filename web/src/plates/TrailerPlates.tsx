import { useState } from "react";
import { useDesk } from "../api/useSheet";
import { mass as massText } from "../format";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { InsertForm } from "../ui/InsertForm";
import { useTerms, useWords } from "../ui/useTerms";
import { ChoiceLine, Plate } from "./Plate";

export function TrailerPlates() {
  const { rig, sheet, change, evaluation } = useDesk();
  const mass = rig.units.mass;
  const t = useTerms();
  const word = useWords();
  const typed = sheet.fields
    .map((field) => /^trailer\.ratings\.gawr\[(\d+)\]$/.exec(field.path)?.[1])
    .map((index) => (index === undefined ? 0 : Number(index) + 1));
  const rated = rig.trailer?.ratings?.gawr?.length ?? 0;
  const axles = Math.max(rated, ...typed, 1);
  const pin = rig.kind === "fifth_wheel" || rig.kind === "gooseneck";
  const small = "font-cond text-[0.875rem] underline underline-offset-2";
  return (
    <>
      <Plate
        photos="trailer label"
        reads="trailer"
        title={word("label.trailer")}
        where={word("where.trailer")}
        sign="trailer"
      >
        <Field path="trailer.name" label="What you call it" mode="text" />
        <Field
          path="trailer.ratings.gvwr"
          label={t("trailer.gvwr")}
          hint={`trailer in total, ${word("tongue_weight")} included`}
          unit={mass}
          sourced
          term="trailer.gvwr"
        />
        {Array.from({ length: Math.min(9, axles) }, (_, index) => (
          <Field
            // biome-ignore lint/suspicious/noArrayIndexKey: axles are named by their number
            key={index}
            path={`trailer.ratings.gawr[${index}]`}
            term={index === 0 ? "trailer.gawr" : undefined}
            label={axles > 1 ? `${t("trailer.gawr")}, axle ${index + 1}` : t("trailer.gawr")}
            unit={mass}
            sourced
          />
        ))}
        <div className="flex gap-4 border-b border-rule py-1.5">
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
        </div>
        <Field
          path="trailer.ratings.axle_group"
          label={t("trailer.axle_group")}
          hint="all its axles, if the label gives one"
          unit={mass}
          sourced
          term="trailer.axle_group"
        />
      </Plate>
      <Plate title={word("label.cargo")} where={word("where.cargo")} sign="cargo">
        <Field path="trailer.ratings.ccc" label={t("trailer.ccc")} unit={mass} sourced term="trailer.ccc" />
      </Plate>
      <Plate title={word("label.dealer")} where={word("where.dealer")} sign="dealer">
        <Field
          path="trailer.dry_weight"
          label={t("dry_weight")}
          hint="with its options"
          unit={mass}
          sourced
          term="dry_weight"
        />
        <Field
          path="trailer.dry_tongue"
          label={t("dry_tongue")}
          unit={mass}
          sourced
          term={pin ? "pin_weight" : "tongue_weight"}
        />
        <DryExtras />
      </Plate>
      <Plate title="The trailer itself" sign="measure">
        <ChoiceLine label="It is a">
          <Choice
            label="Kind of trailer"
            value={rig.trailer?.style ?? "box"}
            options={pin ? STYLES.slice(0, 1) : STYLES}
            onChange={(value) => change([{ path: "trailer.style", op: "set", value }], "kind of trailer")}
          />
        </ChoiceLine>
        <Field
          path="trailer.geometry.coupler_to_axles"
          label={pin ? "Pin to middle of axles" : "Coupler to middle of axles"}
          unit={evaluation.length}
          sourced
        />
        <Field path="trailer.geometry.width" label="Width" hint="for the mirrors" unit={evaluation.length} sourced />
        {rig.vehicle?.frontal_area != null && (
          <Field path="trailer.frontal_area" label="Frontal area" hint="in the unit of the vehicle's limit" sourced />
        )}
        <ChoiceLine label="Its own brakes">
          <Choice
            label="Trailer brakes"
            value={rig.trailer?.brakes ?? ""}
            options={[
              ["electric", "electric"],
              ["surge", "overrun"],
              ["none", "none"],
            ]}
            onChange={(value) => change([{ path: "trailer.brakes", op: "set", value }], "trailer brakes")}
          />
        </ChoiceLine>
        <ChoiceLine label="Suspension">
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
        </ChoiceLine>
      </Plate>
    </>
  );
}

const STYLES = [
  ["box", "box"],
  ["utility", "open"],
  ["boat", "boat"],
  ["car_carrier", "carrier"],
  ["towed_car", "towed car"],
] as const;

/** What the maker may have left out of the dry weight: a tick says that it is counted; what is not moves the planning weight. */
export function DryExtras() {
  const { rig, sheet, change, evaluation } = useDesk();
  const [asking, setAsking] = useState(false);
  const extras = rig.trailer?.dry_extras ?? [];
  const planning = sheet.plates.planning_dry;
  const unit = rig.units.mass;
  return (
    <div className="py-1.5" data-part="dry-extras">
      <p className="text-[0.875rem] leading-snug">
        Tick what its maker counted in that figure. What is not ticked is added for planning.
      </p>
      {extras.map((extra, index) => (
        <div key={extra.id} className="border-b border-rule">
          <label className="flex min-h-9 items-center gap-2 text-[0.9375rem]">
            <input
              type="checkbox"
              className="h-5 w-5 accent-[var(--ink)]"
              checked={extra.counted ?? false}
              onChange={(event) =>
                change(
                  [{ path: `trailer.dry_extras[${index}].counted`, op: "set", value: event.currentTarget.checked }],
                  `${extra.name} counted or not`,
                )
              }
            />
            <span className="flex-1">
              {extra.name}
              <span className="text-soft">{extra.counted ? ", counted" : ", added for planning"}</span>
            </span>
            <button
              type="button"
              className="font-cond text-[0.875rem] underline"
              aria-label={`Take out ${extra.name}`}
              onClick={() => change([{ path: `trailer.dry_extras[${index}]`, op: "remove" }], `take out ${extra.name}`)}
            >
              take out
            </button>
          </label>
          {!extra.counted && (
            <>
              <Field path={`trailer.dry_extras[${index}].mass`} label="Its mass" unit={unit} />
              <Field
                path={`trailer.dry_extras[${index}].position`}
                label="Behind the coupler"
                hint="minus when ahead of it"
                unit={evaluation.length}
              />
            </>
          )}
        </div>
      ))}
      {planning !== null && extras.length > 0 && (
        <p className="pt-1 text-[0.9375rem]">
          Planning weight:{" "}
          <b className="font-cond text-[1.125rem]">
            {massText(planning)} {unit}
          </b>
        </p>
      )}
      {asking ? (
        <InsertForm
          path={`trailer.dry_extras[${extras.length}]`}
          value={{ counted: false }}
          what={`something beside the ${evaluation.terms.dry_weight}`}
          button="Add it"
          onDone={() => setAsking(false)}
          fields={[
            { name: "name", label: "What", text: true, hint: "propane, battery, options, generator fuel" },
            { name: "mass", label: "Its mass", unit },
            {
              name: "position",
              label: "Behind the coupler",
              unit: evaluation.length,
              hint: "for the load on the hitch",
            },
          ]}
        />
      ) : (
        <button type="button" className="mt-1 text-[0.875rem] underline" onClick={() => setAsking(true)}>
          propane, battery, options, generator fuel: add one
        </button>
      )}
    </div>
  );
}
