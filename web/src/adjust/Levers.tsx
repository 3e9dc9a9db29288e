import type { Lever } from "../api/client";

/** For each check that is over or too close: what must come off it, how much that takes by each route, and what else it does. */
export function Levers({ levers }: { levers: Lever[] }) {
  if (levers.length === 0) return null;
  return (
    <section aria-label="What must come off" className="mt-4">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">What must come off</h2>
      <p className="mt-1 text-[0.875rem] leading-snug text-soft">To clear the limit and its ±, by one of these ways.</p>
      {levers.map((lever) => (
        <details key={lever.check} className="border-b border-rule py-1.5" data-lever={lever.check}>
          <summary className="cursor-pointer text-[0.9375rem] leading-snug">{lever.says}</summary>
          <ul className="mt-1">
            {lever.routes.map((route) => (
              <li key={route.name} className="border-t border-rule py-1 text-[0.875rem] leading-snug">
                <span className={route.says.startsWith("does not") ? "text-soft" : ""}>
                  {route.name}: <b className="font-cond text-[1rem]">{route.says}</b>
                </span>
                {route.worsens.length > 0 && (
                  <span className="block border-l-4 border-ochre pl-2 text-[0.8125rem]">
                    but it would break: {route.worsens.join(", ").toLowerCase()}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </details>
      ))}
    </section>
  );
}
