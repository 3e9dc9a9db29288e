import type { ItemEffect } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Field } from "../ui/Field";

const signed = (value: number) => `${value < 0 ? "−" : "+"}${mass(Math.abs(value))}`;

/** The things in one place, with what each does to the axles and the tongue. */
export function Items({ on, title }: { on: "vehicle" | "trailer"; title: string }) {
  const { rig, sheet, evaluation, change } = useDesk();
  const loads = rig.loads ?? [];
  const here = loads.flatMap((load, index) => (load.on === on ? [{ load, index }] : []));
  const effect = (index: number) => sheet.pack.items.find((item) => item.index === index);
  const total = on === "vehicle" ? sheet.pack.on_vehicle : sheet.pack.on_trailer;
  const unit = rig.units.mass;
  const other = on === "vehicle" ? "trailer" : "vehicle";
  const link = "font-cond text-[14px] underline underline-offset-2";
  return (
    <section aria-label={title} className="mb-6">
      <h2 className="flex items-baseline justify-between border-b border-ink font-cond text-[20px] font-semibold">
        {title}
        <span data-total={on}>
          {mass(total)} <span className="text-[14px] font-normal">{unit}</span>
        </span>
      </h2>
      {here.length === 0 && <p className="py-2 text-[15px] text-soft">Nothing listed yet.</p>}
      {here.map(({ load, index }) => (
        <details key={index} className="border-b border-rule py-1" data-load={index}>
          <summary className="cursor-pointer">
            <span className="inline-flex w-[calc(100%-1.2rem)] items-baseline justify-between gap-3">
              <span className="min-w-0 truncate text-[16px]">
                {(load.quantity ?? 1) !== 1 && `${load.quantity} × `}
                {load.name || "item"}
              </span>
              <span className="whitespace-nowrap">
                <Effects effect={effect(index)} />
                <span className="ml-3 inline-block w-14 text-right font-cond text-[18px] font-semibold">
                  {mass(effect(index)?.mass ?? 0)}
                </span>
              </span>
            </span>
          </summary>
          <Field path={`loads[${index}].name`} label="What" mode="text" />
          <Field path={`loads[${index}].mass`} label="Mass of one" unit={unit} sourced />
          <Field path={`loads[${index}].quantity`} label="How many" hint="0 leaves it at home" />
          <Field
            path={`loads[${index}].position`}
            label={on === "vehicle" ? "Behind the front axle" : "Behind the coupler"}
            unit={evaluation.length}
          />
          <p className="flex gap-4 py-1">
            {evaluation.towing && (
              <button
                type="button"
                className={link}
                onClick={() =>
                  change(
                    [
                      { path: `loads[${index}].on`, op: "set", value: other },
                      { path: `loads[${index}].position`, op: "type", text: "" },
                    ],
                    `${load.name} into the ${other}`,
                  )
                }
              >
                into the {other}
              </button>
            )}
            <button
              type="button"
              className={link}
              onClick={() => change([{ path: `loads[${index}]`, op: "remove" }], `take out ${load.name}`)}
            >
              take it off the list
            </button>
          </p>
        </details>
      ))}
    </section>
  );
}

function Effects({ effect }: { effect: ItemEffect | undefined }) {
  if (!effect || effect.rear === null) return <span className="text-[13px] text-soft">no place yet</span>;
  return (
    <span className="font-cond text-[14px] text-soft">
      {effect.tongue !== null && `tongue ${signed(effect.tongue)} · `}rear {signed(effect.rear)}
    </span>
  );
}
