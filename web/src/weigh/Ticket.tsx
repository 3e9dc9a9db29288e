import { useId, useState } from "react";
import type { Change, Pass } from "../api/client";
import { at } from "../api/identity";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { AdvisoryNote } from "../ui/AdvisoryNote";
import { Choice } from "../ui/controls";
import { enterMovesOn, Field, useField } from "../ui/Field";
import { TermMark } from "../ui/Glossary";
import { PasteText } from "../ui/Paste";
import { ReadPhoto } from "../ui/ReadPhoto";
import { Corrections } from "./Corrections";
import { keepText } from "./kept";
import { type Grain, grainOf, type Lit, litBy, namesFor, titleOf, wordsFor } from "./readings";

/** One pass as its paper slip: what to do, each platform, the printed gross as a cross-check. */
export function Ticket(props: {
  weighIn: number;
  index: number;
  pass: Pass;
  /** How the ticket in the hand reads, where that was said before anything is typed. */
  grain?: Grain | undefined;
  onLit: (lit: Lit) => void;
}) {
  const { weighIn, index, pass, onLit } = props;
  const { rig, sheet, change, evaluation, field } = useDesk();
  const path = `weigh_ins[${weighIn - 1}].passes[${index}]`;
  const answer = evaluation.passes[index];
  const title = titleOf(answer);
  const unit = pass.unit ?? rig.units.mass;
  const waiting = sheet.fields
    .filter((field) => field.path.startsWith(`${path}.readings.`))
    .map((field) => field.path.slice(path.length + 10));
  const used = [...Object.keys(pass.readings ?? {}), ...waiting];
  const [chosen, setChosen] = useState<Grain | null>(null);
  const [aside, setAside] = useReadingsAside(pass.id ?? path);
  const typedAt = (name: string) =>
    field(`${path}.readings.${name}`)?.entry.text ?? String(at(rig, `${path}.readings.${name}`) ?? "");
  const scaleKind = rig.weigh_ins?.[weighIn - 1]?.scale?.kind;
  const usual = grainOf(used, scaleKind, evaluation.geometry.trailer_axles);
  const grain = chosen ?? (used.length === 0 && props.grain ? props.grain : usual);
  const names = namesFor(pass.config, grain, evaluation.geometry.trailer_axles);
  const said = evaluation.advisories.filter((each) => each.path?.startsWith(path));
  const rest = said.filter((each) => !each.path?.includes(".readings.") && !each.path?.endsWith("printed_gross"));

  const setGrain = (wanted: Grain) => {
    const keep = new Set(namesFor(pass.config, wanted, evaluation.geometry.trailer_axles));
    const gone = used.filter((name) => !keep.has(name));
    const back = Object.keys(aside).filter((name) => keep.has(name) && !used.includes(name));
    const type = (name: string, text: string): Change => ({ path: `${path}.readings.${name}`, op: "type", text });
    const changes = [...gone.map((name) => type(name, "")), ...back.map((name) => type(name, aside[name] ?? ""))];
    setAside({
      ...Object.fromEntries(Object.entries(aside).filter(([name]) => !back.includes(name))),
      ...Object.fromEntries(gone.map((name) => [name, typedAt(name)])),
    });
    if (changes.length) change(changes, `read ${title.toLowerCase()} ${GRAIN_WORDS[wanted]}`);
    setChosen(wanted);
  };
  const keptAside = Object.entries(aside).filter(([name]) => !used.includes(name));

  return (
    <section aria-label={`Pass ${index + 1}: ${title}`} className="border border-ink bg-card" data-pass={index + 1}>
      <header className="flex items-start justify-between gap-2 border-b border-dashed border-ink px-3 py-2">
        <div>
          <p className="font-cond text-[0.875rem] leading-none text-soft">pass {index + 1}</p>
          <h2 className="font-cond text-[1.375rem] leading-tight font-semibold">{title}</h2>
        </div>
        <Choice
          label={`Unit of pass ${index + 1}`}
          value={unit}
          options={[
            ["lb", "lb"],
            ["kg", "kg"],
          ]}
          onChange={(value) => change([{ path: `${path}.unit`, op: "set", value }], "unit of a ticket")}
        />
      </header>
      <div className="px-3 py-2">
        <p className="mb-2 text-[0.875rem] leading-snug text-soft">{answer?.instruction}</p>
        {answer && !answer.counts && (
          <p className="mb-2 border-l-4 border-ochre pl-2 text-[0.875rem]">
            A later pass of the same kind counts instead of this one.
          </p>
        )}
        {pass.config === "hitched" && rig.hitch?.weight_distribution && (
          <div className="mb-2 flex items-center gap-1">
            <div className="min-w-0 flex-1">
              <Choice
                wide
                label={`Spring bars at pass ${index + 1}`}
                value={pass.spring_bars ?? "none"}
                options={[
                  ["engaged", "bars engaged"],
                  ["slack", "slack"],
                  ["none", "none"],
                ]}
                onChange={(value) =>
                  change([{ path: `${path}.spring_bars`, op: "set", value }], "spring bars at a pass")
                }
              />
            </div>
            <TermMark
              term={pass.spring_bars === "slack" ? "bars_slack" : "bars_engaged"}
              name={pass.spring_bars === "slack" ? "bars slack" : "bars engaged"}
            />
          </div>
        )}
        {names.map((name, number) => (
          <Platform
            key={name}
            path={`${path}.readings.${name}`}
            label={wordsFor(name)}
            platform={grain === "axles" ? number + 1 : null}
            unit={unit}
            marked={said.some((each) => each.level === "warning" && each.path === `${path}.readings.${name}`)}
            onLit={(on) => onLit(on ? litBy(name) : null)}
          />
        ))}
        {keptAside.length > 0 && (
          <p className="mb-2 border-l-4 border-rule pl-2 text-[0.875rem] leading-snug" data-part="kept-aside">
            Kept aside, not counted: {keptAside.map(([name, text]) => `${wordsFor(name)} ${text}`).join(" · ")}. Change
            back and they are here again.
          </p>
        )}
        <p className="flex justify-between pt-1.5 text-[0.9375rem]">
          <span className="text-soft">Platforms add up to</span>
          <span className="font-cond text-[1.125rem] font-semibold" data-part="sum">
            {answer && answer.total !== null ? `${mass(answer.total)} ${unit}` : "–"}
          </span>
        </p>
        <Field path={`${path}.printed_gross`} label="Gross printed on the ticket" unit={unit} />
        <Field path={`${path}.ticket_number`} label="Ticket number" mode="text" />
        <div className="flex flex-wrap items-center gap-x-4">
          <ReadPhoto
            about="ticket"
            label={`Ticket ${index + 1}`}
            reads={{ part: "pass", into: path }}
            weighIn={rig.weigh_ins?.[weighIn - 1]?.id ?? undefined}
          />
          <PasteText into={path} />
        </div>
        <details className="border-b border-rule py-1.5">
          <summary className="cursor-pointer font-cond text-[0.9375rem]">more of this ticket</summary>
          <Field path={`${path}.time`} label="Time" mode="text" />
          <Field path={`${path}.fee`} label="Fee" mode="text" />
          <Field path={`${path}.aboard`} label="Who was aboard" mode="text" />
          <Field path={`${path}.fuel`} label="Fuel level" mode="text" />
          <Field path={`${path}.note`} label="Note" mode="text" />
        </details>
        {said
          .filter((each) => each.level === "warning" || each.accepted || rest.includes(each))
          .map((each) => (
            <div key={each.code + each.path} className="mt-2">
              <AdvisoryNote advisory={each} />
            </div>
          ))}
        {pass.config !== "trailer_only" && (
          <div className="mt-2">
            <Corrections path={path} pass={pass} unit={unit} />
          </div>
        )}
        <div className="mt-2 flex flex-wrap items-center justify-between gap-2 border-t border-rule pt-2">
          {pass.config !== "vehicle_empty" && (
            <GrainMenu grain={grain} trailer={pass.config !== "vehicle_only"} onChange={setGrain} />
          )}
          <button
            type="button"
            className="font-cond text-[0.875rem] underline underline-offset-2"
            onClick={() => change([{ path, op: "remove" }], `take out pass ${index + 1}`)}
          >
            take this pass out
          </button>
        </div>
      </div>
    </section>
  );
}

const GRAIN_WORDS: Record<Grain, string> = {
  axles: "by axle",
  singly: "with the trailer's axles singly",
  wheels: "by wheel",
  vehicle: "as front axle and whole vehicle",
  gross: "as one total",
};

/** Readings that another way of reading the ticket left out: kept in this browser, as typed. */
function useReadingsAside(pass: string) {
  const key = `noxel.readings.${pass}`;
  const [aside, setAside] = useState<Record<string, string>>(() => JSON.parse(localStorage.getItem(key) ?? "{}"));
  const keep = (readings: Record<string, string>) => {
    setAside(readings);
    if (Object.keys(readings).length) keepText(key, JSON.stringify(readings));
    else localStorage.removeItem(key);
  };
  return [aside, keep] as const;
}

function GrainMenu({ grain, trailer, onChange }: { grain: Grain; trailer: boolean; onChange: (grain: Grain) => void }) {
  const all: readonly (readonly [Grain, string])[] = [
    ["axles", "by axle"],
    ...(trailer ? ([["singly", "trailer axles singly"]] as const) : []),
    ["wheels", "by wheel"],
    ["vehicle", "front axle, then the whole vehicle"],
    ["gross", "one total only"],
  ];
  return (
    <label className="font-cond text-[0.875rem]">
      read{" "}
      <select
        value={grain}
        onChange={(event) => onChange(event.currentTarget.value as Grain)}
        className="h-8 border border-edge bg-card px-1 text-ink"
      >
        {all.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    </label>
  );
}

/** One platform's reading: big enough to type by thumb, what is wrong right below it. */
function Platform(props: {
  path: string;
  label: string;
  platform: number | null;
  unit: string;
  /** Whether a warning about this reading stands below. */
  marked: boolean;
  onLit: (on: boolean) => void;
}) {
  const { path, label, platform, unit, marked, onLit } = props;
  const id = useId();
  const { text, problem, understood, focus, edit, blur } = useField(path, label);
  const said = problem;
  return (
    <div className="mb-2">
      <div
        className={`flex h-[54px] items-center border bg-paper px-3 focus-within:border-2 focus-within:border-ink ${problem ? "border-dashed border-ink" : marked ? "border-l-4 border-ochre" : "border-rule"}`}
      >
        <label htmlFor={id} className="flex-1 text-[0.9375rem] leading-tight">
          {platform !== null && <span className="block font-cond text-[0.8125rem] text-soft">platform {platform}</span>}
          {label}
        </label>
        <input
          id={id}
          value={text}
          data-path={path}
          inputMode="decimal"
          autoComplete="off"
          placeholder="–"
          aria-invalid={problem !== null}
          aria-describedby={said ? `${id}-said` : undefined}
          className="h-full w-32 min-w-0 bg-transparent text-right font-cond text-[1.875rem] font-semibold outline-none placeholder:text-rule"
          onFocus={(event) => {
            onLit(true);
            focus(event.currentTarget);
          }}
          onChange={(event) => edit(event.currentTarget.value)}
          onBlur={() => {
            onLit(false);
            blur();
          }}
          onKeyDown={enterMovesOn}
        />
        <span className="w-8 pl-1.5 text-[0.875rem] text-soft">{unit}</span>
      </div>
      {said && (
        <p id={`${id}-said`} className="mt-1 border-l-4 border-ochre pl-2 text-[0.875rem] leading-snug">
          {said}
        </p>
      )}
      {!said && understood && (
        <p className="mt-0.5 text-[0.8125rem] text-soft">
          understood as {understood} {unit}
        </p>
      )}
    </div>
  );
}
