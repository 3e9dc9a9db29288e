import { useQueue } from "../api/queue";
import { useLost } from "../api/reach";
import { useDesk, useUnsent } from "../api/useSheet";
import { when } from "../format";

/** Words before a verdict that is not of now, or leaves out what was typed since; null while it is current. */
export function useStale(): string | null {
  const { asOf, sheet } = useDesk();
  const lost = useLost() !== null;
  const unsent = useUnsent().size;
  const tickets = useQueue().waiting.filter((each) => each.rig === sheet.id && each.kind === "ticket").length;
  if (!lost && tickets === 0) return null;
  const since = unsent + tickets > 0 ? ", without what you typed since" : "";
  return `As computed ${when(new Date(asOf).toISOString())}${since}:`;
}

/** Across the page while nothing answers, or while something made on this device is still to be sent. */
export function Offline() {
  const { asOf } = useDesk();
  const lost = useLost();
  const made = useQueue().waiting.filter((each) => each.kind !== "typed");
  if (lost === null && made.length === 0) return null;
  return (
    <div
      role="status"
      className="no-print border-b-2 border-ink bg-card px-4 py-2 text-[0.9375rem] leading-snug lg:px-6"
    >
      {lost !== null && (
        <p>
          <span className="font-semibold">No connection to the computer.</span> The figures are those computed{" "}
          {when(new Date(asOf).toISOString())}; there are no new ones until it answers. What you type is kept on this
          device and sent in order.
        </p>
      )}
      {made.length > 0 && (
        <p className="font-semibold">
          {made.length} to be sent: {made.map((each) => each.says).join(" · ")}
        </p>
      )}
    </div>
  );
}
