import type { Advisory } from "../api/client";
import { useDesk } from "../api/useSheet";
import { AdvisoryNote } from "../ui/AdvisoryNote";
import { TermMark } from "../ui/Glossary";

/** One change often rights two doubts: it is offered once. */
const same = (one: Advisory["fix"], other: Advisory["fix"]) => Boolean(one) && one?.label === other?.label;

/** What cannot be right, above the verdict: a torn line, both figures, the likely cause, and the change that rights it. */
export function Doubts() {
  const { evaluation } = useDesk();
  const found = evaluation.advisories.filter((each) => each.doubt && !each.accepted);
  if (found.length === 0) return null;
  return (
    <section aria-label="Cannot be right" className="mt-2 border border-ink bg-card" data-part="doubts">
      <svg className="block h-[7px] w-full text-ink" preserveAspectRatio="none" viewBox="0 0 114 7" aria-hidden="true">
        <path
          d="M0 4l4-3 5 5 4-4 6 4 5-5 5 4 4-2 6 4 5-5 4 3 6 1 5-4 4 5 6-4 4 2 5-3 6 5 4-4 5 2 6-3 4 4 5-4 6 3"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <div className="px-3 pb-2">
        <h2 className="font-cond text-[1.125rem] font-semibold">
          {found.length > 1 ? "Some figures cannot be right together" : "Two figures cannot both be right"}
          <TermMark term="doubt" name="a doubt" />
        </h2>
        <div className="space-y-2">
          {found.map((each, index) => (
            <AdvisoryNote
              key={each.code}
              advisory={same(found[index - 1]?.fix, each.fix) ? { ...each, fix: null } : each}
            />
          ))}
        </div>
      </div>
    </section>
  );
}
