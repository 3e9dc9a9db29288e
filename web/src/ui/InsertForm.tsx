import { type FormEvent, useId, useState } from "react";
import { type Change, RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "./controls";

export type FormField = {
  name: string;
  label: string;
  unit?: string | undefined;
  hint?: string;
  text?: boolean;
  start?: string;
};

/** Asks for a new part (a correction, a measurement) and adds it whole, or says at each field what is wrong. */
export function InsertForm(props: {
  path: string;
  value: Record<string, unknown>;
  fields: readonly FormField[];
  /** The step in words, for undo. */
  what: string;
  button: string;
  onDone: () => void;
}) {
  const { path, value, fields, what, button, onDone } = props;
  const { apply } = useDesk();
  const [texts, setTexts] = useState<Record<string, string>>(() =>
    Object.fromEntries(fields.map((field) => [field.name, field.start ?? ""])),
  );
  const [problems, setProblems] = useState<Record<string, string>>({});
  const id = useId();
  const add = (event: FormEvent) => {
    event.preventDefault();
    const change: Change = { path, op: "insert", value, texts };
    apply([change], what).then(onDone, (error: unknown) => {
      const failed = error instanceof RequestFailed ? error : new RequestFailed(String(error));
      const byField: Record<string, string> = {};
      for (const each of failed.problem?.errors ?? []) {
        const name =
          fields.find((field) => each.path === field.name || each.path.endsWith(`.${field.name}`))?.name ?? "";
        byField[name] ??= each.message;
      }
      setProblems(Object.keys(byField).length ? byField : { "": failed.message });
    });
  };
  return (
    <form onSubmit={add} className="space-y-2">
      {fields.map((field) => (
        <div key={field.name}>
          <div className="flex items-center gap-2">
            <label htmlFor={`${id}${field.name}`} className="flex-1 text-[0.9375rem] leading-tight">
              {field.label}
              {field.hint && <span className="block text-[0.8125rem] text-soft">{field.hint}</span>}
            </label>
            <input
              id={`${id}${field.name}`}
              name={field.name}
              value={texts[field.name] ?? ""}
              inputMode={field.text ? "text" : "decimal"}
              autoComplete="off"
              aria-invalid={field.name in problems}
              onChange={(event) => setTexts({ ...texts, [field.name]: event.currentTarget.value })}
              className={`h-10 border-b-2 bg-paper px-2 outline-none focus:border-ink ${field.name in problems ? "border-dashed border-ink" : "border-rule"} ${field.text ? "w-44" : "w-32 text-right font-cond text-[1.25rem] font-semibold"}`}
            />
            <span className="w-7 text-[0.8125rem] text-soft">{field.unit}</span>
          </div>
          {problems[field.name] && (
            <p className="border-l-4 border-ink pl-2 text-[0.8125rem] font-semibold">{problems[field.name]}</p>
          )}
        </div>
      ))}
      {problems[""] && <p className="border-l-4 border-ink pl-2 text-[0.8125rem] font-semibold">{problems[""]}</p>}
      <div className="flex gap-2 pt-1">
        <Button strong type="submit">
          {button}
        </Button>
        <Button onClick={onDone}>Not now</Button>
      </div>
    </form>
  );
}
