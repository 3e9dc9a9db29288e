import type { HowMuch } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Button } from "../ui/controls";

/** Prints the list alone, for the walk around the dealer's yard. */
function printNeeds() {
  document.body.dataset.print = "needs";
  window.print();
  delete document.body.dataset.print;
}

/** The question backwards: what a vehicle would need for this trailer, and what a trailer may weigh for this vehicle. */
export function Backwards({ found }: { found: HowMuch }) {
  const { rig } = useDesk();
  const unit = rig.units.mass;
  const short = found.needs.filter((need) => need.enough === false).length;
  return (
    <section
      aria-label="Backwards"
      data-print-part="needs"
      className="mt-8 grid gap-x-10 gap-y-6 border-t border-ink pt-3 lg:grid-cols-2"
    >
      {found.needs.length > 0 && (
        <div data-part="needs">
          <h2 className="font-cond text-[1.25rem] font-semibold">
            What a vehicle would need for {rig.trailer?.name || "this trailer"} at its rating, with us aboard
          </h2>
          <p className="text-[0.875rem] text-soft">
            {short === 0
              ? "This one has all of it, as far as it was entered."
              : `This one falls short in ${short} of ${found.needs.length}.`}
          </p>
          <table className="mt-1 w-full text-[0.9375rem]">
            <tbody>
              {found.needs.map((need) => (
                <tr
                  key={need.key}
                  className="border-t border-rule"
                  data-need={need.key}
                  data-enough={need.enough ?? "unknown"}
                >
                  <td className="py-1 pr-2 leading-tight">
                    {need.label}
                    <span className="block text-[0.8125rem] text-soft">{need.working}</span>
                  </td>
                  <td className="text-right whitespace-nowrap">
                    at least <b className="font-cond text-[1.125rem]">{mass(need.value)}</b>
                  </td>
                  <td className="w-28 pl-3 text-right text-[0.875rem] whitespace-nowrap">
                    {need.has === null ? (
                      <span className="text-soft">not entered</span>
                    ) : (
                      <span className={need.enough ? "text-soft" : "font-semibold text-vermilion"}>
                        has {mass(need.has)}
                        {need.enough ? "" : ": short"}
                      </span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div>
        <h2 className="font-cond text-[1.25rem] font-semibold">
          What a trailer may weigh for {rig.vehicle?.name || "this vehicle"}
        </h2>
        {found.trailer_says.map((line) => (
          <p key={line} className="mt-1 text-[0.9375rem] leading-snug">
            {line}
          </p>
        ))}
        <p className="mt-2 text-[0.8125rem] leading-snug text-soft">
          In {unit}. {rig.hitch?.weight_distribution && "With the bars slack, the worst case for the rear axle. "}A
          rating is the maker's to give: no air bag, spring or tire raises it.
        </p>
        <Button className="no-print mt-3" onClick={printNeeds}>
          Print as a shopping list
        </Button>
      </div>
    </section>
  );
}
