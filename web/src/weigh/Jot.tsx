import { useId, useState } from "react";
import type { JottedTicket, MassUnit, Pass, ReadFigure } from "../api/client";
import { queue } from "../api/queue";
import { useDesk } from "../api/useSheet";
import { useVisitor } from "../api/visitor";
import { Button, Choice, Picks } from "../ui/controls";
import { enterMovesOn } from "../ui/Field";
import { Photos } from "../ui/Photos";
import { passKinds } from "./AddPass";
import { keepText } from "./kept";
import { namesFor, wordsFor } from "./readings";
import { visitOf } from "./visit";

type Draft = { kind: string; unit: MassUnit; texts: Record<string, string> };
const FACTS = [
  ["place", "Place"],
  ["ticket_number", "Ticket number"],
  ["time", "Time"],
  ["fee", "Fee"],
  ["note", "Note"],
] as const;

/** A ticket on this device: kept here as it is typed, sent when the computer answers. It needs no network. */
export function Jot(props: {
  /** The pass that it is of, where that is settled. */
  kind?: string | undefined;
  scale?: JottedTicket["scale"];
  /** What it usually costs, until something else is typed. */
  fee?: string;
  /** Where its photograph belongs: it can be taken here, and read. */
  photo?: { label: string; visit: string; weighIn: string | undefined };
  onKept?: () => void;
}) {
  const { kind: first, scale = "truck_scale", fee = "", photo, onKept } = props;
  const { rig, sheet, evaluation } = useDesk();
  const { viewing } = useVisitor();
  const kinds = passKinds(evaluation, rig.hitch?.weight_distribution ?? false);
  const last = rig.weigh_ins?.at(-1)?.passes?.at(-1)?.unit ?? (rig.units.mass as MassUnit);
  const key = `noxel.jot.${sheet.id}`;
  const fresh: Draft = { kind: first ?? kinds[0]?.[0] ?? "", unit: last, texts: {} };
  const [draft, setDraft] = useState<Draft>(() => {
    const kept = JSON.parse(localStorage.getItem(key) ?? "null") as Draft | null;
    return kept ? { ...kept, kind: first ?? kept.kind } : fresh;
  });
  const [kept, setKept] = useState<string | null>(null);
  const store = (draft: Draft) => {
    setDraft(draft);
    keepText(key, JSON.stringify(draft));
  };
  const chosen = kinds.find(([label]) => label === draft.kind) ?? kinds[0];
  if (!chosen || viewing) return null;
  const atHome = scale === "tongue_scale";
  const label = atHome ? "tongue scale" : chosen[0];
  const names = atHome
    ? ["tongue"]
    : namesFor(chosen[1].config as Pass["config"], "axles", evaluation.geometry.trailer_axles);
  const facts = atHome ? FACTS.filter(([name]) => name === "place" || name === "note") : FACTS;
  const type = (name: string, text: string) => store({ ...draft, texts: { ...draft.texts, [name]: text } });
  const textOf = (name: string) => draft.texts[name] ?? (name === "fee" ? fee : "");
  const read = names.filter((name) => draft.texts[name]?.trim());
  /** Figures read off its photograph: as if typed here. */
  const fill = (figures: readonly ReadFigure[]) => {
    const read = figures.map((each) => [each.path.split(".").at(-1) ?? "", each.text] as const);
    const units = new Set(read.map(([, text]) => text.match(/(lb|kg)$/)?.[1]).filter(Boolean));
    const unit = units.size === 1 ? ([...units][0] as MassUnit) : draft.unit;
    const bare = read.map(([name, text]) => [name, text.replace(/\s*(lb|kg)$/, "")] as const);
    store({ ...draft, unit, texts: { ...draft.texts, ...Object.fromEntries(bare) } });
  };
  const keep = async () => {
    const readings = Object.fromEntries(read.map((name) => [name, draft.texts[name] ?? ""]));
    const now = new Date();
    const ticket: JottedTicket = {
      key: crypto.randomUUID(),
      visit: visitOf(sheet.id),
      day: `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, "0")}-${String(now.getDate()).padStart(2, "0")}`,
      ...(atHome
        ? { tongue: draft.texts.tongue ?? "" }
        : { config: chosen[1].config, spring_bars: chosen[1].spring_bars ?? null }),
      unit: draft.unit,
      scale,
      readings: atHome ? {} : readings,
      ...Object.fromEntries(facts.map(([name]) => [name, textOf(name)])),
    };
    const { place = "" } = draft.texts;
    const at = kinds.findIndex(([each]) => each === label);
    store({ ...draft, kind: kinds[at + 1]?.[0] ?? label, texts: place ? { place } : {} }); // before this form may go
    await queue.add(sheet.id, `ticket “${label}”`, { kind: "ticket", ticket }, ticket.key);
    setKept(label);
    onKept?.();
  };
  return (
    <section aria-label="Jot a ticket" className="max-w-xl border border-ink bg-card px-3 py-3">
      {first === undefined && !atHome && (
        <h2 className="font-cond text-[1.375rem] leading-tight font-semibold">A ticket, on this device</h2>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {first === undefined && !atHome && (
          <Picks
            label="Which pass"
            value={label}
            options={kinds.map(([each]) => [each, each.toLowerCase()] as const)}
            onChange={(kind) => store({ ...draft, kind })}
          />
        )}
        <Choice
          label="Unit of the ticket"
          value={draft.unit}
          options={[
            ["lb", "lb"],
            ["kg", "kg"],
          ]}
          onChange={(unit) => store({ ...draft, unit })}
        />
      </div>
      {photo && (
        <Photos
          big
          about="ticket"
          label={photo.label}
          visit={photo.visit}
          weighIn={photo.weighIn}
          {...(atHome ? {} : { reads: { part: "pass", onTake: fill } })}
        />
      )}
      <div className="mt-2">
        {names.map((name) => (
          <Line
            key={name}
            name={name}
            label={atHome ? (evaluation.terms.tongue_weight ?? "tongue weight") : wordsFor(name)}
            unit={draft.unit}
            text={draft.texts[name] ?? ""}
            onType={type}
            big
          />
        ))}
        {facts.map(([name, words]) => (
          <Line key={name} name={name} label={words} text={textOf(name)} onType={type} />
        ))}
      </div>
      <Button strong className="mt-3 min-h-12 w-full" disabled={read.length === 0} onClick={() => void keep()}>
        {atHome ? "Keep it" : "Keep this ticket"}
      </Button>
      <p role="status" className="mt-1 text-[0.9375rem] text-soft">
        {kept ? `Kept: ${kept.toLowerCase()}.` : ""}
      </p>
    </section>
  );
}

function Line(props: {
  name: string;
  label: string;
  unit?: string;
  text: string;
  onType: (name: string, text: string) => void;
  big?: boolean;
}) {
  const { name, label, unit, text, onType, big = false } = props;
  const id = useId();
  return (
    <div className="flex min-h-12 items-center gap-2 border-b border-rule">
      <label
        htmlFor={id}
        className={`flex-1 first-letter:uppercase ${big ? "text-[1.0625rem]" : "text-[0.9375rem] text-soft"}`}
      >
        {label}
      </label>
      <input
        id={id}
        value={text}
        data-jot={name}
        inputMode={big ? "decimal" : "text"}
        autoComplete="off"
        onChange={(event) => onType(name, event.currentTarget.value)}
        onKeyDown={enterMovesOn}
        className={`h-11 border-b-2 border-edge bg-transparent px-2 outline-none focus:border-ink ${big ? "w-32 text-right font-cond text-[1.5rem] font-semibold" : "w-48"}`}
      />
      {unit && <span className="w-6 text-[0.875rem] text-soft">{unit}</span>}
    </div>
  );
}
