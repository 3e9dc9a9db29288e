import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { useTerms, useWords } from "../ui/useTerms";
import { GuideLookup } from "./GuideLookup";
import { MakersTable } from "./MakersTable";
import { ChoiceLine, More, Plate } from "./Plate";
import { RatingField } from "./RatingField";

const BODIES = [
  ["pickup", "pickup"],
  ["suv", "SUV"],
  ["wagon", "car"],
  ["van", "van"],
  ["motorhome", "motorhome"],
] as const;

const GUIDE = [
  ["year", "Year of the guide"],
  ["engine", "Engine"],
  ["axle_ratio", "Axle ratio"],
  ["cab", "Cab, bed"],
  ["drive", "Drive"],
  ["wheelbase", "Wheelbase row"],
] as const;

export function VehiclePlates() {
  const { rig, change, evaluation } = useDesk();
  const t = useTerms();
  const word = useWords();
  const mass = rig.units.mass;
  const length = evaluation.length;
  const towing = evaluation.towing;
  const rule = rig.vehicle?.distribution;
  return (
    <>
      <Plate
        photos="certification label"
        reads="vehicle"
        title={word("label.certification")}
        where={word("where.certification")}
        sign="certification"
      >
        <Field
          path="vehicle.ratings.gvwr"
          label={t("gvwr")}
          hint={rig.trailer ? `loaded vehicle, ${evaluation.terms.tongue} included` : "loaded vehicle"}
          unit={mass}
          sourced
          term="gvwr"
        />
        <Field path="vehicle.ratings.gawr_front" label={t("gawr_front")} unit={mass} sourced term="gawr_front" />
        <Field path="vehicle.ratings.gawr_rear" label={t("gawr_rear")} unit={mass} sourced term="gawr_rear" />
        {(evaluation.geometry.body === "motorhome" || rig.vehicle?.ratings?.gawr_tag != null) && (
          <Field
            path="vehicle.ratings.gawr_tag"
            label="Tag axle's rating"
            hint="a second rear axle; the scale weighs both as one"
            unit={mass}
            sourced
          />
        )}
      </Plate>
      <Plate
        photos="placard"
        reads="vehicle"
        title={word("label.placard")}
        where={word("where.placard")}
        sign="placard"
      >
        <Field path="vehicle.ratings.payload" label={t("payload")} unit={mass} sourced term="payload" />
      </Plate>
      <Plate photos="add-on label" reads="vehicle" title={word("label.addon")} where={word("where.addon")} sign="addon">
        <Field path="vehicle.ratings.payload_reduction" label="Takes off the payload" unit={mass} sourced />
      </Plate>
      {towing && (
        <Plate title={word("label.guide")} where={word("where.guide")} sign="guide">
          <Field
            path="vehicle.ratings.gcwr"
            label={t("gcwr")}
            hint="vehicle and trailer together"
            unit={mass}
            sourced
            term="gcwr"
          />
          <RatingField path="vehicle.ratings.tow_rating" label={t("tow_rating")} unit={mass} term="tow_rating" />
          {(rig.trailer?.brakes === "none" || rig.vehicle?.ratings?.tow_unbraked != null) && (
            <Field
              path="vehicle.ratings.tow_unbraked"
              label={t("tow_unbraked")}
              hint="often 750 kg or half the kerb mass; check where you drive"
              unit={mass}
              sourced
            />
          )}
          <RatingField
            path="vehicle.ratings.tongue_rating"
            label={t("tongue_rating")}
            unit={mass}
            term="tongue_rating"
          />
          {rig.trailer && (
            <More
              title="Other ratings with a trailer"
              filled={
                rig.vehicle?.ratings?.gvwr_towing != null ||
                rig.vehicle?.ratings?.gawr_rear_towing != null ||
                rig.vehicle?.frontal_area != null ||
                Boolean(rig.vehicle?.tongue_table?.length)
              }
            >
              <Field
                path="vehicle.ratings.gvwr_towing"
                label={`${t("gvwr")} while towing`}
                hint="only where the maker grants more: in Europe often 100 kg"
                unit={mass}
                sourced
              />
              <Field
                path="vehicle.ratings.gawr_rear_towing"
                label={`${t("gawr_rear")} while towing`}
                hint="only where the maker grants more: in Europe up to 15 %"
                unit={mass}
                sourced
              />
              <Field
                path="vehicle.frontal_area"
                label="Trailer's frontal area, at most"
                hint={rig.units.mass === "lb" ? "square feet" : "square metres"}
                sourced
              />
              <MakersTable
                path="vehicle.tongue_table"
                rows={rig.vehicle?.tongue_table ?? []}
                columns={[
                  ["load", mass],
                  ["tongue", mass],
                ]}
                title={`By the maker, with this carried in the vehicle: ${t("tongue_weight")}`}
                link={`the maker's table, where the ${t("tongue_weight")} allowed falls with the load`}
                label={`What the vehicle carries itself, at most, and the ${t("tongue_weight")} allowed with it`}
                example={"400 350\n600 250\n750 120"}
              />
            </More>
          )}
          <More title="Which row was read" filled={Boolean(rig.vehicle?.guide)}>
            {GUIDE.map(([key, label]) => (
              <Field key={key} path={`vehicle.guide.${key}`} label={label} mode="text" />
            ))}
            <GuideLookup />
          </More>
          <More title="What it says of weight distribution" filled={Boolean(rule)}>
            <ChoiceLine label="The maker">
              <Choice
                label="Weight distribution, says the maker"
                value={rule?.rule ?? ""}
                options={[
                  ["required", "requires it"],
                  ["allowed", "allows it"],
                  ["forbidden", "forbids it"],
                ]}
                onChange={(value) =>
                  change(
                    [{ path: "vehicle.distribution", op: "set", value: { ...rule, rule: value } }],
                    "weight distribution",
                  )
                }
              />
            </ChoiceLine>
            {rule?.rule === "required" && (
              <Field path="vehicle.distribution.above" label="For trailers above" unit={mass} sourced />
            )}
          </More>
        </Plate>
      )}
      <Plate title="The vehicle itself" sign="measure">
        <Field path="vehicle.name" label="What you call it" mode="text" />
        <ChoiceLine label="It is a">
          <Choice
            label="Kind of vehicle"
            value={evaluation.geometry.body as (typeof BODIES)[number][0]}
            options={BODIES}
            onChange={(value) => change([{ path: "vehicle.body", op: "set", value }], "kind of vehicle")}
          />
        </ChoiceLine>
        <Field
          path="vehicle.curb_weight"
          label={t("curb_weight")}
          hint="empty, full fluids, with all permanent equipment"
          unit={mass}
          sourced
          term="curb_weight"
        />
        <Field path="vehicle.geometry.wheelbase" label="Wheelbase" unit={length} sourced />
        {towing && (
          <>
            <Field
              path="vehicle.geometry.hitch_offset"
              label="Rear axle to hitch point"
              hint="minus when ahead of the axle"
              unit={length}
              sourced
            />
            {rig.kind === "slide_in" && (
              <>
                <Field
                  path="vehicle.camper_zone[0]"
                  label="Camper's centre of mass, from"
                  hint="the truck's camper label"
                  unit={length}
                  sourced
                />
                <Field path="vehicle.camper_zone[1]" label="to" unit={length} sourced />
                <Field
                  path="vehicle.camper_centre"
                  label="Where the camper has it"
                  hint="the camper's label, from the same mark"
                  unit={length}
                  sourced
                />
              </>
            )}
            <Field path="vehicle.mirror_span" label="Mirror to mirror" hint="outer edges" unit={length} sourced />
            <ChoiceLine label="Air bags or self-levelling" hint="no rating changes with them">
              <Choice
                label="Air bags or self-levelling"
                value={rig.vehicle?.self_levelling ? "yes" : "no"}
                options={[
                  ["yes", "fitted"],
                  ["no", "none"],
                ]}
                onChange={(value) =>
                  change([{ path: "vehicle.self_levelling", op: "set", value: value === "yes" }], "self-levelling")
                }
              />
            </ChoiceLine>
          </>
        )}
      </Plate>
    </>
  );
}
