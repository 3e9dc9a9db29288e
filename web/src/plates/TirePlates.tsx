import type { TireAnswer } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass as massText } from "../format";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { MakersTable } from "./MakersTable";
import { ChoiceLine, More, Plate } from "./Plate";

const SETS = [
  { group: "front", path: "vehicle.tires.front", title: "Front tires" },
  { group: "rear", path: "vehicle.tires.rear", title: "Rear tires" },
  { group: "trailer", path: "trailer.tires", title: "Trailer tires" },
] as const;
type Tires = (typeof SETS)[number]["path"];

/** The tires, axle by axle: sidewall, placard, pressure, and the weakest part between load and road. */
export function TirePlates() {
  const { rig, sheet } = useDesk();
  return (
    <div className="items-start gap-5 md:grid md:grid-cols-2 lg:grid-cols-3">
      {SETS.filter(({ group }) => group !== "trailer" || rig.trailer).map(({ group, path, title }) => (
        <TirePlate
          key={path}
          path={path}
          title={title}
          answer={sheet.plates.tires.find((each) => each.group === group)}
        />
      ))}
    </div>
  );
}

function TirePlate({ path, title, answer }: { path: Tires; title: string; answer: TireAnswer | undefined }) {
  const { rig, sheet, change } = useDesk();
  const unit = rig.units.mass;
  const pressure = sheet.plates.pressure_unit;
  const tires =
    path === "trailer.tires" ? rig.trailer?.tires : rig.vehicle?.tires?.[path.endsWith("front") ? "front" : "rear"];
  const passenger = rig.vehicle?.body === "wagon" && path !== "trailer.tires";
  return (
    <Plate
      title={title}
      sign="sidewall"
      part={path}
      photos={`tires, ${path.split(".").at(-1) === "tires" ? "trailer" : path.split(".").at(-1)}`}
    >
      <Field
        path={`${path}.count`}
        label="How many"
        hint={path === "trailer.tires" ? "all axles" : "four on dual wheels"}
        sourced
      />
      <Field
        path={`${path}.max_load`}
        label="Most that one may carry"
        hint="as fitted: single, or the dual figure"
        unit={unit}
        sourced
      />
      <Field path={`${path}.load_index`} label="Load index" hint="such as 121/118; used where no load is typed" />
      <Field
        path={`${path}.date_code`}
        label="Date code"
        hint={answer?.made ?? "last four, such as 2319: week, year"}
        sourced
      />
      <More title="Size, range, wheels, axle" filled={Boolean(tires?.size || tires?.wheel || tires?.assembly)}>
        <Field path={`${path}.size`} label="Size" mode="text" />
        <Field path={`${path}.load_range`} label="Load range" mode="text" />
        <Field path={`${path}.max_speed`} label="Made for, at most" hint={rig.units.mass === "lb" ? "mph" : "km/h"} />
        {!passenger && (
          <ChoiceLine label="Passenger-car tire" hint="its size has a P, or none of LT, ST and C">
            <Choice
              label={`${title}: passenger-car tire`}
              value={answer?.p_metric ? "yes" : "no"}
              options={[
                ["yes", "yes, ÷ 1.10"],
                ["no", "no"],
              ]}
              onChange={(value) =>
                change([{ path: `${path}.p_metric`, op: "set", value: value === "yes" }], "P-metric")
              }
            />
          </ChoiceLine>
        )}
        <Field path={`${path}.placard_load_index`} label="Load index on the placard" sourced />
        <Field path={`${path}.wheel`} label="One wheel's rating" unit={unit} sourced />
        <Field
          path={`${path}.assembly`}
          label="One axle's own rating"
          hint="assembly, without wheels"
          unit={unit}
          sourced
        />
      </More>
      <More
        title="Pressures, cold"
        filled={Boolean(tires?.placard_pressure || tires?.pressure || tires?.table?.length)}
      >
        <Field path={`${path}.placard_pressure`} label="Placard asks for" unit={pressure} sourced />
        <Field path={`${path}.sidewall_pressure`} label="Sidewall, at most" unit={pressure} sourced />
        <Field path={`${path}.pressure`} label="Set" unit={pressure} sourced />
        <MakersTable
          path={`${path}.table`}
          rows={tires?.table ?? []}
          columns={[
            ["pressure", pressure],
            ["load", unit],
          ]}
          title="The tire maker's table: pressure, load of one tire"
          link="the tire maker's own table"
          label="A pressure and the load of one tire a line, from the tire maker's own table"
          example={"50 2200\n65 2700\n80 3200"}
        />
      </More>
      {answer && (answer.parts.length > 1 || answer.says.length > 0) && (
        <div className="pt-2" data-tires={path}>
          {answer.parts.length > 1 && <Parts parts={answer.parts} unit={unit} />}
          {answer.says.map((line) => (
            <p key={line} className="mt-1 border-l-4 border-rule pl-2 text-[0.875rem] leading-snug">
              {line}
            </p>
          ))}
        </div>
      )}
    </Plate>
  );
}

/** What each part between load and road carries, as bars on one scale; the shortest counts. */
function Parts({ parts, unit }: { parts: TireAnswer["parts"]; unit: string }) {
  const most = Math.max(...parts.map((part) => part.rating));
  return (
    <ul>
      {parts.map((part) => (
        <li key={part.name} className="grid grid-cols-[6.5rem_1fr_7.2rem] items-center gap-2 text-[0.875rem]">
          <span>{part.name}</span>
          <span
            className={`h-2.5 border border-ink ${part.weakest ? "weakest" : "bg-spruce"}`}
            style={{ width: `${Math.max(4, (part.rating / most) * 100)}%` }}
          />
          <span className="text-right font-cond text-[0.9375rem] font-semibold">
            {massText(part.rating)} {unit}
            {part.weakest && <span className="block text-[0.8125rem] leading-none font-normal">weakest</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
