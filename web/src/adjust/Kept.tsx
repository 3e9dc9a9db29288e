import type { Adjustment } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";

/** Plans that were kept: what was predicted of each, and, once weighed again, what came. */
export function Kept({ kept }: { kept: Adjustment["kept"] }) {
  const { change, rig } = useDesk();
  if (kept.length === 0) return null;
  return (
    <section aria-label="Kept plans" className="mt-6">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">Kept plans</h2>
      {kept.map((each) => (
        <details key={each.index} className="border-b border-rule py-1" data-kept={each.index}>
          <summary className="cursor-pointer text-[0.9375rem]">
            <b>{each.name}</b>, {each.date}: {each.verdict_says}
          </summary>
          <p className="text-[0.875rem]">{each.said.join(". ")}.</p>
          {each.rows.map(([label, predicted, came]) => (
            <p key={label} className="flex justify-between text-[0.875rem]">
              <span>{label}</span>
              <span className="font-cond">
                predicted {mass(predicted)}, measured {mass(came)} {rig.units.mass}
              </span>
            </p>
          ))}
          <button
            type="button"
            className="font-cond text-[0.875rem] underline"
            onClick={() => change([{ path: `kept_plans[${each.index}]`, op: "remove" }], `forget ${each.name}`)}
          >
            forget it
          </button>
        </details>
      ))}
    </section>
  );
}
