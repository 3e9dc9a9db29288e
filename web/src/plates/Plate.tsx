import {
  createContext,
  type ReactNode,
  startTransition,
  useContext,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { useDesk } from "../api/useSheet";
import { TermMark } from "../ui/Glossary";
import { Photos } from "../ui/Photos";
import { useNarrow } from "../ui/useWidth";
import { LabelPicture, type Sign } from "./LabelPicture";

interface PlateProps {
  title: string;
  where?: string;
  sign?: Sign;
  children: ReactNode;
  aside?: ReactNode;
  part?: string;
  /** What its photographs are kept under, where it is something to photograph. */
  photos?: string;
  /** The part of the rig that its label is of, where its figures can be read off a photograph. */
  reads?: "vehicle" | "trailer" | "hitch";
}

/** One label as found on the rig: its name on a dark strip, a picture of where it sits, its lines. */
export function Plate(props: PlateProps) {
  return useNarrow() ? <FoldedPlate {...props} /> : <OpenPlate {...props} />;
}

function OpenPlate(props: PlateProps) {
  const [shown, setShown] = useState(false);
  return (
    <section className="mb-4 border border-ink bg-paper" aria-label={props.title} data-plate={props.part}>
      <header className="flex min-h-8 items-center justify-between gap-3 bg-ink px-3 py-1 text-paper">
        <h3 className="font-cond text-[1.0625rem] font-semibold">{props.title}</h3>
        {props.aside}
        {props.sign && (
          <button
            type="button"
            aria-expanded={shown}
            onClick={() => setShown(!shown)}
            className="min-h-7 font-cond text-[0.875rem] underline underline-offset-2"
          >
            {shown ? "hide the picture" : "where is it?"}
          </button>
        )}
      </header>
      <Lines {...props} shown={shown} />
    </section>
  );
}

/** On a phone a label is one line, with how many of its fields are filled, until it is opened; one that the answer
 * needs is open. */
function FoldedPlate(props: PlateProps) {
  const [open, setOpen] = useState(false);
  const [shown, setShown] = useState(false);
  const box = useRef<HTMLElement>(null);
  const { sheet, evaluation } = useDesk();
  const [[filled, fields], setCount] = useState([0, 0]);
  const [again, setAgain] = useState(false);
  const needs = useRef([
    ...(evaluation.headline.unknown ?? []).map((each) => each.path),
    ...evaluation.checks.filter((each) => each.required && each.limit === null).map((each) => each.limit_path),
  ]);
  /** What is folded and not needed is filled in after the first look, so that the place stands at once. */
  const [ready, setReady] = useState(needs.current.length > 0 || location.hash !== "");
  useEffect(() => startTransition(() => setReady(true)), []);
  const there = useContext(UnfoldContext) || ready || open;
  useLayoutEffect(() => {
    const inside = fieldsIn(box.current).map((each) => each.dataset.path ?? "");
    if (needs.current.some((path) => path && inside.includes(path))) setOpen(true);
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new sheet is what fills fields
  useLayoutEffect(() => {
    const inside = fieldsIn(box.current);
    setCount([inside.filter((each) => each.value !== "").length, inside.length]);
    const wrong = [
      ...evaluation.plates.filter((each) => each.level === "warning").map((each) => each.path),
      ...sheet.fields.filter((each) => each.problem).map((each) => each.path),
    ];
    setAgain(inside.some((each) => wrong.includes(each.dataset.path ?? "")));
  }, [sheet, there]);
  return (
    <section ref={box} className="mb-2 border border-ink bg-paper" aria-label={props.title} data-plate={props.part}>
      <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary
          className={`flex min-h-12 cursor-pointer items-center justify-between gap-3 px-3 py-1 ${open ? "bg-ink text-paper" : "bg-card"}`}
        >
          <h3 className="font-cond text-[1.125rem] font-semibold">{props.title}</h3>
          <span className="flex shrink-0 items-center gap-2 font-cond text-[0.9375rem]">
            {again && <span className="border-l-4 border-ochre pl-1.5 font-semibold">read again</span>}
            {fields > 0 && `${filled} of ${fields} filled`}
            <span aria-hidden className={`inline-block transition-transform ${open ? "rotate-90" : ""}`}>
              ›
            </span>
          </span>
        </summary>
        {there && (props.sign || props.aside) && (
          <div className="flex min-h-11 items-center justify-between gap-3 border-b border-rule px-3">
            {props.sign && (
              <button
                type="button"
                aria-expanded={shown}
                onClick={() => setShown(!shown)}
                className="min-h-11 font-cond text-[1rem] underline underline-offset-2"
              >
                {shown ? "hide the picture" : "where is it?"}
              </button>
            )}
            {props.aside}
          </div>
        )}
        {there && <Lines {...props} shown={shown} />}
      </details>
    </section>
  );
}

const fieldsIn = (box: HTMLElement | null) => [...(box?.querySelectorAll<HTMLInputElement>("input[data-path]") ?? [])];

function Lines(props: PlateProps & { shown: boolean }) {
  return (
    <div className="px-3 pt-0.5 pb-1.5">
      {props.shown && props.sign && <LabelPicture sign={props.sign} />}
      {props.where && <p className="pt-1 text-[0.8125rem] leading-snug text-soft">{props.where}</p>}
      {props.children}
      {props.photos && (
        <Photos about={props.photos} label={props.title} {...(props.reads ? { reads: { part: props.reads } } : {})} />
      )}
    </div>
  );
}

/** Opens what a field is folded into; resolves when it can be seen. */
export async function unfold(field: Element) {
  const opening: Promise<unknown>[] = [];
  for (let fold = field.closest("details"); fold; fold = fold.parentElement?.closest("details") ?? null) {
    if (fold.open) continue;
    const here = fold;
    opening.push(new Promise((resolve) => here.addEventListener("toggle", resolve, { once: true })));
    here.open = true;
  }
  await Promise.all(opening);
}

/** Whether folded lines are there to be found, though folded. */
export const UnfoldContext = createContext(false);

/** Lines of a label that few need: out of the way until asked for, or until one of them is filled. */
export function More(props: { title: string; filled?: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(props.filled ?? false);
  const unfold = useContext(UnfoldContext);
  return (
    <details
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
      className="border-b border-rule last:border-b-0"
    >
      <summary className="cursor-pointer py-1.5 font-cond text-[0.9375rem] font-semibold text-soft hover:text-ink">
        {props.title}
      </summary>
      {(open || unfold) && props.children}
    </details>
  );
}

/** A line with a choice instead of a figure. */
export function ChoiceLine(props: { label: string; hint?: string; term?: string; children: ReactNode }) {
  const { label, hint, term, children } = props;
  return (
    <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5 last:border-b-0">
      <span className="text-[0.9375rem] leading-tight">
        {label}
        {term && <TermMark term={term} name={label} />}
        {hint && <span className="block text-[0.8125rem] text-soft">{hint}</span>}
      </span>
      {children}
    </div>
  );
}
