import { DropdownMenu } from "radix-ui";
import { useDesk } from "../api/useSheet";
import { capital } from "../format";
import { Button, Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { MenuBody, MenuItem } from "../ui/Menu";
import { useTerms, useWords } from "../ui/useTerms";
import { Chain } from "./Chain";
import { MakersTable } from "./MakersTable";
import { ChoiceLine, More, Plate } from "./Plate";
import { RatingField } from "./RatingField";

const BALL_PARTS = ["receiver", "adapter", "ball mount", "ball", "coupler", "safety chains", "tow bar", "another part"];
const PIN_PARTS = ["fifth-wheel hitch", "gooseneck ball", "coupler", "adapter", "safety chains", "another part"];

/** The hitch chain, link by link: the weakest one counts. */
export function HitchPlates() {
  const { rig, change, evaluation, sheet } = useDesk();
  const t = useTerms();
  const word = useWords();
  const length = evaluation.length;
  const attitude = sheet.plates.attitude;
  const mass = rig.units.mass;
  const parts = rig.hitch?.parts ?? [];
  const ball = rig.kind !== "fifth_wheel" && rig.kind !== "gooseneck";
  return (
    <>
      <Plate photos="hitch" reads="hitch" title="The hitch as a whole" sign={ball ? "receiver" : "plate"}>
        <Field path="hitch.name" label="What you call it" mode="text" />
        {ball && (
          <ChoiceLine label="Spring bars" term="spring_bars">
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
          </ChoiceLine>
        )}
        <Chain />
        {ball && rig.hitch?.weight_distribution && (
          <Field
            path="hitch.bar_rating"
            label="Spring bars made for"
            hint={`${word("tongue_weight")}, stamped on the bars`}
            unit={mass}
            sourced
          />
        )}
        <Field
          path="hitch.weight"
          label="Its own mass"
          hint="all of it on the vehicle; blank: its parts added up"
          unit={mass}
          sourced
        />
        <More
          title={ball ? "Heights: drop or rise, and how the trailer rides" : "Heights: how the trailer rides"}
          filled={Boolean(rig.hitch?.ball_height || rig.trailer?.geometry?.coupler_height)}
        >
          <Field
            path="hitch.ball_height"
            label={ball ? "Top of the ball" : "Hitch plate"}
            hint="above level ground, coupled and loaded"
            unit={length}
            sourced
          />
          <Field
            path="trailer.geometry.coupler_height"
            label={ball ? "Coupler, inside top" : "Pin plate"}
            hint="with the trailer level"
            unit={length}
            sourced
          />
          {attitude && (
            <p
              data-attitude={attitude.level ? "level" : "tilted"}
              className={`my-1 border-l-4 pl-2 text-[0.875rem] leading-snug ${attitude.level ? "border-spruce" : "border-ochre"}`}
            >
              {attitude.says}
            </p>
          )}
        </More>
      </Plate>
      {parts.map((part, index) => (
        <Plate
          key={part.id}
          title={capital(part.kind)}
          sign={ball ? "mount" : "plate"}
          aside={
            <button
              type="button"
              className="font-cond text-[0.875rem] underline underline-offset-2"
              aria-label={`take out: ${part.kind}`}
              onClick={() => change([{ path: `hitch.parts[${index}]`, op: "remove" }], `take out the ${part.kind}`)}
            >
              take out
            </button>
          }
        >
          <Field path={`hitch.parts[${index}].kind`} label="Which part" mode="text" />
          <RatingField path={`hitch.parts[${index}].trailer`} label="Trailer rating" unit={mass} />
          <RatingField path={`hitch.parts[${index}].tongue`} label={`${t("tongue")} rating`} unit={mass} />
          {/ball(?! mount)|coupler/i.test(part.kind) && (
            <Field
              path={`hitch.parts[${index}].size`}
              label={/coupler/i.test(part.kind) ? "Takes a ball of" : "Ball, across"}
              hint={`stamped on it, such as ${length === "in" ? "2 5/16" : "50 mm"}`}
              unit={length}
              sourced
            />
          )}
          <Field path={`hitch.parts[${index}].weight`} label="Its own mass" unit={mass} sourced />
          <More
            title={part.kind === "ball mount" ? "Drop, D-value, extension, lever" : "D-value, extension, lever"}
            filled={[part.d_value, part.extension_leaves, part.behind, part.drop].some((each) => each != null)}
          >
            <Field
              path={`hitch.parts[${index}].d_value`}
              label="D-value, kN"
              hint="on European couplings"
              sourced
              term="d_value"
            />
            {/receiver|mount/i.test(part.kind) && (
              <Field
                path={`hitch.parts[${index}].extension_leaves`}
                label="With an extension it keeps"
                hint="share of its ratings, by its maker: often 50 %"
                sourced
              />
            )}
            {/mount|adapter/i.test(part.kind) && (
              <>
                <Field
                  path={`hitch.parts[${index}].drop`}
                  label="Drop or rise it is set to"
                  hint="where its maker rates it by that"
                  unit={length}
                  sourced
                />
                <MakersTable
                  path={`hitch.parts[${index}].by_drop`}
                  rows={part.by_drop ?? []}
                  columns={[
                    ["drop", length],
                    ["trailer", mass],
                    ["tongue", mass],
                  ]}
                  title={`By its maker, at a drop of: trailer, ${evaluation.terms.tongue}`}
                  link="its maker's ratings by drop"
                  label={`A drop, the trailer rating and the ${evaluation.terms.tongue_rating} a line`}
                  example={length === "in" ? "4 7500 1000\n6 6000 800" : "100 2500 150\n150 2000 120"}
                />
              </>
            )}
            <Field
              path={`hitch.parts[${index}].behind`}
              label="Hangs behind the hitch by"
              hint="its own mass; matters when heavy. Minus when ahead"
              unit={length}
              sourced
            />
          </More>
        </Plate>
      ))}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button className="mb-4">Add a part to the chain</Button>
        </DropdownMenu.Trigger>
        <MenuBody>
          {(ball ? BALL_PARTS : PIN_PARTS).map((kind) => (
            <MenuItem
              key={kind}
              onSelect={() =>
                change([{ path: `hitch.parts[${parts.length}]`, op: "insert", value: { kind } }], "add a hitch part")
              }
            >
              {kind}
            </MenuItem>
          ))}
        </MenuBody>
      </DropdownMenu.Root>
    </>
  );
}
