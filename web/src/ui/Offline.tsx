import { again, discard, useOutbox } from "../api/outbox";
import { useLost } from "../api/reach";
import { useDesk, useUnsent } from "../api/useSheet";
import { when } from "../format";

/** Words before a verdict that is not of now, or leaves out what was typed since; null while it is current. */
export function useStale(): string | null {
  const { asOf, sheet } = useDesk();
  const lost = useLost() !== null;
  const unsent = useUnsent().size;
  const tickets = useOutbox().filter((each) => each.rig === sheet.id && each.kind === "ticket").length;
  if (!lost && tickets === 0) return null;
  const since = unsent + tickets > 0 ? ", without what you typed since" : "";
  return `As computed ${when(new Date(asOf).toISOString())}${since}:`;
}

/** Across the page while nothing answers, or while something made on this device is still to be sent. */
export function Offline() {
  const { asOf } = useDesk();
  const lost = useLost();
  const outbox = useOutbox();
  const refused = outbox.filter((each) => each.why !== undefined);
  const waiting = outbox.length - refused.length;
  if (lost === null && outbox.length === 0) return null;
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
      {waiting > 0 && (
        <p className="font-semibold">
          {waiting} to be sent:{" "}
          {outbox
            .filter((each) => each.why === undefined)
            .map((each) => each.says)
            .join(" · ")}
        </p>
      )}
      {refused.map((each) => (
        <p key={each.key} className="mt-1 border-l-4 border-ink pl-2">
          <span className="font-semibold">{each.says} was refused:</span> {each.why}{" "}
          <button type="button" className="min-h-9 px-1 underline" onClick={() => void again(each)}>
            try again
          </button>
          <button type="button" className="min-h-9 px-1 underline" onClick={() => void discard(each.key)}>
            discard
          </button>
        </p>
      ))}
    </div>
  );
}
