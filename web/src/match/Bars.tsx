import type { HowMuch } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share as shareText } from "../format";
import { TermMark } from "../ui/Glossary";

/** The heaviest trailer by each limit, as bars on one scale; the shortest is the answer. */
export function Bars({ found }: { found: HowMuch }) {
  const { rig } = useDesk();
  const scale = Math.min(
    Math.max(...found.bars.map((bar) => bar.heaviest), 1),
    2 * Math.max(Math.min(...found.bars.map((bar) => bar.heaviest)), 1),
  );
  return (
    <section aria-label="By each limit">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">
        The heaviest trailer by each limit, in {rig.units.mass}
        <TermMark term="limiting_rating" name="the limiting rating" />
      </h2>
      {found.bars.map((bar) => (
        <details key={bar.check} className="border-b border-rule py-1" data-bar={bar.check} data-binding={bar.binding}>
          <summary className="cursor-pointer list-none">
            <span className="flex items-baseline justify-between gap-3 text-[0.9375rem]">
              <span>
                {bar.label}
                {bar.worked_out && <span className="text-soft"> (not confirmed)</span>}
                {bar.binding && <b className="ml-2 font-cond">the limit</b>}
              </span>
              <span className="font-cond text-[1.125rem] font-semibold">{mass(bar.heaviest)}</span>
            </span>
            <span className="relative mt-0.5 block h-3.5">
              <span
                className={`absolute inset-y-0 left-0 border border-ink ${bar.binding ? "weakest" : bar.worked_out ? "lined" : "bg-spruce"}`}
                style={{ width: `${Math.min(1, bar.heaviest / scale) * 100}%` }}
              />
              {bar.heaviest > scale && <span className="absolute -top-1 right-0 bg-paper pl-1 font-cond">»</span>}
            </span>
          </summary>
          <p className="py-1 text-[0.875rem] leading-snug text-soft">
            {bar.working}. Limit: {bar.source}.
            {bar.break_even !== null &&
              bar.break_even < 1 &&
              ` From a share of ${shareText(bar.break_even)} on it is the limit before every fixed one.`}
          </p>
        </details>
      ))}
    </section>
  );
}
