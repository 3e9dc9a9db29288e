import { useDesk } from "../api/useSheet";
import { AdvisoryNote } from "../ui/AdvisoryNote";

/** What there is to know beside the checks: warnings with a bar, notes without. */
export function Advisories() {
  const { evaluation } = useDesk();
  const beside = evaluation.advisories.filter((each) => !each.doubt || each.accepted);
  if (beside.length === 0) return null;
  return (
    <section aria-label="Beside the checks" className="mt-4 border-t border-ink pt-2">
      <h2 className="font-cond text-[1.0625rem] font-semibold">Beside the checks</h2>
      <div className="mt-1 space-y-1.5">
        {beside.map((each) => (
          <AdvisoryNote key={`${each.code}${each.path}${each.message}`} advisory={each} />
        ))}
      </div>
    </section>
  );
}
