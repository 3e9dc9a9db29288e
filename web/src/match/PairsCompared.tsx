import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share as shareText } from "../format";

/** One pair in full, or two side by side with the difference explained. */
export function PairsCompared(props: { picked: string[]; asked: Record<string, string>; onForget: () => void }) {
  const { picked, onForget } = props;
  const { rig } = useDesk();
  const unit = rig.units.mass;
  const [one = "", other = one] = picked;
  const [vehicle = "", trailer = ""] = one.split(" ");
  const [otherVehicle = "", otherTrailer = ""] = other.split(" ");
  const asked = { vehicle, trailer, other_vehicle: otherVehicle, other_trailer: otherTrailer, unit, ...props.asked };
  const found = useQuery({
    queryKey: ["compare", asked],
    queryFn: () => api.compare(asked),
    placeholderData: (before) => before,
  });
  const answer = found.data;
  if (!answer) return null;
  const two = picked.length > 1;
  return (
    <section aria-label="Side by side" className="mt-4 border border-ink bg-card p-4" data-part="compared">
      <div className="flex justify-between gap-3">
        <h3 className="font-cond text-[1.25rem] font-semibold">{two ? "Side by side" : "One pair in full"}</h3>
        <button type="button" className="underline" onClick={onForget}>
          close
        </button>
      </div>
      {(two ? answer.says : [answer.one.says]).map((line) => (
        <p key={line} className="mt-1 text-[0.9375rem] leading-snug">
          {line}
        </p>
      ))}
      <table className="mt-2 w-full max-w-3xl text-[0.875rem]">
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">margin, in {unit}</th>
            <th className="text-right font-normal">first</th>
            {two && <th className="text-right font-normal">second</th>}
          </tr>
        </thead>
        <tbody>
          {answer.one_rows.map((row) => {
            const across = answer.other_rows.find((each) => each.check === row.check);
            return (
              <tr key={row.check} className="border-t border-rule">
                <td className="py-0.5">{row.label}</td>
                {(two ? [row, across] : [row]).map((each, index) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the two pairs are distinguished by their side
                  <td key={index} className="text-right font-cond text-[1rem]">
                    {each?.margin === null || each?.margin === undefined ? (
                      <span className="text-[0.8125rem] text-soft">{each?.missing ?? "?"}</span>
                    ) : (
                      <span className={each.margin < 0 ? "font-semibold text-vermilion" : ""}>
                        {mass(Math.abs(each.margin))} {each.margin < 0 ? "over" : "left"}
                        {each.status === "tight" && each.plus_minus !== null && ` ± ${mass(each.plus_minus)}`}
                      </span>
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 text-[0.8125rem] text-soft">
        The trailer at its rating, at a share of {shareText(answer.one.share)} ({answer.one.share_way})
        {two && answer.other.share !== answer.one.share && ` and ${shareText(answer.other.share)}`}, spring bars slack.
      </p>
    </section>
  );
}
