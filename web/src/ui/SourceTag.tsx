import { Popover } from "radix-ui";
import { useId, useState } from "react";
import type { Source } from "../api/client";
import { useDesk } from "../api/useSheet";
import { day } from "../format";
import { Button, Choice } from "./controls";
import { Refused, useAttempt } from "./useAttempt";

const SOURCES = [
  ["plate", "plate"],
  ["manual", "manual"],
  ["scale", "scale"],
  ["worked_out", "worked out"],
  ["guess", "guess"],
] as const;

/** The word for where a figure came from. */
export const sourceWord = (source: Source | null | undefined) =>
  SOURCES.find(([value]) => value === source)?.[1] ?? "source?";

/** Where a figure came from, when it was read, and a note: a small tag that opens to be changed. */
export function SourceTag({ path, label }: { path: string; label: string }) {
  const { field } = useDesk();
  const [open, setOpen] = useState(false);
  const entry = field(path)?.entry;
  const source = entry?.source ?? null;
  const more = Boolean(entry?.date || entry?.note);
  const said = [sourceWord(source), entry?.date && day(entry.date), entry?.note].filter(Boolean).join(", ");
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`Where ${label} came from: ${sourceWord(source)}`}
        title={said}
        className={`h-8 w-[76px] shrink-0 truncate border px-1 font-cond text-[0.875rem] hover:bg-sunk ${source ? "border-rule text-ink" : "border-dotted border-rule text-soft"} ${more ? "border-b-2 border-b-ink" : ""}`}
      >
        {sourceWord(source)}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          aria-label={`Where ${label} came from`}
          className="z-50 w-[min(23rem,94vw)] border border-ink bg-card p-3 text-ink shadow-[3px_3px_0_var(--rule)]"
        >
          <SourceForm path={path} label={label} onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function SourceForm({ path, label, onDone }: { path: string; label: string; onDone: () => void }) {
  const { field, apply } = useDesk();
  const entry = field(path)?.entry;
  const [source, setSource] = useState<Source | "">(entry?.source ?? "");
  const [date, setDate] = useState(entry?.date ?? "");
  const [note, setNote] = useState(entry?.note ?? "");
  const { problem, attempt } = useAttempt();
  const id = useId();
  const keep = (chosen: Source | "") =>
    attempt(
      apply(
        [{ path, op: "source", source: chosen || null, date: date.trim() || null, note: note.trim() || null }],
        `source of ${label}`,
      ),
      onDone,
    );
  const line = "h-9 w-full border-b-2 border-edge bg-paper px-2 text-[0.9375rem] outline-none focus:border-ink";
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keep(source);
      }}
    >
      <p className="font-cond text-[1.0625rem] font-semibold">{label}: where it came from</p>
      <Choice label="Source" value={source} options={SOURCES} onChange={setSource} wide />
      <label htmlFor={`${id}d`} className="block text-[0.875rem]">
        Read on
        <input
          id={`${id}d`}
          value={date}
          placeholder="2026-05-02"
          onChange={(event) => setDate(event.currentTarget.value)}
          className={line}
        />
      </label>
      <label htmlFor={`${id}n`} className="block text-[0.875rem]">
        Note
        <input id={`${id}n`} value={note} onChange={(event) => setNote(event.currentTarget.value)} className={line} />
      </label>
      <Refused problem={problem} className="text-[0.8125rem]" />
      <div className="flex gap-2 pt-1">
        <Button strong type="submit">
          Save
        </Button>
        <Button
          onClick={() => {
            setDate("");
            setNote("");
            void apply([{ path, op: "source", source: null, date: null, note: null }], `source of ${label}`).then(
              onDone,
            );
          }}
        >
          Clear
        </Button>
      </div>
    </form>
  );
}
