import { type ReactNode, useEffect, useRef, useState } from "react";
import { RequestFailed } from "../api/client";
import { Button, Choice } from "./controls";

/** How a table is written; what more it needs is its own. */
export type Written = {
  delimiter: string;
  decimal_comma: boolean;
  header: boolean;
  columns: object;
  mass: "lb" | "kg";
};
type Seen<W> = { written: W; columns: string[]; rows: string[][]; problems: { path: string; message: string }[] };

const SEPARATORS = [
  [";", ";"],
  [",", ","],
  ["\t", "tab"],
  ["|", "|"],
] as const;

/** Text of a file whatever wrote it: UTF-8, UTF-16 with its mark, else the usual western one-byte code. */
async function readText(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : null;
  if (mark) return new TextDecoder(mark).decode(bytes);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

/** A spreadsheet's table: pasted or from a file; how it is written is guessed, shown, corrected; all of it comes in, or nothing. */
export function ImportTable<W extends Written, S extends Seen<W>>(props: {
  /** What the columns are called, by their names. */
  words: Record<string, string>;
  /** What a row is, and what an example looks like. */
  row: string;
  example: string;
  preview: (text: string, written: W | null) => Promise<S>;
  take: (text: string, written: W) => Promise<void>;
  /** What would come in, and whether it is anything. */
  says: (seen: S) => string;
  some: (seen: S) => boolean;
  more?: (written: W, put: (change: Partial<W>) => void) => ReactNode;
  onDone: () => void;
}) {
  const { words, preview, onDone } = props;
  const [text, setText] = useState("");
  const [written, setWritten] = useState<W | null>(null);
  const [seen, setSeen] = useState<S | null>(null);
  const [current, setCurrent] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const ask = useRef(preview);
  ask.current = preview;
  useEffect(() => {
    if (!text.trim()) {
      setSeen(null);
      return;
    }
    let late = false;
    setCurrent(false);
    ask.current(text, written).then(
      (found) => {
        if (late) return;
        setSeen(found);
        setCurrent(true);
        setProblem(null);
      },
      (error: Error) => !late && setProblem(error.message),
    );
    return () => {
      late = true;
    };
  }, [text, written]);
  const shown = written ?? seen?.written; // what was chosen counts at once, before it is read again
  const columns = (shown?.columns ?? {}) as Record<string, number>;
  const put = (change: Partial<W>) => shown && setWritten({ ...shown, ...change });
  const take = () => {
    if (!shown) return;
    setBusy(true);
    props.take(text, shown).then(onDone, (error: unknown) => {
      setBusy(false);
      setProblem(error instanceof RequestFailed ? error.message : String(error));
    });
  };
  const width = Math.max(0, ...(seen?.rows ?? []).map((row) => row.length));
  const taken = new Set(Object.values(columns));
  const left = Array.from({ length: width }, (_, index) => index).filter((index) => !taken.has(index));
  return (
    <div>
      <div className="flex flex-wrap gap-3">
        <Button onClick={() => file.current?.click()}>Choose a file…</Button>
        <span className="self-center text-[0.9375rem] text-soft">or paste below</span>
        <input
          ref={file}
          type="file"
          aria-label="List file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          className="hidden"
          onChange={(event) => {
            const chosen = event.currentTarget.files?.[0];
            event.currentTarget.value = "";
            setWritten(null);
            if (chosen) void readText(chosen).then(setText);
          }}
        />
      </div>
      <textarea
        aria-label="The list"
        rows={4}
        value={text.length > 20_000 ? `${text.slice(0, 20_000)}…` : text}
        readOnly={text.length > 20_000}
        onChange={(event) => {
          setWritten(null);
          setText(event.currentTarget.value);
        }}
        placeholder={props.example}
        className="mt-2 w-full border border-ink bg-paper p-2 font-cond text-[0.9375rem]"
      />
      {problem && <p className="mt-1 border-l-4 border-ink pl-2 text-[0.875rem] font-semibold">{problem}</p>}
      {seen && shown && (
        <>
          <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[0.9375rem]">
            <span>
              Split at{" "}
              <Choice
                label="Separator"
                value={shown.delimiter as ";"}
                options={SEPARATORS}
                onChange={(delimiter) => put({ delimiter, columns: {} } as Partial<W>)}
              />
            </span>
            <span>
              Decimals{" "}
              <Choice
                label="Decimal sign"
                value={shown.decimal_comma ? "comma" : "point"}
                options={[
                  ["point", "1.5"],
                  ["comma", "1,5"],
                ]}
                onChange={(value) => put({ decimal_comma: value === "comma" } as Partial<W>)}
              />
            </span>
            <span>
              First row{" "}
              <Choice
                label="First row"
                value={shown.header ? "header" : "item"}
                options={[
                  ["header", "names"],
                  ["item", props.row],
                ]}
                onChange={(value) => put({ header: value === "header" } as Partial<W>)}
              />
            </span>
            <span>
              Numbers without a unit are in{" "}
              <Choice
                label="Unit of bare masses"
                value={shown.mass}
                options={[
                  ["lb", "lb"],
                  ["kg", "kg"],
                ]}
                onChange={(value) => put({ mass: value } as Partial<W>)}
              />
            </span>
            {props.more?.(shown, put)}
          </div>
          <div className="mt-3 overflow-x-auto">
            <table className="w-full text-[0.875rem]">
              <thead>
                <tr>
                  {Array.from({ length: width }, (_, index) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a column's place is its name
                    <th key={index} className="border border-rule p-1">
                      <select
                        aria-label={`Column ${index + 1} is`}
                        value={seen.columns.find((name) => columns[name] === index) ?? ""}
                        onChange={(event) => {
                          const chosen = event.currentTarget.value;
                          const rest = Object.entries(columns).filter(([name, at]) => at !== index && name !== chosen);
                          const now = Object.fromEntries(chosen ? [...rest, [chosen, index]] : rest);
                          put({ columns: now } as Partial<W>);
                        }}
                        className="w-full bg-card font-cond text-[0.9375rem] font-semibold"
                      >
                        <option value="">leave out</option>
                        {seen.columns.map((name) => (
                          <option key={name} value={name}>
                            {words[name] ?? name}
                          </option>
                        ))}
                      </select>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {seen.rows.map((row, line) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a row's place is its name
                  <tr key={line} className={line === 0 && shown.header ? "text-soft italic" : ""}>
                    {Array.from({ length: width }, (_, index) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: a column's place is its name
                      <td key={index} className="max-w-48 truncate border border-rule px-1">
                        {row[index]}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {left.length > 0 && (
            <p className="mt-2 border-l-4 border-rule pl-2 text-[0.875rem]" data-part="left-out">
              Left out:{" "}
              {left.map((index) => (shown.header && seen.rows[0]?.[index]) || `column ${index + 1}`).join(", ")}. Say
              above each column what it is, if it should come in.
            </p>
          )}
          {seen.problems.length > 0 ? (
            <div className="mt-3" data-part="list-problems">
              <p className="font-semibold">These lines cannot be read; nothing is added until they can.</p>
              <ul className="max-h-40 overflow-y-auto">
                {seen.problems.map((each) => (
                  <li key={`${each.path}${each.message}`} className="border-l-4 border-ink pl-2 text-[0.875rem]">
                    {each.path} {each.message}
                  </li>
                ))}
              </ul>
            </div>
          ) : (
            <p className="mt-3 text-[0.9375rem]">{props.says(seen)}</p>
          )}
          <div className="mt-3 flex gap-3">
            <Button strong disabled={busy || !current || !props.some(seen) || seen.problems.length > 0} onClick={take}>
              Add them all
            </Button>
            <Button onClick={onDone}>Not now</Button>
          </div>
        </>
      )}
    </div>
  );
}
