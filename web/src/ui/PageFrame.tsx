import { type ReactNode, type Ref, useEffect } from "react";
import { Link } from "react-router";

/** The frame of a page that belongs to no rig: its name, what else stands in its head, the way back. */
export function PageFrame(props: {
  name: string;
  title?: string;
  beside?: ReactNode;
  main?: Ref<HTMLElement>;
  children: ReactNode;
}) {
  const { name, title = name, beside } = props;
  useEffect(() => {
    document.title = title === "Noxel" ? title : `${title} · Noxel`;
  }, [title]);
  return (
    <div className="flex h-full flex-col">
      <header className="no-print flex min-h-12 shrink-0 flex-wrap items-center gap-x-4 border-b border-ink px-4">
        <Link to="/" className="font-cond text-[1.1875rem] font-semibold tracking-[0.14em]">
          NOXEL
        </Link>
        <span className="font-cond text-[1.25rem] font-semibold">{name}</span>
        {beside}
        <span className="flex-1" />
        <Link
          to="/"
          className={`flex min-h-11 items-center font-cond text-[1rem] underline underline-offset-2 ${beside ? "max-md:hidden" : ""}`}
        >
          Back to your rigs
        </Link>
      </header>
      <main
        ref={props.main}
        tabIndex={-1}
        className="relative min-h-0 flex-1 overflow-y-auto px-4 py-5 outline-none lg:px-6"
      >
        {props.children}
      </main>
    </div>
  );
}
