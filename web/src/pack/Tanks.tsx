import { useState } from "react";
import type { Phase } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Button, Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { StatusMark } from "../ui/Status";
import { fluidWord, NewTank } from "./NewTank";

const SHARES = ["empty", "¼", "½", "¾", "full"] as const;
export const PHASES = [
  ["leaving", "leaving"],
  ["half_way", "half-way"],
  ["arriving", "arriving"],
  ["heading_home", "heading home"],
] as const;

/** Tanks and their levels in each phase of the trip; the phase chosen is the one the whole page shows. */
export function Tanks() {
  const { rig, sheet, change } = useDesk();
  const [adding, setAdding] = useState(false);
  const tanks = rig.tanks ?? [];
  const phase = (rig.plan?.phase ?? "leaving") as Phase;
  return (
    <section aria-label="Tanks and the trip" className="mb-6">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">Tanks and the trip</h2>
      {tanks.length > 0 && (
        <div className="py-2">
          <Choice
            label="Phase of the trip"
            value={phase}
            options={PHASES}
            onChange={(value) =>
              change([{ path: "plan.phase", op: "set", value }], `look at ${value.replace("_", " ")}`)
            }
            wide
          />
          <Phases />
        </div>
      )}
      {tanks.map((tank, index) => (
        <TankLine key={tank.id} index={index} name={tank.name || fluidWord(tank.fluid)} phase={phase} />
      ))}
      {tanks.length === 0 && (
        <p className="py-2 text-[0.875rem] leading-snug text-soft">
          Water and fuel come and go: full fresh on the way out, full waste on the way home. Add the tanks, and every
          phase of the trip is checked.
        </p>
      )}
      {adding ? (
        <NewTank index={tanks.length} onDone={() => setAdding(false)} />
      ) : (
        <Button className="mt-2" onClick={() => setAdding(true)}>
          Add a tank
        </Button>
      )}
      {tanks.length > 0 && sheet.pack.phases.length === 0 && (
        <p className="mt-1 text-[0.875rem] text-soft">The phases are compared once the plan can be predicted.</p>
      )}
    </section>
  );
}

function Phases() {
  const { sheet } = useDesk();
  return (
    <ul className="mt-2 space-y-1" data-part="phases">
      {sheet.pack.phases.map((each) => (
        <li
          key={each.code}
          data-phase={each.code}
          data-verdict={each.verdict}
          className={`flex gap-2 text-[0.875rem] leading-snug ${each.code === sheet.pack.phase ? "" : "text-soft"}`}
        >
          <span className="mt-0.5 shrink-0">
            <StatusMark
              always
              status={
                each.verdict === "stop"
                  ? "over"
                  : each.verdict === "within"
                    ? "within"
                    : each.verdict === "caution"
                      ? "tight"
                      : "unknown"
              }
            />
          </span>
          <span>
            <b className="font-cond text-[1rem]">{each.name}</b>
            {each.worst && (
              <span className="ml-1 border border-current px-1 font-cond text-[0.8125rem]">the worst</span>
            )}
            : {each.sentence}
          </span>
        </li>
      ))}
    </ul>
  );
}

function TankLine({ index, name, phase }: { index: number; name: string; phase: Phase }) {
  const { rig, sheet, change, evaluation } = useDesk();
  const tank = rig.tanks?.[index];
  const answer = sheet.pack.tanks.find((each) => each.index === index);
  if (!tank || !answer) return null;
  const unit = rig.units.mass;
  const volume = rig.units.volume ?? (unit === "lb" ? "gal" : "l");
  const set = (level: number, gesture: boolean) =>
    change([{ path: `tanks[${index}].levels.${phase}`, op: "set", value: level }], gesture ? `level of ${name}` : name);
  return (
    <details className="border-b border-rule py-1.5" data-tank={index}>
      <summary className="cursor-pointer">
        <span className="inline-flex w-[calc(100%-1.2rem)] items-center justify-between gap-3">
          <span className="min-w-0 truncate text-[1rem]">
            {name}{" "}
            <span className="text-[0.8125rem] text-soft">
              {tank.on === "vehicle" ? "in the vehicle" : "in the trailer"}
            </span>
          </span>
          <span className="flex items-center gap-2 whitespace-nowrap">
            <Gauge level={answer.level} />
            <span className="w-14 text-right font-cond text-[1.125rem] font-semibold">{mass(answer.now)}</span>
          </span>
        </span>
      </summary>
      <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5">
        <span className="text-[0.9375rem]">{PHASES.find(([value]) => value === phase)?.[1]}</span>
        <span className="inline-flex border border-ink">
          {[0, 0.25, 0.5, 0.75, 1].map((level) => (
            <button
              key={level}
              type="button"
              aria-label={`${name}, ${phase.replace("_", " ")}: ${SHARES[level * 4]}`}
              aria-pressed={answer.level === level}
              onClick={() => set(level, true)}
              className={`min-h-9 px-2.5 font-cond text-[0.9375rem] font-semibold not-first:border-l not-first:border-ink ${answer.level === level ? "bg-ink text-paper" : "hover:bg-sunk"}`}
            >
              {SHARES[level * 4]}
            </button>
          ))}
        </span>
      </div>
      {PHASES.map(([value, title]) => (
        <Field
          key={value}
          path={`tanks[${index}].levels.${value}`}
          label={`Level, ${title}`}
          hint={`counts as ${Math.round((answer.levels[value] ?? 0) * 100)} %`}
        />
      ))}
      <Field path={`tanks[${index}].name`} label="Name" mode="text" />
      <Field path={`tanks[${index}].capacity`} label="Holds" unit={volume} sourced />
      <Field
        path={`tanks[${index}].position`}
        label={tank.on === "vehicle" ? "Behind the front axle" : "Behind the coupler"}
        unit={evaluation.length}
      />
      <Field
        path={`tanks[${index}].in_base`}
        label="Level in the base weight"
        hint="how full it was in the weights that the plan starts from"
      />
      <div className="py-1">
        <button
          type="button"
          className="font-cond text-[0.875rem] underline underline-offset-2"
          onClick={() => change([{ path: `tanks[${index}]`, op: "remove" }], `take out ${name}`)}
        >
          take it off the list
        </button>
      </div>
    </details>
  );
}

function Gauge({ level }: { level: number }) {
  return (
    <span
      className="relative inline-block h-3 w-16 border border-ink"
      role="img"
      aria-label={`${Math.round(level * 100)} % full`}
    >
      <span className="absolute inset-y-0 left-0 bg-spruce" style={{ width: `${level * 100}%` }} />
    </span>
  );
}
