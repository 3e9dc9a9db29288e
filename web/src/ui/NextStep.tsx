import type { ReactNode } from "react";
import { Link } from "react-router";

/** The one thing to do next where a place is still empty. */
export function NextStep({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link
      to={to}
      className="mt-4 inline-flex min-h-12 items-center bg-ink px-4 font-cond text-[1.1875rem] font-semibold text-paper hover:bg-spruce"
    >
      {children}
    </Link>
  );
}
