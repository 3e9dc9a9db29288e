import { useDesk } from "../api/useSheet";
import { Field } from "../ui/Field";

/** The owner's own measure of effort: a figure, or “never”; what is left blank follows from the item's category. */
export function AllowMore() {
  const { rig, change } = useDesk();
  const loads = (rig.loads ?? []).slice(0, 60);
  const tanks = rig.tanks ?? [];
  const never = (path: string, now: unknown, what: string) =>
    change([{ path, op: "set", value: now === "never" ? null : "never" }], what);
  const box = (path: string, now: unknown, label: string) => (
    <label className="flex items-center gap-1 text-[0.8125rem]">
      <input
        type="checkbox"
        className="h-4 w-4 accent-[var(--ink)]"
        checked={now === "never"}
        aria-label={label}
        onChange={() => never(path, now, label)}
      />
    </label>
  );
  return (
    <details className="mt-5 border border-rule px-3">
      <summary className="cursor-pointer py-2 font-cond text-[1.0625rem] font-semibold">
        What the search must leave alone
      </summary>
      <p className="text-[0.875rem] leading-snug text-soft">
        People and fixed items are never moved; comfort goes before essentials. Tick what the search must leave alone.
      </p>
      <table className="mb-2 w-full text-[0.875rem]">
        <thead>
          <tr className="text-left text-[0.8125rem] text-soft">
            <th className="font-normal">never…</th>
            <th className="font-normal">leave</th>
            <th className="font-normal">move</th>
            <th className="font-normal">swap</th>
          </tr>
        </thead>
        <tbody>
          {loads.map((load, index) => (
            <tr key={load.id} className="border-t border-rule">
              <td className="py-1">{load.name || "an item"}</td>
              {(["leave", "move", "swap"] as const).map((what) => (
                <td key={what}>
                  {box(`loads[${index}].effort.${what}`, load.effort?.[what], `never ${what} ${load.name}`)}
                </td>
              ))}
            </tr>
          ))}
          {tanks.map((tank, index) => (
            <tr key={tank.id} className="border-t border-rule">
              <td className="py-1">{tank.name || tank.fluid}: drain</td>
              <td colSpan={3}>{box(`tanks[${index}].effort`, tank.effort, `never drain ${tank.name}`)}</td>
            </tr>
          ))}
          {rig.hitch?.weight_distribution && (
            <tr className="border-t border-rule">
              <td className="py-1">the bars' tension</td>
              <td colSpan={3}>{box("plan.bars_effort", rig.plan?.bars_effort, "never set the bars")}</td>
            </tr>
          )}
        </tbody>
      </table>
      {loads.length > 0 && (
        <details className="mb-2">
          <summary className="cursor-pointer text-[0.875rem] underline">your own figures for effort</summary>
          {loads.map((load, index) => (
            <Field key={load.id} path={`loads[${index}].effort.leave`} label={`Leave ${load.name || "it"} at home`} />
          ))}
          {tanks.map((tank, index) => (
            <Field key={tank.id} path={`tanks[${index}].effort`} label={`Drain ${tank.name || tank.fluid}`} />
          ))}
        </details>
      )}
    </details>
  );
}
