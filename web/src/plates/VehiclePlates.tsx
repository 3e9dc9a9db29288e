import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { Plate } from "./Plate";
import { RatingField } from "./RatingField";
import { useTerms } from "./useTerms";

const BODIES = [
  ["pickup", "pickup"],
  ["wagon", "car"],
  ["van", "van"],
  ["motorhome", "motorhome"],
] as const;

export function VehiclePlates() {
  const { rig, change, evaluation } = useDesk();
  const t = useTerms();
  const mass = rig.units.mass;
  const length = evaluation.length;
  const towing = evaluation.towing;
  return (
    <>
      <Plate title="Certification label" where="On the driver's door frame.">
        <Field
          path="vehicle.ratings.gvwr"
          label={t("gvwr")}
          hint="loaded vehicle, tongue included"
          unit={mass}
          sourced
        />
        <Field path="vehicle.ratings.gawr_front" label={t("gawr_front")} unit={mass} sourced />
        <Field path="vehicle.ratings.gawr_rear" label={t("gawr_rear")} unit={mass} sourced />
      </Plate>
      <Plate title="Tire and loading placard" where="Beside it: “occupants and cargo should never exceed …”.">
        <Field path="vehicle.ratings.payload" label={t("payload")} unit={mass} sourced />
        <Field
          path="vehicle.ratings.payload_reduction"
          label="Taken off by an add-on label"
          hint="options fitted after it was built"
          unit={mass}
          sourced
        />
      </Plate>
      {towing && (
        <Plate title="Towing guide" where="Owner's manual or guide: the row of this engine, axle ratio, cab, drive.">
          <Field
            path="vehicle.ratings.gcwr"
            label={t("gcwr")}
            hint="vehicle and trailer together"
            unit={mass}
            sourced
          />
          <RatingField path="vehicle.ratings.tow_rating" label={t("tow_rating")} unit={mass} />
          <RatingField path="vehicle.ratings.tongue_rating" label={t("tongue_rating")} unit={mass} />
        </Plate>
      )}
      <Plate title="The vehicle itself">
        <Field path="vehicle.name" label="What you call it" mode="text" />
        <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5">
          <span className="text-[15px]">It is a</span>
          <Choice
            label="Kind of vehicle"
            value={evaluation.geometry.body as (typeof BODIES)[number][0]}
            options={BODIES}
            onChange={(value) => change([{ path: "vehicle.body", op: "set", value }], "kind of vehicle")}
          />
        </div>
        <Field
          path="vehicle.curb_weight"
          label={t("curb_weight")}
          hint="empty, full fluids, with all that is fitted for good"
          unit={mass}
          sourced
        />
        <Field path="vehicle.geometry.wheelbase" label="Wheelbase" unit={length} sourced />
        {towing && (
          <Field
            path="vehicle.geometry.hitch_offset"
            label="Rear axle to hitch point"
            hint="minus when ahead of the axle"
            unit={length}
            sourced
          />
        )}
      </Plate>
      <Plate title="Tires as fitted" where="The sidewall: the most that one tire may carry, single or dual.">
        <Field path="vehicle.tires.front.max_load" label="Front, each" unit={mass} sourced />
        <Field path="vehicle.tires.front.count" label="Front tires" />
        <Field path="vehicle.tires.rear.max_load" label="Rear, each" unit={mass} sourced />
        <Field path="vehicle.tires.rear.count" label="Rear tires" hint="four on dual wheels" />
      </Plate>
    </>
  );
}
