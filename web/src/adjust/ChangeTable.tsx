import type { Adjustment } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share as shareText } from "../format";
import { statusWord } from "../ui/Status";

/** Every check before and after, with what its margin gained or lost. */
export function ChangeTable({ tried }: { tried: Adjustment["tried"] }) {
  const { rig } = useDesk();
  const text = (value: number | null, isShare: boolean) =>
    value === null ? "?" : isShare ? shareText(value) : `${mass(Math.abs(value))} ${value < 0 ? "over" : "left"}`;
  const ink = (status: string) =>
    status === "over" || status === "low"
      ? "text-vermilion font-semibold"
      : status === "within"
        ? ""
        : "text-ochre font-semibold";
  return (
    <section aria-label="Before and after">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">
        Before and after, in {rig.units.mass}
      </h2>
      <table className="w-full text-[0.9375rem]">
        <thead>
          <tr className="text-[0.8125rem] text-soft">
            <th className="text-left font-normal">
              <span className="sr-only">Check</span>
            </th>
            <th className="text-right font-normal">before</th>
            <th className="text-right font-normal">after</th>
            <th className="text-right font-normal">change</th>
          </tr>
        </thead>
        <tbody>
          {tried.changes.map((row) => (
            <tr key={row.check} className="border-t border-rule" data-change={row.check} data-now={row.now}>
              <td className="py-1">{row.label}</td>
              <td className={`text-right font-cond text-[1rem] ${ink(row.was)}`}>{text(row.before, row.share)}</td>
              <td className={`text-right font-cond text-[1rem] ${ink(row.now)}`}>
                {text(row.after, row.share)}
                <span className="sr-only"> {statusWord(row.now)}</span>
              </td>
              <td className="w-20 text-right font-cond text-[1rem]">
                {row.change === null || Math.abs(row.change) < (row.share ? 0.0005 : 0.5)
                  ? "·"
                  : `${row.change > 0 ? "+" : "−"}${row.share ? (Math.abs(row.change) * 100).toFixed(1) : mass(Math.abs(row.change))}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
