import { useDesk } from "../api/useSheet";
import { mass } from "../format";

/** Where the cargo lies and what that does; the rule of thumb beside the truth. */
export function StowageSense() {
  const { sheet, evaluation } = useDesk();
  const { stowage, categories } = sheet.pack;
  const unit = evaluation.units.mass;
  if (!stowage && categories.length < 2) return null;
  const sides = (stowage?.left ?? 0) + (stowage?.right ?? 0);
  return (
    <section aria-label="Stowage" className="mt-6 border-t border-ink pt-2" data-part="stowage">
      <h2 className="font-cond text-[1.125rem] font-semibold">Stowage</h2>
      {stowage?.ahead_share !== null && stowage?.ahead_share !== undefined && (
        <Split
          left={`ahead of the axles ${mass(stowage.ahead)}`}
          right={`${mass(stowage.behind)} behind`}
          share={stowage.ahead_share}
          mark={0.6}
          markSays="60 %"
        />
      )}
      {sides > 0 && stowage && (
        <Split
          left={`left ${mass(stowage.left)}`}
          right={`${mass(stowage.right)} right`}
          share={stowage.left / sides}
          mark={0.5}
          markSays="even"
        />
      )}
      {stowage?.says.map((line) => (
        <p key={line} className="mt-1 text-[0.875rem] leading-snug">
          {line}
        </p>
      ))}
      {categories.length > 1 && (
        <p className="mt-2 text-[0.875rem] leading-snug text-soft">
          {categories.map((each) => `${each.category} ${mass(each.mass)} ${unit}`).join(" · ")}
        </p>
      )}
    </section>
  );
}

function Split(props: { left: string; right: string; share: number; mark: number; markSays: string }) {
  return (
    <div className="mt-1">
      <p className="flex justify-between font-cond text-[0.9375rem] font-semibold">
        <span>{props.left}</span>
        <span>{props.right}</span>
      </p>
      <div className="relative h-4 border border-ink bg-card">
        <span className="absolute inset-y-0 left-0 bg-spruce" style={{ width: `${props.share * 100}%` }} />
        <span className="absolute -inset-y-1 w-[2px] bg-ink" style={{ left: `${props.mark * 100}%` }} />
      </div>
      <p className="relative h-4 text-[0.75rem] text-soft">
        <span className="absolute -translate-x-1/2" style={{ left: `${props.mark * 100}%` }}>
          {props.markSays}
        </span>
      </p>
    </div>
  );
}

/** The plan against the weigh-in that is looked at, and what would explain the difference. */
export function HowFarOff() {
  const { sheet, evaluation } = useDesk();
  const { gap } = sheet.pack;
  if (!gap) return null;
  const unit = evaluation.units.mass;
  const signed = (value: number) => `${value < 0 ? "−" : "+"}${mass(Math.abs(value))}`;
  return (
    <section aria-label="How far off was it?" className="mt-6 border-t border-ink pt-2" data-part="gap">
      <h2 className="font-cond text-[1.125rem] font-semibold">
        How far off was it? The plan against the scale, in {unit}
      </h2>
      {gap.reasons.map((line) => (
        <p key={line} className="mt-1 border-l-4 border-spruce pl-2 text-[0.9375rem] leading-snug">
          {line}
        </p>
      ))}
      <table className="mt-2 w-full text-[0.875rem]">
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">
              <span className="sr-only">Load</span>
            </th>
            <th className="text-right font-normal">planned</th>
            <th className="text-right font-normal">weighed</th>
            <th className="text-right font-normal">off by</th>
          </tr>
        </thead>
        <tbody>
          {gap.rows.map((row) => (
            <tr key={row.key} className="border-t border-rule" data-gap={row.key}>
              <td className="py-0.5 leading-tight">{row.label}</td>
              <td className="text-right font-cond text-[1rem] whitespace-nowrap">
                {mass(row.predicted)} <span className="text-[0.8125rem] text-soft">±{mass(row.spread)}</span>
              </td>
              <td className="text-right font-cond text-[1rem] whitespace-nowrap">
                {mass(row.measured)} <span className="text-[0.8125rem] text-soft">±{mass(row.plus_minus)}</span>
              </td>
              <td
                className={`text-right font-cond text-[1rem] ${Math.abs(row.difference) > row.spread + row.plus_minus ? "font-semibold" : "text-soft"}`}
              >
                {signed(row.difference)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
