import type { ReadinessItem } from "../api/client";
import { useDesk, useUnsent } from "../api/useSheet";
import { day } from "../format";
import { OwnLines } from "./OwnLines";

const today = () => {
  const now = new Date();
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((part) => String(part).padStart(2, "0")).join("-");
};

/** Beyond weight: what this rig needs before it rolls: each line with its reason and the day it was done. */
export function ReadyList() {
  const { sheet, change } = useDesk();
  const unsent = useUnsent();
  const list = sheet.plates.ready.map((each) => {
    const ticked = unsent.get(`ready.${each.code}`);
    return ticked === undefined ? each : { ...each, done: ticked || null, stale: false };
  });
  const open = list.filter((each) => !each.done || each.stale).length;
  return (
    <section aria-label="Before it rolls" data-part="ready" className="mb-4 border border-ink">
      <header className="flex min-h-8 flex-wrap items-center justify-between gap-x-4 bg-ink px-3 py-1 text-paper">
        <h3 className="font-cond text-[1.0625rem] font-semibold">Before it rolls</h3>
        <span className="font-cond text-[0.9375rem]">
          {open === 0 ? "every line is done" : `${open} of ${list.length} to do`}
        </span>
      </header>
      <ul className="gap-x-6 px-3 py-1 md:columns-2">
        {list.map((each) => (
          <li key={each.code} className="break-inside-avoid border-b border-rule">
            <label className="flex cursor-pointer gap-3 py-1.5">
              <input
                type="checkbox"
                className="mt-0.5 h-5 w-5 shrink-0 accent-[var(--ink)]"
                checked={Boolean(each.done) && !each.stale}
                onChange={(event) =>
                  change(
                    [{ path: `ready.${each.code}`, op: "set", value: event.currentTarget.checked ? today() : null }],
                    "a line of the readiness list",
                  )
                }
              />
              <span className="min-w-0">
                <span className="block text-[0.9375rem] leading-snug">{each.text}</span>
                <Fact item={each} />
              </span>
            </label>
          </li>
        ))}
      </ul>
      <OwnLines />
      <p className="px-3 py-2 text-[0.8125rem] leading-snug text-soft">
        The makers' manuals and local law come first; this list knows only what was entered. A tick older than 30 days
        is asked for again.
      </p>
    </section>
  );
}

function Fact({ item }: { item: ReadinessItem }) {
  const mark = { plain: "", missing: "not so here: ", ask: "not known: " }[item.state];
  return (
    <span
      data-state={item.state}
      className={`block text-[0.8125rem] leading-snug ${item.state === "missing" ? "border-l-4 border-ochre pl-2 font-semibold" : "text-soft"}`}
    >
      {mark}
      {item.fact}
      {item.done && ` · ${item.stale ? "last done" : "done"} ${day(item.done)}`}
    </span>
  );
}
