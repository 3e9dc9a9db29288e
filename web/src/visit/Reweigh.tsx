import { useEffect, useState } from "react";
import type { VisitState } from "../api/client";

const SOON_MS = 30 * 60_000;

/** Until when a re-weigh costs less: counted from the first ticket. */
export function Reweigh({ state, keep }: { state: VisitState; keep: (change: Partial<VisitState>) => void }) {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 20_000);
    return () => clearInterval(tick);
  }, []);
  if (!state.ticket_at || !state.hours) return null;
  const until = state.ticket_at + state.hours * 3_600_000;
  const left = until - now;
  const clock = new Date(until).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  const minutes = Math.max(0, Math.floor(left / 60_000));
  const price = state.again_price ? ` for ${state.again_price}` : "";
  return (
    <p
      role="status"
      className={`mt-4 text-[1rem] leading-snug ${left < SOON_MS ? "border-l-4 border-ochre pl-3 font-semibold" : "text-soft"}`}
    >
      {left > 0
        ? `Re-weigh${price} until ${clock}: ${Math.floor(minutes / 60)} h ${minutes % 60} min left.`
        : `The time for a re-weigh${price} ended at ${clock}.`}{" "}
      <button type="button" className="min-h-9 underline underline-offset-2" onClick={() => keep({ ticket_at: null })}>
        stop counting
      </button>
    </p>
  );
}
