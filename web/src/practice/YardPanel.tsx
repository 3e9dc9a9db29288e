import { useState } from "react";
import { Button } from "../ui/controls";
import { YardDrawing } from "./YardDrawing";
import type { Yard } from "./yard";

const GROUPS = [
  ["drive", "Drive"],
  ["scale", "Scale"],
  ["couple", "Couple"],
  ["ball", "Ball"],
  ["tongue", "Hitch"],
  ["people", "People"],
] as const;

/** The yard: what stands in it, what can be done, the tickets, the things aboard, and at last the truth. */
export function YardPanel({ yard, onAct }: { yard: Yard; onAct: (act: string) => void }) {
  return (
    <section aria-label="The yard">
      <YardDrawing yard={yard} />
      {yard.acts.length > 0 && (
        <div className="no-print mt-1 flex flex-wrap items-start gap-x-5 gap-y-2 border-t border-rule pt-3">
          {GROUPS.map(([group, name]) => {
            const acts = yard.acts.filter((each) => each.group === group);
            return acts.length === 0 ? null : (
              <fieldset key={group} className="min-w-0">
                <legend className="text-[0.8125rem] leading-tight text-soft">{name}</legend>
                <div className="mt-0.5 flex flex-wrap gap-1.5">
                  {acts.map((each) => (
                    <Button
                      key={each.act}
                      className="min-h-11 px-2.5 text-[1rem]"
                      data-act={each.act}
                      title={`${each.minutes} min`}
                      onClick={() => onAct(each.act)}
                    >
                      {each.label}
                    </Button>
                  ))}
                </div>
              </fieldset>
            );
          })}
        </div>
      )}
      {(yard.acts.length > 0 || yard.refused) && (
        <p
          role={yard.refused ? "alert" : "status"}
          data-part="said"
          className={`mt-3 pl-3 text-[1.0625rem] leading-snug ${yard.refused ? "border-l-4 border-vermilion font-semibold" : "border-l-4 border-rule"}`}
        >
          {yard.refused ?? yard.said}
        </p>
      )}
      {yard.readings.length > 0 && (
        <ul className="mt-2 text-[1rem] leading-snug">
          {yard.readings.map((line, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: readings stay in their order
            <li key={at} className="border-l-4 border-spruce pl-3">
              {line}
            </li>
          ))}
        </ul>
      )}
      {yard.tickets.length > 0 && <Tickets yard={yard} />}
      {yard.items.length > 0 && <Aboard yard={yard} onAct={onAct} />}
      {yard.truth && <Truth yard={yard} />}
    </section>
  );
}

function Tickets({ yard }: { yard: Yard }) {
  return (
    <ul className="mt-4 flex flex-wrap gap-3">
      {yard.tickets.map((each) => (
        <li
          key={each.number}
          data-ticket={each.number}
          className={`w-[11.5rem] border bg-card px-3 py-2 ${each.earlier ? "border-dotted border-edge" : "border-ink"}`}
        >
          <p className="border-b border-dashed border-edge pb-1 font-cond text-[1.0625rem] leading-tight font-semibold">
            {each.title}
            <span className="block text-[0.8125rem] font-normal text-soft">
              {each.number} · {each.kind}
            </span>
          </p>
          <dl className="mt-1">
            {each.lines.map(([name, value]) => (
              <Row key={name as string} label={name as string} value={(value as number).toLocaleString("en-US")} />
            ))}
            <Row label="gross" value={each.gross.toLocaleString("en-US")} />
          </dl>
        </li>
      ))}
    </ul>
  );
}

export const Row = ({ label, value, op = "" }: { label: string; value: string; op?: string }) => (
  <div className="flex items-baseline justify-between gap-3">
    <dt className="text-[0.9375rem] leading-snug text-soft">
      {op && <span aria-hidden="true">{op} </span>}
      {label}
    </dt>
    <dd className="font-cond text-[1.1875rem] leading-snug font-semibold whitespace-nowrap">{value}</dd>
  </div>
);

/** What lies aboard: each can be moved a step, put into the other vehicle, or left behind. */
function Aboard({ yard, onAct }: { yard: Yard; onAct: (act: string) => void }) {
  const [open, setOpen] = useState<number | null>(null);
  const feet = yard.unit === "lb";
  const to = (each: Yard["items"][number], by: number) =>
    `move:${each.index}:${Math.round(((each.metres ?? 0) + by) * 100)}`;
  const other = (each: Yard["items"][number]) =>
    `swap:${each.index}:${Math.round((each.on === "trailer" ? yard.geometry.wheelbase : yard.geometry.coupler_to_axles) * 100)}`;
  return (
    <div className="no-print mt-4 border-t border-rule pt-3">
      <h2 className="font-cond text-[1.1875rem] font-semibold">Aboard</h2>
      <ul>
        {yard.items
          .filter((each) => !each.person)
          .map((each) => (
            <li key={each.index} className="border-b border-rule">
              <button
                type="button"
                aria-expanded={open === each.index}
                className="flex min-h-11 w-full flex-wrap items-baseline gap-x-3 py-1 text-left"
                onClick={() => setOpen(open === each.index ? null : each.index)}
              >
                <span className={`text-[1.0625rem] ${each.aboard ? "" : "text-soft line-through"}`}>{each.name}</span>
                <span className="font-cond text-[1.0625rem] font-semibold">
                  {Math.round(each.mass).toLocaleString("en-US")} {yard.unit}
                </span>
                <span className="text-[0.875rem] text-soft">{each.aboard ? each.place : "left behind"}</span>
              </button>
              {open === each.index && (
                <div className="flex flex-wrap gap-1.5 pb-2">
                  {each.aboard ? (
                    <>
                      <Button onClick={() => onAct(to(each, -0.5))}>Forward {feet ? "20 in" : "50 cm"}</Button>
                      <Button onClick={() => onAct(to(each, 0.5))}>Back {feet ? "20 in" : "50 cm"}</Button>
                      {yard.trailer && (
                        <Button onClick={() => onAct(other(each))}>
                          {each.on === "trailer"
                            ? "Into the vehicle, over the rear axle"
                            : "Into the trailer, over its axles"}
                        </Button>
                      )}
                      <Button onClick={() => onAct(`drop:${each.index}`)}>Leave it behind</Button>
                    </>
                  ) : (
                    <Button onClick={() => onAct(`take:${each.index}`)}>Take it along again</Button>
                  )}
                </div>
              )}
            </li>
          ))}
        {yard.tanks.map((each) => (
          <li
            key={`tank ${each.index}`}
            className="flex min-h-11 flex-wrap items-center gap-x-3 border-b border-rule py-1"
          >
            <span className="text-[1.0625rem]">{each.name}</span>
            <span className="font-cond text-[1.0625rem] font-semibold">{each.level} %</span>
            <span className="flex-1" />
            <Button disabled={each.level === 0} onClick={() => onAct(`tank:${each.index}:0`)}>
              Drain
            </Button>
            <Button disabled={each.level === 100} onClick={() => onAct(`tank:${each.index}:100`)}>
              Fill
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The hidden loads, beside what the tickets could tell of them. */
function Truth({ yard }: { yard: Yard }) {
  const text = (value: number | null) => (value === null ? "?" : Math.round(value).toLocaleString("en-US"));
  return (
    <table data-part="truth" className="mt-4 w-full max-w-xl border-t-2 border-ink text-left">
      <caption className="py-1 text-left font-cond text-[1.1875rem] font-semibold">What the true loads are</caption>
      <thead className="text-[0.875rem] text-soft">
        <tr>
          <th scope="col" className="font-normal">
            {yard.unit}
          </th>
          <th scope="col" className="text-right font-normal">
            true
          </th>
          <th scope="col" className="text-right font-normal">
            by the tickets
          </th>
        </tr>
      </thead>
      <tbody>
        {yard.truth?.map((each) => (
          <tr key={each.label} className="border-t border-rule">
            <th scope="row" className="text-[1rem] leading-tight font-normal">
              {each.label}
            </th>
            <td className="text-right font-cond text-[1.1875rem] font-semibold">{text(each.true)}</td>
            <td className="text-right font-cond text-[1.0625rem]">
              {each.known === null ? "not known" : `${text(each.known)} ± ${text(each.plus_minus)}`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
