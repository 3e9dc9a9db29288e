import { useDesk } from "../api/useSheet";
import { RatingField } from "../plates/RatingField";
import { Button } from "../ui/controls";
import { useTerms } from "../ui/useTerms";

const BALL = ["receiver", "ball mount", "ball"];
const PIN = ["fifth-wheel hitch"];

/** The ratings of each part of the hitch; the usual parts are named in one tap. */
export function HitchLabels() {
  const { rig, change } = useDesk();
  const t = useTerms();
  const parts = rig.hitch?.parts ?? [];
  const pin = rig.kind === "fifth_wheel" || rig.kind === "gooseneck";
  const usual = pin ? PIN : BALL;
  if (parts.length === 0) {
    const add = () =>
      change(
        usual.map((kind, index) => ({ path: `hitch.parts[${index}]`, op: "insert" as const, value: { kind } })),
        "the parts of the hitch",
      );
    return (
      <Button className="min-h-12" onClick={add}>
        Its parts: {usual.join(", ")}
      </Button>
    );
  }
  return parts.map((part, index) => (
    <section key={part.id} aria-label={part.kind}>
      <h2 className="mt-2 font-cond text-[1.125rem] font-semibold first-letter:uppercase">{part.kind}</h2>
      <RatingField path={`hitch.parts[${index}].trailer`} label="Trailer rating" unit={rig.units.mass} />
      {part.kind !== "ball" && (
        <RatingField path={`hitch.parts[${index}].tongue`} label={`${t("tongue")} rating`} unit={rig.units.mass} />
      )}
    </section>
  ));
}
