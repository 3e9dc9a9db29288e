import { useSyncExternalStore } from "react";
import { longWork } from "../api/long";

/** What takes long, and how far it is; nothing when nothing does. */
export function LongStrip() {
  const work = useSyncExternalStore(longWork.subscribe, longWork.now);
  if (!work) return null;
  const known = work.of > 0;
  return (
    <div
      role="status"
      data-part="long"
      className="no-print fixed right-3 bottom-18 z-50 w-72 border border-ink bg-card px-3 py-2 text-[0.9375rem] md:bottom-4"
    >
      <p className="flex justify-between gap-3">
        <span>{work.says} …</span>
        {known && (
          <span className="font-cond text-[1rem]">
            {work.done.toLocaleString("en-US")} of {work.of.toLocaleString("en-US")}
          </span>
        )}
      </p>
      {known && (
        <progress aria-label={work.says} className="h-2 w-full accent-[var(--ink)]" value={work.done} max={work.of} />
      )}
    </div>
  );
}
