import { useState } from "react";
import type { Category, ItemEffect } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { CATEGORIES } from "./AddItems";

const signed = (value: number) => `${value < 0 ? "−" : "+"}${mass(Math.abs(value))}`;

/** So many are listed at once; the rest on demand, for lists of thousands. */
const AT_ONCE = 80;

/** The items in one place, with what each does to the axles and the tongue. */
export function Items({ on, title }: { on: "vehicle" | "trailer"; title: string }) {
  const { rig, sheet } = useDesk();
  const [most, setMost] = useState(AT_ONCE);
  const loads = rig.loads ?? [];
  const here = loads.flatMap((load, index) => (load.on === on ? [{ load, index }] : []));
  const total = on === "vehicle" ? sheet.pack.on_vehicle : sheet.pack.on_trailer;
  const unit = rig.units.mass;
  return (
    <section aria-label={title} className="mb-6">
      <h2 className="flex items-baseline justify-between border-b border-ink font-cond text-[1.25rem] font-semibold">
        {title}
        <span data-total={on} aria-live="polite">
          {mass(total)} <span className="text-[0.875rem] font-normal">{unit}</span>
        </span>
      </h2>
      {here.length === 0 && <p className="py-2 text-[0.9375rem] text-soft">Nothing listed yet.</p>}
      {here.slice(0, most).map(({ load, index }) => (
        <Item key={load.id} index={index} on={on} name={load.name || "item"} />
      ))}
      {here.length > most && (
        <button type="button" className="mt-1 underline" onClick={() => setMost(most + 400)}>
          {(here.length - most).toLocaleString("en-US")} more are listed: show some
        </button>
      )}
    </section>
  );
}

function Item({ index, on, name }: { index: number; on: "vehicle" | "trailer"; name: string }) {
  const { rig, sheet, evaluation, change } = useDesk();
  const [open, setOpen] = useState(false);
  const load = rig.loads?.[index];
  const effect = sheet.pack.items.find((item) => item.index === index);
  if (!load) return null;
  const unit = rig.units.mass;
  const other = on === "vehicle" ? "trailer" : "vehicle";
  const aboard = load.aboard ?? true;
  const link = "font-cond text-[0.875rem] underline underline-offset-2";
  return (
    <details
      className="border-b border-rule py-1"
      data-load={index}
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer">
        <span className="inline-flex w-[calc(100%-1.2rem)] items-baseline justify-between gap-3">
          <span className={`min-w-0 truncate text-[1rem] ${aboard ? "" : "text-soft line-through"}`}>
            {(load.quantity ?? 1) !== 1 && `${load.quantity} × `}
            {name}
          </span>
          <span className="whitespace-nowrap">
            {aboard ? (
              <Effects effect={effect} on={on} />
            ) : (
              <span className="text-[0.8125rem] text-soft">stays at home</span>
            )}
            <span className="ml-3 inline-block w-14 text-right font-cond text-[1.125rem] font-semibold">
              {mass(effect?.mass ?? 0)}
            </span>
          </span>
        </span>
      </summary>
      {open && (
        <>
          {effect?.takes && aboard && <p className="text-[0.8125rem] text-soft">It takes {effect.takes}.</p>}
          <Field path={`loads[${index}].name`} label="What" mode="text" />
          <Field path={`loads[${index}].mass`} label="Mass of one" unit={unit} sourced />
          <Field path={`loads[${index}].quantity`} label="How many" />
          <Field
            path={`loads[${index}].position`}
            label={on === "vehicle" ? "Behind the front axle" : "Behind the coupler"}
            unit={evaluation.length}
          />
          <Field
            path={`loads[${index}].side`}
            label="Right of the middle"
            hint="minus: to the left"
            unit={evaluation.length}
          />
          <Field path={`loads[${index}].height`} label="Above the floor" unit={evaluation.length} />
          <Field
            path={`loads[${index}].secured`}
            label="Secured by"
            hint="a line before it rolls: “two straps to the rear rings”"
            mode="text"
          />
          <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5">
            <span className="text-[0.9375rem]">It is</span>
            <Choice
              label={`Category of ${name}`}
              value={load.category ?? ""}
              options={CATEGORIES}
              onChange={(value: Category) =>
                change([{ path: `loads[${index}].category`, op: "set", value }], `category of ${name}`)
              }
            />
          </div>
          <div className="flex flex-wrap gap-4 py-1">
            <button
              type="button"
              className={link}
              onClick={() =>
                change(
                  [{ path: `loads[${index}].aboard`, op: "set", value: aboard ? false : null }],
                  aboard ? `${name} stays at home` : `${name} comes along`,
                )
              }
            >
              {aboard ? "leave it at home this time" : "take it along"}
            </button>
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
                    `${name} into the ${other}`,
                  )
                }
              >
                into the {other}
              </button>
            )}
            <button
              type="button"
              className={link}
              onClick={() => change([{ path: `loads[${index}]`, op: "remove" }], `take out ${name}`)}
            >
              take it off the list
            </button>
          </div>
        </>
      )}
    </details>
  );
}

function Effects({ effect, on }: { effect: ItemEffect | undefined; on: "vehicle" | "trailer" }) {
  const { evaluation } = useDesk();
  if (!effect || effect.rear === null) return <span className="text-[0.8125rem] text-soft">no place yet</span>;
  return (
    <span className="font-cond text-[0.875rem] text-soft">
      {on === "trailer" && effect.tongue !== null && `${evaluation.terms.tongue} ${signed(effect.tongue)} · `}
      rear {signed(effect.rear)}
    </span>
  );
}
