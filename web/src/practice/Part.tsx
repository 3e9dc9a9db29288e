import type { ReactNode } from "react";
import type { TermSet } from "./yard";

export const TERMS: readonly (readonly [TermSet, string])[] = [
  ["north_america", "North America"],
  ["australia", "Australia, NZ"],
  ["europe", "Europe, UK"],
];

export const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="mt-6">
    <h2 className="mb-2 border-b-2 border-ink font-cond text-[1.375rem] font-semibold">{title}</h2>
    {children}
  </section>
);
