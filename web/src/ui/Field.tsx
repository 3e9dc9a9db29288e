import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { at } from "../api/identity";
import { useDesk, useUnsent } from "../api/useSheet";
import { useVisitor } from "../api/visitor";
import { atRest, inHand } from "../format";
import { afterPress } from "../press";
import { FixButton } from "./FixButton";
import { TermMark } from "./Glossary";
import { NotSavedHere } from "./NotSaved";
import { SourceTag } from "./SourceTag";
import { keyPressed } from "./useCalm";

/** Everything a field on a path needs: what it shows, what is wrong, and what to do as it is typed in. */
export function useField(path: string, what: string) {
  const { rig, sheet, field, type, pending, named } = useDesk();
  const unsent = useUnsent().get(named(path));
  const [draft, setDraft] = useState<string | null>(null);
  const focused = useRef(false);
  const gesture = useRef("");
  /** Whether the next sheet answers what was typed here; if not, what it brings was set elsewhere. */
  const mine = useRef(false);
  const state = field(path);
  const value = at(rig, path);
  const typed = state?.entry.text;

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new sheet is what settles a draft
  useEffect(() => {
    if (pending()) return;
    if (!focused.current) setDraft(null);
    else if (!mine.current) setDraft(typed ?? inHand(value));
    mine.current = false;
  }, [sheet, pending]);

  const problem = state?.problem ?? null;
  const begin = () => {
    focused.current = true;
    gesture.current = crypto.randomUUID();
  };
  return {
    text: draft ?? unsent ?? typed ?? atRest(value),
    problem,
    note: state?.entry.note ?? null,
    /** What was understood, when the text does not say it by itself. */
    understood:
      typed && !problem && typeof value === "number" && /[+\-−a-z"'′″%]|\.\d{3}$/i.test(typed) ? atRest(value) : null,
    /** Typing starts: what is typed until the next start is one step. */
    begin,
    focus: (input: HTMLInputElement) => {
      begin();
      flushSync(() => setDraft(unsent ?? typed ?? inHand(value))); // selected before the next key arrives, or it would be lost
      input.select();
    },
    edit: (text: string) => {
      setDraft(text);
      mine.current = true;
      keyPressed();
      type(path, text, what, gesture.current);
    },
    blur: () => {
      focused.current = false;
      if (!pending()) setDraft(null);
    },
  };
}

/** Moves on to the next field of the same form, as a person typing a ticket expects of Enter. */
export function enterMovesOn(event: KeyboardEvent<HTMLInputElement>) {
  if (event.key !== "Enter") return;
  const all = [...document.querySelectorAll<HTMLInputElement>("main input:not([disabled], [type=file])")];
  const next = all[all.indexOf(event.currentTarget) + (event.shiftKey ? -1 : 1)];
  next?.focus();
  event.preventDefault();
}

/** A number pad has no letters and no plus: these stand beside it where somebody types by thumb. */
const COARSE = matchMedia("(pointer: coarse)");
const UNITS: readonly (readonly string[])[] = [
  ["lb", "kg"],
  ["in", "ft", "cm", "m"],
  ["psi", "kPa", "bar"],
  ["gal", "l"],
];

function UnitKeys({ unit, onKey }: { unit: string | undefined; onKey: (key: string) => void }) {
  const units = UNITS.find((each) => unit !== undefined && each.includes(unit)) ?? [];
  return (
    <div className="flex justify-end gap-2 py-1.5">
      {["+", ...units].map((key) => (
        <button
          key={key}
          type="button"
          tabIndex={-1}
          aria-label={key === "+" ? "plus" : `unit ${key}`}
          className="h-11 min-w-11 border border-ink bg-card px-2 font-cond text-[1.125rem] font-semibold active:bg-sunk"
          onPointerDown={(event) => event.preventDefault()} // the field keeps the focus, and its pad stays
          onClick={() => onKey(key === "+" ? "+" : ` ${key}`)}
        >
          {key}
        </button>
      ))}
    </div>
  );
}

/** One line of a label: its name, the figure, its unit, where it came from; what is wrong stands right below. */
export function Field(props: {
  path: string;
  label: string;
  unit?: string | undefined;
  hint?: string | undefined;
  sourced?: boolean;
  mode?: "decimal" | "text";
  warning?: string | undefined;
  /** The glossary's key of what this figure is. */
  term?: string | undefined;
}) {
  const { path, label, hint, sourced = false, mode = "decimal", warning, term } = props;
  const id = useId();
  const { text, problem, understood, note, focus, edit, blur } = useField(path, label);
  const { evaluation, sheet } = useDesk();
  const { viewing } = useVisitor();
  const [keys, setKeys] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const unit = /[a-z]\s*$/i.test(text) && mode === "decimal" ? undefined : props.unit; // a figure that says its own unit
  const beside = sheet.plates.beside.filter((each) => each.path === path);
  const plate = evaluation.plates.find((each) => each.path === path);
  const said = problem ?? warning ?? null;
  return (
    <div className="border-b border-rule py-1 last:border-b-0">
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1 leading-tight">
          <label htmlFor={id} className="text-[0.9375rem]">
            {label}
          </label>
          {term && <TermMark term={term} name={label} />}
          {hint && (
            <label htmlFor={id} className="block text-[0.8125rem] text-soft">
              {hint}
            </label>
          )}
        </span>
        <div
          className={`flex h-10 pointer-coarse:h-11 items-baseline border-b-2 bg-card px-2 focus-within:border-ink ${problem ? "border-dashed border-ink" : "border-edge"} ${mode === "text" ? "w-44" : "w-32"}`}
        >
          <input
            id={id}
            ref={input}
            value={text}
            data-path={path}
            readOnly={viewing}
            inputMode={mode}
            autoComplete="off"
            spellCheck={false}
            aria-invalid={problem !== null}
            aria-describedby={said || understood ? `${id}-said` : undefined}
            placeholder="–"
            className={`h-full w-full min-w-0 bg-transparent outline-none placeholder:text-soft ${mode === "text" ? "text-[0.9375rem]" : "text-right font-cond text-[1.3125rem] font-semibold"}`}
            onFocus={(event) => {
              focus(event.currentTarget);
              afterPress(() =>
                setKeys(mode === "decimal" && COARSE.matches && document.activeElement === input.current),
              );
            }}
            onChange={(event) => edit(event.currentTarget.value)}
            onBlur={() => {
              blur();
              afterPress(() => setKeys(false)); // what is pressed below stays where it is
            }}
            onKeyDown={enterMovesOn}
          />
          {unit && <span className="pl-1.5 text-[0.8125rem] text-soft">{unit}</span>}
        </div>
        {sourced && <SourceTag path={path} label={label} />}
      </div>
      {keys && <UnitKeys unit={unit ?? props.unit} onKey={(key) => edit(`${text}${key}`)} />}
      <NotSavedHere path={path} />
      {!said &&
        beside.map((each) => (
          <p
            key={each.formula}
            data-beside={path}
            className={`mb-0.5 pl-2 text-[0.8125rem] leading-snug ${each.stands_in ? "border-l-4 border-dotted border-spruce" : "text-soft"}`}
          >
            {each.says}
          </p>
        ))}
      {!said && plate && (
        <p
          data-contradiction={plate.code}
          className={`mb-1 pl-2 text-[0.8125rem] leading-snug ${plate.level === "warning" ? "border-l-4 border-ochre" : "border-l-4 border-rule text-soft"}`}
        >
          {plate.message}
          {plate.fix && (
            <span className="mt-1 block">
              <FixButton fix={plate.fix} />
            </span>
          )}
        </p>
      )}
      {(said || understood || note) && (
        <p id={`${id}-said`} className="pb-0.5 text-[0.8125rem] leading-snug">
          {said && <span className="border-l-4 border-ink pl-2 font-semibold">{said}</span>}
          {!said && understood && (
            <span className="text-soft">
              understood as {understood} {props.unit}
            </span>
          )}
          {!said && !understood && <span className="text-soft">{note}</span>}
        </p>
      )}
    </div>
  );
}
