import type { ReactNode } from "react";

/** One label, as it hangs on the rig: its name on a dark strip, where it sits, its lines. */
export function Plate(props: { title: string; where?: string; children: ReactNode; aside?: ReactNode }) {
  return (
    <section className="mb-4 border border-ink bg-paper" aria-label={props.title}>
      <header className="flex min-h-8 items-center justify-between gap-3 bg-ink px-3 py-1 text-paper">
        <h3 className="font-cond text-[17px] font-semibold">{props.title}</h3>
        {props.aside}
      </header>
      <div className="px-3 pt-0.5 pb-1.5">
        {props.where && <p className="pt-1 text-[13px] leading-snug text-soft">{props.where}</p>}
        {props.children}
      </div>
    </section>
  );
}
