import { useId, useState } from "react";
import { api } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";

type Row = Readonly<Record<string, number | string | null | undefined>>;

/** A table as its maker prints it, a row a line: typed or pasted as a whole. */
export function MakersTable(props: {
  path: string;
  rows: readonly object[];
  /** The columns in their order, each with the unit of a bare figure. */
  columns: readonly (readonly [name: string, unit: string])[];
  /** What stands above the rows. */
  title: string;
  link: string;
  label: string;
  example: string;
}) {
  const { path, columns, title, link, label, example } = props;
  const rows = props.rows as readonly Row[];
  const { ask } = useDesk();
  const [text, setText] = useState<string | null>(null);
  const { problem, attempt } = useAttempt();
  const id = useId();
  const keep = () =>
    attempt(
      ask((rig, key, weighIn) => api.makersTable(rig, { path, text: text ?? "" }, key, weighIn)),
      () => setText(null),
    );
  const shown = (row: Row) =>
    columns
      .filter(([name]) => row[name] != null)
      .map(([name, unit]) => `${row[name]}${typeof row[name] === "number" ? ` ${unit}` : ""}`);
  if (text === null) {
    return (
      <div className="py-1.5 text-[0.875rem]">
        {rows.length > 0 && <p className="mb-0.5 text-[0.8125rem] leading-snug text-soft">{title}</p>}
        {rows.length > 0 && (
          <ol className={`mb-1 font-cond text-[0.9375rem] ${columns.length < 3 ? "columns-2" : ""}`}>
            {rows.map((row) => (
              <li key={shown(row).join()}>
                {shown(row)[0]}: {shown(row).slice(1).join(", ")}
              </li>
            ))}
          </ol>
        )}
        <button
          type="button"
          className="underline"
          onClick={() => setText(rows.map((row) => columns.map(([name]) => row[name] ?? "").join(" ")).join("\n"))}
        >
          {rows.length ? "change the table" : `type or paste ${link}`}
        </button>
      </div>
    );
  }
  return (
    <div className="py-1.5">
      <label htmlFor={id} className="block text-[0.875rem] leading-snug">
        {label} ({columns.map(([, unit]) => unit).join(", ")}, or with their units)
      </label>
      <textarea
        id={id}
        rows={5}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
        placeholder={example}
        className="mt-1 w-full border border-ink bg-card p-2 font-cond text-[1rem]"
      />
      <Refused problem={problem} className="text-[0.8125rem]" />
      <div className="mt-1 flex gap-2">
        <Button strong onClick={() => void keep()}>
          Keep the table
        </Button>
        <Button onClick={() => setText(null)}>Not now</Button>
      </div>
    </div>
  );
}
