import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { useWords } from "../ui/useTerms";

/** What the passes prove: every way to the tongue weight side by side, what the bars did, what is still open. */
export function Proof() {
  const { evaluation } = useDesk();
  const word = useWords();
  const unit = evaluation.units.mass;
  if (evaluation.tongue.length + evaluation.findings.length + evaluation.open.length === 0) return null;
  const labels = new Map(evaluation.checks.map((check) => [check.id, check.label.toLowerCase()]));
  return (
    <section aria-label="What the passes prove">
      <h2 className="font-cond text-[1.25rem] font-semibold">What the passes prove</h2>
      {evaluation.tongue.length > 0 && (
        <table className="mt-1 w-full text-[0.9375rem]">
          <caption className="pb-1 text-left text-[0.875rem] text-soft">
            Ways to the {word("tongue_weight")}; the one with the least ± is used.
          </caption>
          <tbody>
            {evaluation.tongue.map((way) => (
              <tr key={way.key} className="border-t border-rule" data-way={way.source}>
                <td className="py-1 pr-2 leading-tight">{way.title}</td>
                <td className="text-right font-cond text-[1.125rem] font-semibold whitespace-nowrap">
                  {mass(way.value)} <span className="text-[0.875rem] text-soft">±{mass(way.plus_minus)}</span>
                </td>
                <td className="w-20 pl-2 text-right font-cond text-[0.9375rem]">
                  {way.used ? (
                    <strong>used</strong>
                  ) : way.agrees ? (
                    "agrees"
                  ) : (
                    <strong className="text-ochre">disagrees</strong>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {evaluation.findings.map((finding) => (
        <p
          key={finding.code + finding.message}
          className="mt-2 max-w-[70ch] text-[0.9375rem] leading-snug"
          data-finding={finding.code}
        >
          {finding.message}
        </p>
      ))}
      {evaluation.open.map((each) => (
        <div key={each.what} className="mt-3 border border-dotted border-ink px-3 py-2" data-open={each.what}>
          <p className="text-[0.9375rem] leading-snug">
            <strong>{each.what}: not known.</strong>{" "}
            {each.low !== null &&
              (each.high !== null
                ? `At the usual shares ${mass(each.low)} to ${mass(each.high)} ${unit}. `
                : `At least ${mass(each.low)} ${unit}${each.proven ? ", proven" : ""}. `)}
            Settled by {each.settled_by}.
          </p>
          {(each.standing?.length ?? 0) > 0 && (
            <p className="mt-1 text-[0.875rem] leading-snug text-soft">
              True whatever it turns out to be: {each.standing?.map((id) => labels.get(id) ?? id).join(", ")}.
            </p>
          )}
        </div>
      ))}
    </section>
  );
}
