import { createContext, type ReactNode, useContext, useState } from "react";
import { Photos } from "../ui/Photos";
import { LabelPicture, type Sign } from "./LabelPicture";

/** One label as found on the rig: its name on a dark strip, a picture of where it sits, its lines. */
export function Plate(props: {
  title: string;
  where?: string;
  sign?: Sign;
  children: ReactNode;
  aside?: ReactNode;
  part?: string;
  /** What its photographs are kept under, where it is something to photograph. */
  photos?: string;
}) {
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
      <div className="px-3 pt-0.5 pb-1.5">
        {shown && props.sign && <LabelPicture sign={props.sign} />}
        {props.where && <p className="pt-1 text-[0.8125rem] leading-snug text-soft">{props.where}</p>}
        {props.children}
        {props.photos && <Photos about={props.photos} label={props.title} />}
      </div>
    </section>
  );
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
export function ChoiceLine({ label, hint, children }: { label: string; hint?: string; children: ReactNode }) {
  return (
    <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5 last:border-b-0">
      <span className="text-[0.9375rem] leading-tight">
        {label}
        {hint && <span className="block text-[0.8125rem] text-soft">{hint}</span>}
      </span>
      {children}
    </div>
  );
}
