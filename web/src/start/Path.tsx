import { useQuery } from "@tanstack/react-query";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, type Door, type Evaluation, type PathStep } from "../api/client";
import { useDesk } from "../api/useSheet";
import { isTyping } from "../app/shortcuts";
import { mass } from "../format";
import { LabelPicture } from "../plates/LabelPicture";
import { DryExtras } from "../plates/TrailerPlates";
import { Button, Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { PasteText } from "../ui/Paste";
import { ReadPhoto } from "../ui/ReadPhoto";
import { Standing } from "../ui/Standing";
import { StartWeighIn } from "../weigh/StartWeighIn";
import { TowAnswerPage, TowBar } from "./CanTow";
import { HitchLabels } from "./HitchLabels";
import { TicketShape } from "./TicketShape";

const DOORS: readonly Door[] = ["tow", "going", "labels", "tickets"];

/** A short path: one label a step, big fields, the answer growing below. It is a view of Plates, Pack and Weigh. */
export function Path() {
  const { rig, sheet } = useDesk();
  const [search, setSearch] = useSearchParams();
  const door = DOORS.find((name) => name === search.get("door")) ?? "tow";
  const { trailer, terms, kind } = rig;
  const path = useQuery({
    queryKey: ["path", sheet.id, door, kind, terms, trailer?.style, trailer?.brakes, Boolean(trailer)],
    queryFn: () => api.path(sheet.id, door),
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const steps = path.data ?? [];
  const at = Math.min(Math.max(0, Number(search.get("step") ?? 1) - 1 || 0), Math.max(0, steps.length - 1));
  const go = (to: number) => setSearch({ door, step: String(to + 1) });
  const step = steps[at];
  if (!step) return null;
  return <Steps key={door} door={door} steps={steps} step={step} at={at} go={go} />;
}

function Steps(props: { door: Door; steps: PathStep[]; step: PathStep; at: number; go: (to: number) => void }) {
  const { door, steps, step, at, go } = props;
  const { rig, sheet, evaluation } = useDesk();
  const unit = rig.units.mass;
  const asks = useRef<HTMLFieldSetElement>(null);
  const turned = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another step is what asks for its first figure
  useLayoutEffect(() => {
    if (turned.current) asks.current?.querySelector<HTMLInputElement>("input")?.focus();
    turned.current = true;
  }, [step.id]);
  /** A digit typed before a field has the focus goes into the first one that is empty. */
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!/^[0-9]$/.test(event.key) || isTyping(event.target)) return;
      const inputs = [...(asks.current?.querySelectorAll<HTMLInputElement>("input[data-path], form input") ?? [])];
      (inputs.find((input) => input.value === "") ?? inputs[0])?.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  /** Enter in the last field of a step goes on to the next step. */
  const goOn = (event: React.KeyboardEvent) => {
    const inputs = asks.current?.querySelectorAll("input:not([type=file])") ?? [];
    if (event.key === "Enter" && event.target === inputs[inputs.length - 1] && at + 1 < steps.length) go(at + 1);
  };
  return (
    <div className="flex min-h-full flex-col">
      {door !== "tow" && door !== "tickets" && <Standing />}
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
          {step.more === "behind" && <Behind />}
          {step.more === "camper" && <Aboard label="The camper, loaded" name="camper" />}
          {(step.fields ?? []).map(({ path, label, term, hint }) => (
            <Field
              key={path}
              path={path}
              label={label}
              unit={path.startsWith("vehicle.camper") ? evaluation.length : unit}
              {...(hint ? { hint } : {})}
              {...(term ? { term } : {})}
            />
          ))}
          {step.more === "brakes" && <Brakes />}
          {step.more === "extras" && <DryExtras />}
          {step.sign && (step.fields ?? []).length > 0 && (
            <ReadLabel
              step={step}
              onTaken={() => {
                if (!step.more && at + 1 < steps.length) go(at + 1);
              }}
            />
          )}
          {step.sign && (step.fields ?? []).length > 0 && <PasteText />}
          {step.more === "hitch" && <HitchLabels />}
          {step.more === "shape" && <TicketShape />}
          {step.more === "people" && <Aboard label="All of it" name="people and gear" />}
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
              {((step.fields ?? []).length > 0 || step.more === "hitch") && (
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
      {door === "tow" && step.more !== "answer" && <TowBar onAnswer={() => go(steps.length - 1)} />}
    </div>
  );
}

/** What is aboard, as one sum; a list can take its place in Pack. */
function Aboard({ label, name }: { label: string; name: string }) {
  const { rig, sheet, addItems } = useDesk();
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const loads = (rig.loads ?? []).map((load, index) => ({ load, index }));
  const inVehicle = loads.filter(
    ({ load }) => load.on === "vehicle" && (load.name === "camper") === (name === "camper"),
  );
  const only = inVehicle.length === 1 ? inVehicle[0] : undefined;
  if (only) return <Field path={`loads[${only.index}].mass`} label={label} unit={rig.units.mass} />;
  if (inVehicle.length > 1) {
    return (
      <p className="text-[1rem]">
        {mass(sheet.pack.on_vehicle)} {rig.units.mass} by {inVehicle.length} items on your list.{" "}
        <Link className="underline" to={`/rigs/${sheet.id}/pack`}>
          Change it in Pack
        </Link>
      </p>
    );
  }
  const add = () => {
    if (!text.trim()) return;
    addItems({ text: `${name}, ${text}`, on: "vehicle", position: "" }).then(
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
      <label className="flex items-center gap-3 border-b border-rule py-1 text-[1rem]">
        <span className="flex-1">{label}</span>
        <input
          value={text}
          autoComplete="off"
          className="h-11 w-32 border-b-2 border-edge bg-card px-2 text-right font-cond text-[1.3125rem] font-semibold outline-none focus:border-ink"
          onChange={(event) => setText(event.currentTarget.value)}
          onBlur={add}
        />
        <span className="text-[0.875rem] text-soft">{rig.units.mass}</span>
      </label>
      {problem && <p className="mt-1 border-l-4 border-ink pl-2 text-[0.875rem] font-semibold">{problem}</p>}
    </form>
  );
}

const BEHIND = [
  ["towed_car", "A car on its own wheels", "Nothing rests on the hitch. It needs a label of its own, and brakes."],
  [
    "car_carrier",
    "A car on a dolly or a trailer",
    "Weighed together with what carries it; some of it rests on the hitch.",
  ],
  [null, "Nothing yet", "The answer is how much it can tow at all."],
] as const;

/** What follows a motorhome: chosen once, changed in Plates. */
function Behind() {
  const { rig, change } = useDesk();
  const now = rig.trailer ? (rig.trailer.style ?? "box") : null;
  return (
    <div className="space-y-2" role="radiogroup" aria-label="What follows the motorhome">
      {BEHIND.map(([style, title, says]) => (
        // biome-ignore lint/a11y/useSemanticElements: a card with two lines, chosen like a radio button
        <button
          key={title}
          type="button"
          role="radio"
          aria-checked={now === style}
          className={`block min-h-14 w-full border border-ink px-3 py-2 text-left ${now === style ? "bg-ink text-paper" : "bg-card"}`}
          onClick={() => change([{ path: "trailer", op: "set", value: style && { style } }], "what follows")}
        >
          <span className="block font-cond text-[1.1875rem] leading-tight font-semibold">{title}</span>
          <span className={`block text-[0.9375rem] leading-snug ${now === style ? "" : "text-soft"}`}>{says}</span>
        </button>
      ))}
    </div>
  );
}

/** Whether the towed car brakes: most laws ask for it above some mass, and the ratings differ. */
function Brakes() {
  const { rig, change } = useDesk();
  return (
    <div className="flex min-h-14 flex-wrap items-center justify-between gap-3 border-b border-rule py-1.5 text-[1rem]">
      <span>
        Its brakes while towed
        <span className="block text-[0.875rem] text-soft">a supplemental brake works the pedal of the towed car</span>
      </span>
      <Choice
        label="Its brakes while towed"
        value={rig.trailer?.brakes ?? ""}
        options={[
          ["electric", "supplemental brake"],
          ["none", "none"],
        ]}
        onChange={(value) => change([{ path: "trailer.brakes", op: "set", value }], "brakes of the towed car")}
      />
    </div>
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

const ABOUT: Partial<Record<NonNullable<PathStep["sign"]>, string>> = {
  certification: "certification label",
  placard: "placard",
  trailer: "trailer label",
  receiver: "hitch",
  plate: "hitch",
};

/** The label that a step asks for, read off a photograph instead of typed. */
function ReadLabel({ step, onTaken }: { step: PathStep; onTaken: () => void }) {
  const first = step.fields?.[0]?.path ?? "";
  const part = first.startsWith("trailer") ? "trailer" : first.startsWith("hitch") ? "hitch" : "vehicle";
  const about = (step.sign && ABOUT[step.sign]) ?? "certification label";
  return <ReadPhoto big about={about} label="This label" reads={{ part }} className="mt-2" onTaken={onTaken} />;
}
