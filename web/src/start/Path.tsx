import { useLayoutEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Evaluation } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { LabelPicture, type Sign } from "../plates/LabelPicture";
import { Button } from "../ui/controls";
import { Field } from "../ui/Field";
import { PasteText } from "../ui/Paste";
import { ReadPhoto } from "../ui/ReadPhoto";
import { useTerms } from "../ui/useTerms";
import { VerdictBar } from "../ui/VerdictBar";
import { StartWeighIn } from "../weigh/StartWeighIn";
import { TowAnswerPage, TowBar } from "./CanTow";
import { HitchLabels } from "./HitchLabels";
import { TicketShape } from "./TicketShape";

/** A field of a step: its label is the rig's own word for a term, else the text. */
type Asked = { path: string; label?: string; term?: string; hint?: string };
type Step = {
  id: string;
  title: string;
  where: string;
  sign?: Sign;
  fields: readonly Asked[];
  /** What else this step holds. */
  more?: "people" | "bring" | "passes" | "hitch" | "answer" | "shape";
};

const DOOR_LABEL: Step = {
  id: "label",
  title: "The label on the driver's door frame",
  where: "White, with the tire sizes. It says GVWR and GAWR.",
  sign: "certification",
  fields: [
    { path: "vehicle.ratings.gvwr", term: "gvwr", hint: "the loaded vehicle" },
    { path: "vehicle.ratings.gawr_rear", term: "gawr_rear" },
  ],
};
const TOW: readonly Step[] = [
  DOOR_LABEL,
  {
    id: "placard",
    title: "The tire placard beside it",
    where: "Yellow and white: “should never exceed …”.",
    sign: "placard",
    fields: [{ path: "vehicle.ratings.payload", term: "payload", hint: "people and cargo, at most" }],
  },
  {
    id: "guide",
    title: "The maker's towing guide",
    where: "In the line of your engine, axle ratio, cab and drive.",
    sign: "guide",
    fields: [
      { path: "vehicle.ratings.tow_rating", term: "tow_rating" },
      { path: "vehicle.ratings.gcwr", term: "gcwr", hint: "vehicle and trailer together" },
    ],
  },
  {
    id: "people",
    title: "Who and what rides in the truck",
    where: "Everybody with their bags, tools, dogs, the bed's load. A sum will do: 180+165+60.",
    fields: [],
    more: "people",
  },
  {
    id: "trailer",
    title: "The trailer's label, or its brochure",
    where: "Outside, front left; a brochure says what it weighs as built.",
    sign: "trailer",
    fields: [
      { path: "trailer.ratings.gvwr", term: "trailer.gvwr", hint: "the loaded trailer in total" },
      { path: "trailer.dry_weight", term: "dry_weight", hint: "as built, empty, with its options" },
      { path: "trailer.dry_tongue", label: "Hitch or pin weight as built" },
    ],
  },
  {
    id: "hitch",
    title: "The hitch's label",
    where: "On the receiver under the bumper, or on the hitch in the bed.",
    sign: "receiver",
    fields: [
      { path: "vehicle.ratings.tongue_rating", term: "tongue_rating", hint: "most the vehicle may carry on its hitch" },
    ],
  },
  { id: "answer", title: "", where: "", fields: [], more: "answer" },
];
const GOING: readonly Step[] = [
  { id: "bring", title: "Before you drive there", where: "Load as for the road.", fields: [], more: "bring" },
  DOOR_LABEL,
  { id: "passes", title: "What you will drive, and why", where: "", fields: [], more: "passes" },
];
/** After the tickets: the labels, those first that settle most. */
const LABELS: readonly Step[] = [
  {
    ...DOOR_LABEL,
    fields: [
      { path: "vehicle.ratings.gvwr", term: "gvwr", hint: "the loaded vehicle" },
      { path: "vehicle.ratings.gawr_front", term: "gawr_front" },
      { path: "vehicle.ratings.gawr_rear", term: "gawr_rear" },
    ],
  },
  {
    id: "trailer",
    title: "The trailer's label",
    where: "Outside, front left, or inside a door.",
    sign: "trailer",
    fields: [
      { path: "trailer.ratings.gvwr", term: "trailer.gvwr", hint: "the loaded trailer in total" },
      { path: "trailer.ratings.gawr[0]", term: "trailer.gawr", hint: "first axle" },
      { path: "trailer.ratings.gawr[1]", term: "trailer.gawr", hint: "second axle, where it has two" },
    ],
  },
  {
    id: "guide",
    title: "The maker's towing guide",
    where: "In the line of your engine, axle ratio, cab and drive.",
    sign: "guide",
    fields: [
      { path: "vehicle.ratings.gcwr", term: "gcwr", hint: "vehicle and trailer together" },
      { path: "vehicle.ratings.tow_rating", term: "tow_rating" },
      { path: "vehicle.ratings.tongue_rating", term: "tongue_rating", hint: "most the vehicle may carry on its hitch" },
    ],
  },
  {
    id: "hitch",
    title: "The labels of the hitch",
    where: "On each part; the weakest one counts.",
    sign: "receiver",
    fields: [],
    more: "hitch",
  },
  {
    id: "placard",
    title: "The tire placard",
    where: "Beside the door label: “should never exceed …”.",
    sign: "placard",
    fields: [
      { path: "vehicle.ratings.payload", term: "payload", hint: "people and cargo, at most" },
      { path: "vehicle.curb_weight", term: "curb_weight", hint: "from the manual: empty, full fluids" },
    ],
  },
];
/** The ticket at once, in the shape of the one in the hand; the labels come after it. */
const TICKETS: readonly Step[] = [
  {
    id: "shape",
    title: "Which of these looks like your ticket?",
    where: "The first one, of the whole rig. The others follow it.",
    fields: [],
    more: "shape",
  },
];
const DOORS: Record<string, readonly Step[]> = { tow: TOW, going: GOING, labels: LABELS, tickets: TICKETS };

/** A short path: one label a step, big fields, the answer growing below. It is a view of Plates, Pack and Weigh. */
export function Path() {
  const { rig, sheet } = useDesk();
  const t = useTerms();
  const [search, setSearch] = useSearchParams();
  const asked = search.get("door") ?? "";
  const door = asked in DOORS ? asked : "tow";
  const without = door === "tow" ? ["trailer"] : ["trailer", "hitch", "guide"];
  const steps = (DOORS[door] ?? TOW).filter((step) => rig.trailer || !without.includes(step.id));
  const at = Math.min(Math.max(0, Number(search.get("step") ?? 1) - 1 || 0), steps.length - 1);
  const step = steps[at] ?? DOOR_LABEL;
  const go = (to: number) => setSearch({ door, step: String(to + 1) });
  const unit = rig.units.mass;
  const asks = useRef<HTMLFieldSetElement>(null);
  const turned = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another step is what asks for its first figure
  useLayoutEffect(() => {
    if (turned.current) asks.current?.querySelector<HTMLInputElement>("input")?.focus();
    turned.current = true;
  }, [step.id]);
  /** Enter in the last field of a step goes on to the next step. */
  const goOn = (event: React.KeyboardEvent) => {
    const inputs = asks.current?.querySelectorAll("input:not([type=file])") ?? [];
    if (event.key === "Enter" && event.target === inputs[inputs.length - 1] && at + 1 < steps.length) go(at + 1);
  };
  return (
    <div className="flex min-h-full flex-col">
      <div className="mx-auto w-full max-w-2xl flex-1 px-4 py-4">
        <p className="text-[0.9375rem] text-soft">
          {step.more === "answer"
            ? rig.trailer
              ? "Can it tow that?"
              : "How much can it tow?"
            : step.more === "shape"
              ? "Your first ticket"
              : `Step ${at + 1} of ${steps.filter((each) => each.more !== "answer").length}`}
        </p>
        {step.more === "answer" ? (
          <TowAnswerPage />
        ) : (
          <h1 className="font-cond text-[1.75rem] leading-tight font-semibold">{step.title}</h1>
        )}
        {step.where && <p className="mt-1 text-[1rem] leading-snug">{step.where}</p>}
        {step.sign && (
          <div className="mt-3 max-w-md">
            <LabelPicture sign={step.sign} />
          </div>
        )}
        <fieldset ref={asks} aria-label={step.title} className="mt-3 min-w-0" onKeyDown={goOn}>
          {step.fields.map(({ path, label, term, hint }) => (
            <Field key={path} path={path} label={label ?? t(term ?? "")} hint={hint} unit={unit} term={term} />
          ))}
          {step.fields.length > 0 && (
            <ReadLabel
              fields={step.fields}
              onTaken={() => {
                if (!step.more && at + 1 < steps.length) go(at + 1);
              }}
            />
          )}
          {step.fields.length > 0 && <PasteText />}
          {step.more === "hitch" && <HitchLabels />}
          {step.more === "shape" && <TicketShape />}
          {step.more === "people" && <People />}
          {step.more === "bring" && <Bring />}
          {step.more === "passes" && <Passes />}
          {step.more === "passes" && (
            <Link
              to={`/rigs/${sheet.id}/visit`}
              className="mt-3 inline-flex min-h-11 items-center text-[1.125rem] underline underline-offset-2"
            >
              At the scale, on the phone: one step at a time
            </Link>
          )}
        </fieldset>
        <div className="mt-5 flex flex-wrap gap-3">
          {at > 0 && (
            <Button className="min-h-12" onClick={() => go(at - 1)}>
              Back
            </Button>
          )}
          {at + 1 < steps.length ? (
            <>
              <Button strong className="min-h-12 flex-1" onClick={() => go(at + 1)}>
                Next
              </Button>
              {(step.fields.length > 0 || step.more === "hitch") && (
                <Button className="min-h-12" onClick={() => go(at + 1)}>
                  I don’t have this
                </Button>
              )}
            </>
          ) : step.more === "answer" || step.more === "shape" ? null : (
            <Link
              to={`/rigs/${sheet.id}/margins`}
              className="flex min-h-12 flex-1 items-center justify-center bg-ink px-3 font-cond text-[1.1875rem] font-semibold text-paper"
            >
              See what it says
            </Link>
          )}
        </div>
        <p className="mt-4 text-[0.875rem] leading-snug text-soft">
          Leave at any time: everything is saved, and all labels are in Plates.
        </p>
      </div>
      {door !== "tow" && door !== "tickets" && <VerdictBar />}
      {door === "tow" && step.more !== "answer" && <TowBar onAnswer={() => go(steps.length - 1)} />}
    </div>
  );
}

/** What is aboard, as one sum; a list can take its place in Pack. */
function People() {
  const { rig, sheet, addItems } = useDesk();
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const listed = (rig.loads ?? []).flatMap((load, index) => (load.on === "vehicle" ? [index] : []));
  const only = listed.length === 1 ? listed[0] : undefined;
  if (only !== undefined) return <Field path={`loads[${only}].mass`} label="All of it" unit={rig.units.mass} />;
  if (listed.length > 1) {
    return (
      <p className="text-[1rem]">
        {mass(sheet.pack.on_vehicle)} {rig.units.mass} by {listed.length} items on your list.{" "}
        <Link className="underline" to={`/rigs/${sheet.id}/pack`}>
          Change it in Pack
        </Link>
      </p>
    );
  }
  const add = () => {
    if (!text.trim()) return;
    addItems({ text: `people and gear, ${text}`, on: "vehicle", position: "" }).then(
      () => setText(""),
      (error: Error) => setProblem(error.message),
    );
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <label className="flex items-center gap-3 text-[1rem]">
        <span className="flex-1">All of it</span>
        <input
          value={text}
          autoComplete="off"
          className="h-11 w-40 border-b-2 border-edge bg-card px-2 text-right font-cond text-[1.3125rem] font-semibold outline-none focus:border-ink"
          onChange={(event) => setText(event.currentTarget.value)}
          onBlur={add}
        />
        <span className="text-[0.875rem] text-soft">{rig.units.mass}</span>
      </label>
      {problem && <p className="mt-1 border-l-4 border-ink pl-2 text-[0.875rem] font-semibold">{problem}</p>}
    </form>
  );
}

const TO_BRING = (evaluation: Evaluation): readonly string[] => [
  "Fuel full, everyone and everything aboard as for the road; note anything that isn’t",
  "Tanks as you travel with them, and how full they are",
  "Tire pressures set cold, at home",
  ...(evaluation.towing
    ? ["Chocks and gloves: the trailer may have to be set down", "Bars or hitch set as for the road"]
    : []),
  "A pen, and this page: each ticket has a number, a date and a weight for each platform",
];

function Bring() {
  const { evaluation } = useDesk();
  return (
    <ul className="border-t border-rule">
      {TO_BRING(evaluation).map((line) => (
        <li key={line} className="border-b border-rule py-2 text-[1.0625rem] leading-snug">
          {line}
        </li>
      ))}
    </ul>
  );
}

function Passes() {
  const { sheet } = useDesk();
  const [started, setStarted] = useState(false);
  if (started) {
    return (
      <Link className="text-[1.125rem] underline" to={`/rigs/${sheet.id}/weigh`}>
        The weigh-in is ready: type the tickets in Weigh
      </Link>
    );
  }
  return <StartWeighIn onStarted={() => setStarted(true)} />;
}

/** The label that a step asks for, read off a photograph instead of typed. */
function ReadLabel({ fields, onTaken }: { fields: readonly { path: string }[]; onTaken: () => void }) {
  const first = fields[0]?.path ?? "";
  const part = first.startsWith("trailer") ? "trailer" : first.startsWith("hitch") ? "hitch" : "vehicle";
  const about =
    part === "trailer"
      ? "trailer label"
      : part === "hitch"
        ? "hitch"
        : fields.some(({ path }) => path.endsWith("payload"))
          ? "placard"
          : "certification label";
  return <ReadPhoto big about={about} label="This label" reads={{ part }} className="mt-2" onTaken={onTaken} />;
}
