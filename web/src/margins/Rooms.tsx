import { useDesk } from "../api/useSheet";
import { useWords } from "../ui/useTerms";

/** The usable room: how much more can go in before the first limit is met, and which limit that is. */
export function Rooms() {
  const { evaluation } = useDesk();
  const word = useWords();
  if (evaluation.rooms.length === 0) return null;
  return (
    <section aria-label="Usable room" className="mt-4 border-t border-ink pt-2">
      <h2 className="font-cond text-[1.0625rem] font-semibold">Usable headroom</h2>
      {evaluation.rooms.map((room) => (
        <p key={room.where} data-room={room.where} className="mt-1 max-w-[80ch] text-[0.9375rem] leading-snug">
          {room.sentence}
        </p>
      ))}
      <p className="mt-1 max-w-[80ch] text-[0.8125rem] leading-snug text-soft">
        Calculated over the rear axle in the vehicle, and spread as now in the trailer, so that the{" "}
        {word("tongue_share")} stays.
      </p>
    </section>
  );
}
