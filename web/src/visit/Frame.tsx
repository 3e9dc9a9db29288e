import { Link } from "react-router";
import type { VisitStep } from "../api/client";

export function Frame(props: {
  title: string;
  beside?: string;
  leave: string;
  bar?: React.ReactNode;
  children: React.ReactNode;
}) {
  return (
    <div className="flex h-full flex-col bg-paper">
      <header className="flex h-13 shrink-0 items-center justify-between border-b border-ink px-4">
        <span className="font-cond text-[1.1875rem] font-semibold">{props.title}</span>
        <span className="text-[0.9375rem] text-soft">{props.beside}</span>
        <Link
          to={props.leave}
          className="flex min-h-11 min-w-11 items-center justify-end px-1 font-cond text-[1.0625rem] underline underline-offset-2"
        >
          Leave
        </Link>
      </header>
      {props.bar}
      {props.children}
    </div>
  );
}

export function Segments({
  steps,
  at,
  onPick,
}: {
  steps: readonly VisitStep[];
  at: number;
  onPick: (to: number) => void;
}) {
  return (
    <div className="flex shrink-0 gap-1.5 px-4">
      {steps.map((step, index) => (
        <button
          // biome-ignore lint/suspicious/noArrayIndexKey: a step is named by its place
          key={index}
          type="button"
          data-inline
          aria-label={`Step ${index + 1} of ${steps.length}: ${step.title}`}
          aria-current={index === at ? "step" : undefined}
          onClick={() => onPick(index)}
          className="flex h-7 flex-1 items-center pointer-coarse:h-11"
        >
          <span className={`h-[6px] w-full ${index === at ? "bg-spruce" : index < at ? "bg-ink" : "bg-rule"}`} />
        </button>
      ))}
    </div>
  );
}
