import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share } from "../format";
import { driveInWords, useDrives } from "./Drive";

/** Two to four weigh-ins side by side; a difference that the scales can tell stands out, one they cannot stays grey. */
export function Compared({ numbers, others }: { numbers: number[]; others: string[] }) {
  const { sheet, rig } = useDesk();
  const found = useQuery({
    queryKey: ["compare-weigh-ins", sheet.id, sheet.saved_at, numbers, others],
    queryFn: () => api.compareWeighIns(sheet.id, numbers, others),
    placeholderData: (before) => before,
  });
  const drives = useDrives();
  const answer = found.data;
  if (!answer) return null;
  const text = (value: number | null, isShare: boolean) =>
    value === null ? "–" : isShare ? share(value) : mass(value);
  const signed = (value: number, isShare: boolean) =>
    `${value < 0 ? "−" : "+"}${isShare ? `${(Math.abs(value) * 100).toFixed(1)}` : mass(Math.abs(value))}`;
  return (
    <section aria-label="Compared" className="mt-6 border border-ink bg-card p-4" data-part="compared">
      <h2 className="font-cond text-[1.375rem] font-semibold">Compared, in {rig.units.mass}</h2>
      {answer.says.map((line) => (
        <p key={line} className="mt-1 text-[1rem] leading-snug font-semibold">
          {line}
        </p>
      ))}
      {answer.closure.map((line) => (
        <p key={line} data-part="closure" className="mt-1 text-[0.9375rem] leading-snug">
          {line}
        </p>
      ))}
      {answer.warnings.map((line) => (
        <p key={line} data-part="not-alike" className="mt-1 border-l-4 border-ochre pl-2 text-[0.875rem] leading-snug">
          {line}
        </p>
      ))}
      <div className="mt-2 overflow-x-auto">
        <table className="w-full text-[0.9375rem]">
          <thead>
            <tr className="text-left">
              <th scope="col">
                <span className="sr-only">What is compared</span>
              </th>
              {answer.titles.map((title, index) => (
                <th
                  key={`${numbers[index] ?? others[index - numbers.length]}`}
                  className="min-w-32 py-1 pl-3 text-right align-bottom text-[0.8125rem] leading-tight font-normal text-soft"
                >
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {answer.rows.map((row) => (
              <tr key={row.key} className="border-t border-rule" data-compared={row.key}>
                <td className="min-w-24 py-1 leading-tight md:whitespace-nowrap">{row.label}</td>
                {row.values.map((value, index) => {
                  const by = row.differences[index] ?? null;
                  return (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a column's place is its name
                    <td key={index} className="pl-3 text-right font-cond text-[1.0625rem] whitespace-nowrap">
                      {text(value, row.share)}
                      {index > 0 && by !== null && (
                        <span className={`ml-2 text-[0.9375rem] ${row.real[index] ? "font-semibold" : "text-soft"}`}>
                          {row.real[index] ? signed(by, row.share) : "same"}
                        </span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
            {numbers.some((number) => driveInWords(drives[number])) && (
              <tr className="border-t border-rule align-top" data-compared="drive">
                <td className="py-1 leading-tight">After the drive</td>
                {answer.titles.map((title, index) => (
                  <td key={title} className="pl-3 text-right text-[0.875rem] leading-snug">
                    {driveInWords(drives[numbers[index] ?? 0]) || "–"}
                  </td>
                ))}
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
}
