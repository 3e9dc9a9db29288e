import { useDesk } from "../api/useSheet";
import { Button, Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { Chain } from "./Chain";
import { Plate } from "./Plate";
import { RatingField } from "./RatingField";

/** The hitch chain, link by link: the weakest one counts. */
export function HitchPlates() {
  const { rig, change } = useDesk();
  const mass = rig.units.mass;
  const parts = rig.hitch?.parts ?? [];
  const ball = rig.kind !== "fifth_wheel" && rig.kind !== "gooseneck";
  return (
    <>
      <Plate title="The hitch as a whole">
        {ball && (
          <div className="flex flex-wrap items-center justify-between gap-2 border-b border-rule py-1.5">
            <span className="text-[15px]">Spring bars</span>
            <Choice
              label="Spring bars"
              value={rig.hitch?.weight_distribution ? "yes" : "no"}
              options={[
                ["yes", "weight distributing"],
                ["no", "none"],
              ]}
              onChange={(value) =>
                change([{ path: "hitch.weight_distribution", op: "set", value: value === "yes" }], "spring bars")
              }
            />
          </div>
        )}
        <Chain />
        <Field path="hitch.weight" label="Its own mass" hint="counts as load on the vehicle" unit={mass} sourced />
      </Plate>
      {parts.map((part, index) => (
        <Plate
          // biome-ignore lint/suspicious/noArrayIndexKey: a link's place in the chain is its name
          key={index}
          title={part.kind}
          aside={
            <button
              type="button"
              className="font-cond text-[14px] underline underline-offset-2"
              aria-label={`Take ${part.kind} out of the chain`}
              onClick={() => change([{ path: `hitch.parts[${index}]`, op: "remove" }], `take out the ${part.kind}`)}
            >
              take out
            </button>
          }
        >
          <Field path={`hitch.parts[${index}].kind`} label="Which part" mode="text" />
          <RatingField path={`hitch.parts[${index}].trailer`} label="Trailer rating" unit={mass} />
          <RatingField
            path={`hitch.parts[${index}].tongue`}
            label={ball ? "Tongue rating" : "Pin rating"}
            unit={mass}
          />
        </Plate>
      ))}
      <Button
        className="mb-4"
        onClick={() =>
          change(
            [{ path: `hitch.parts[${parts.length}]`, op: "insert", value: { kind: "another part" } }],
            "add a hitch part",
          )
        }
      >
        Add a part to the chain
      </Button>
    </>
  );
}
