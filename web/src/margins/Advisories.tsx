import { useDesk } from "../api/useSheet";

/** What there is to know beside the checks: warnings with a bar, notes without. */
export function Advisories() {
  const { evaluation } = useDesk();
  if (evaluation.advisories.length === 0) return null;
  return (
    <section aria-label="Beside the checks" className="mt-4 border-t border-ink pt-2">
      <h2 className="font-cond text-[17px] font-semibold">Beside the checks</h2>
      <ul className="mt-1 space-y-1.5">
        {evaluation.advisories.map((each) => (
          <li
            key={`${each.code}${each.path}${each.message}`}
            data-advisory={each.code}
            className={`max-w-[80ch] text-[15px] leading-snug ${each.level === "warning" ? "border-l-4 border-ochre pl-2" : "pl-3"}`}
          >
            {each.message}
          </li>
        ))}
      </ul>
    </section>
  );
}
