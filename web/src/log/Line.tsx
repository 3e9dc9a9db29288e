import { useState } from "react";
import { useNavigate } from "react-router";
import type { LogLine } from "../api/client";
import { useDesk } from "../api/useSheet";
import { day, mass } from "../format";
import { Button } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { useField } from "../ui/Field";
import { StatusMark } from "../ui/Status";
import { Drive, driveInWords, useDrives } from "./Drive";

const MARK = { stop: "over", incomplete: "unknown", caution: "tight", within: "within" } as const;
const LEAD = { stop: "Stop.", incomplete: "Not settled.", caution: "Caution.", within: "Within." } as const;
const TOTALS = [
  ["vehicle_hitched", "vehicle"],
  ["trailer_gross", "trailer"],
  ["combination_gross", "combination"],
] as const;

/** One weigh-in: when, where, what it came to, what changed since the one before; its notes open in place. */
export function Line(props: { entry: LogLine; chosen: boolean; onChoose: () => void }) {
  const { entry, chosen, onChoose } = props;
  const { sheet, rig, number, look } = useDesk();
  const [wanted, setWanted] = useState(false);
  const [driving, setDriving] = useState(false);
  const drove = driveInWords(useDrives()[entry.number]);
  const navigate = useNavigate();
  const when = entry.date ? day(entry.date) : `No. ${entry.number}`;
  const open = wanted && number === entry.number;
  return (
    <article
      data-entry={entry.number}
      className={`flex flex-wrap gap-x-3 gap-y-1 border-b md:flex-nowrap border-rule py-2 ${chosen ? "bg-sunk" : ""}`}
    >
      <label className="-mx-3 -mt-2 -mb-3 shrink-0 self-start p-3">
        <input
          type="checkbox"
          aria-label={`Compare ${when}`}
          className="block h-5 w-5 accent-[var(--ink)]"
          checked={chosen}
          onChange={onChoose}
        />
      </label>
      <div className="min-w-0 flex-1 max-md:basis-[calc(100%-2.5rem)]">
        <div className="flex flex-wrap items-baseline gap-x-3">
          <StatusMark always status={MARK[entry.verdict]} />
          <button
            type="button"
            className="font-cond text-[1.1875rem] font-semibold underline-offset-2 hover:underline"
            onClick={() => navigate(`/rigs/${sheet.id}/margins?weigh-in=${entry.number}`)}
          >
            {when}
          </button>
          <span className="text-[0.9375rem] text-soft">{entry.place}</span>
          <span className="font-cond text-[1rem]">
            {TOTALS.flatMap(([key, name]) =>
              entry.totals[key] === undefined ? [] : [`${name} ${mass(entry.totals[key] ?? 0)}`],
            ).join(" · ")}{" "}
            {rig.units.mass}
          </span>
          {entry.tags.map((tag) => (
            <span key={tag} className="border border-ink px-1.5 font-cond text-[0.875rem]">
              {tag}
            </span>
          ))}
        </div>
        <p className="text-[0.9375rem] leading-snug">{entry.sentence}</p>
        {entry.rejudged && (
          <p className="border-l-4 border-ochre pl-2 text-[0.9375rem] leading-snug">
            The rules have changed since version {entry.rejudged.release}. It said of the same figures:{" "}
            {LEAD[entry.rejudged.verdict]} {entry.rejudged.sentence}
          </p>
        )}
        {entry.changed.length > 0 && (
          <p className="text-[0.875rem] leading-snug text-soft">Since the one before: {entry.changed.join(", ")}.</p>
        )}
        {entry.aboard.length > 0 && (
          <p className="text-[0.875rem] leading-snug text-soft">Aboard: {entry.aboard.join("; ")}.</p>
        )}
        {!open && entry.note && <p className="text-[0.875rem] leading-snug text-soft italic">{entry.note}</p>}
        {!open && entry.decided && (
          <p className="text-[0.9375rem] leading-snug">
            <b>Decided:</b> {entry.decided}
          </p>
        )}
        {drove && <p className="text-[0.875rem] leading-snug">After the drive: {drove}</p>}
        {open && <Notes when={when} />}
        <Slip open={driving} onOpenChange={setDriving} title={`How it drove, weighed ${when}`}>
          <Drive number={entry.number} weighIn={entry.key} onDone={() => setDriving(false)} />
        </Slip>
      </div>
      <button
        type="button"
        aria-label={`Drive: how it drove, ${when}`}
        className="h-9 shrink-0 self-start border border-rule px-2 font-cond text-[0.9375rem] hover:border-ink max-md:ml-8 max-md:h-11"
        onClick={() => setDriving(true)}
      >
        Drive
      </button>
      <button
        type="button"
        aria-expanded={open}
        aria-label={`Notes on ${when}`}
        className="h-9 shrink-0 self-start border border-rule px-2 font-cond text-[0.9375rem] hover:border-ink max-md:h-11"
        onClick={() => {
          setWanted(!open);
          if (!open) look(entry.number === sheet.window.count ? undefined : entry.number);
        }}
      >
        {open ? "Done" : "Notes"}
      </button>
    </article>
  );
}

/** What to remember of the weigh-in that is looked at. */
function Notes({ when }: { when: string }) {
  const { rig, weighIn, change, look } = useDesk();
  const [asking, setAsking] = useState(false);
  const here = weighIn ? rig.weigh_ins?.[weighIn - 1] : undefined;
  const [tags, setTags] = useState((here?.tags ?? []).join(", "));
  if (!weighIn || !here) return null;
  const path = `weigh_ins[${weighIn - 1}]`;
  const keep = () => {
    const given = tags.split(",").map((tag) => tag.trim());
    const value = [...new Set(given.filter((tag) => tag !== ""))];
    if (value.join() !== (here.tags ?? []).join())
      change([{ path: `${path}.tags`, op: "set", value: value.length ? value : null }], "tags");
  };
  return (
    <div className="mt-1 max-w-[40rem] border-l-4 border-ink pl-3">
      <Words path={`${path}.note`} label="Note" />
      <Words path={`${path}.decided`} label="What was decided" />
      <label className="block py-1 text-[0.875rem] text-soft">
        Tags, with commas between
        <input
          className="mt-0.5 block h-9 w-full border border-edge bg-card px-2 text-[1rem] text-ink"
          value={tags}
          onChange={(event) => setTags(event.currentTarget.value)}
          onBlur={keep}
          onKeyDown={(event) => event.key === "Enter" && keep()}
        />
      </label>
      <button type="button" className="my-1 text-[0.875rem] underline" onClick={() => setAsking(true)}>
        Delete this weigh-in…
      </button>
      <Slip
        open={asking}
        onOpenChange={setAsking}
        title={`Delete the weigh-in of ${when}?`}
        lead="Its tickets leave the log. Undo brings it back."
      >
        <div className="flex gap-3">
          <Button
            strong
            onClick={() => {
              change([{ path, op: "remove" }], `delete the weigh-in of ${when}`);
              look(undefined);
            }}
          >
            Delete it
          </Button>
          <Button onClick={() => setAsking(false)}>Keep it</Button>
        </div>
      </Slip>
    </div>
  );
}

/** A longer text, kept as it is typed. */
function Words({ path, label }: { path: string; label: string }) {
  const { text, problem, begin, edit, blur } = useField(path, label);
  return (
    <label className="block py-1 text-[0.875rem] text-soft">
      {label}
      <textarea
        rows={2}
        data-path={path}
        className="mt-0.5 block w-full border border-edge bg-card px-2 py-1 text-[1rem] leading-snug text-ink"
        value={text}
        onChange={(event) => edit(event.currentTarget.value)}
        onFocus={begin}
        onBlur={blur}
      />
      {problem && <span className="font-semibold text-ink">{problem}</span>}
    </label>
  );
}
