import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type ScaleKind } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";
import { useTerms, useWords } from "../ui/useTerms";

/** “What will you weigh on, and what can you uncouple there?” gives a short plan of passes. */
export function StartWeighIn({ onStarted }: { onStarted: () => void }) {
  const { sheet, evaluation, newWeighIn } = useDesk();
  const term = useTerms();
  const word = useWords();
  const [scale, setScale] = useState<ScaleKind>("truck_scale");
  const [uncouple, setUncouple] = useState(true);
  const { problem, attempt } = useAttempt();
  const plan = useQuery({
    queryKey: ["plan", sheet.id, sheet.saved_at, scale, uncouple],
    queryFn: () => api.plan(sheet.id, scale, uncouple),
    placeholderData: (before) => before,
  });
  const start = () => attempt(newWeighIn(scale, uncouple), onStarted);
  if (!plan.data) {
    // nothing jumps under the thumb: the button comes with the plan above it
    return <p className="min-h-[30rem]">{plan.error?.message ?? "Making a plan…"}</p>;
  }
  const scales = plan.data.scales.filter((offer) => offer.kind !== "tongue_scale"); // it has a place of its own below
  return (
    <div className="max-w-5xl">
      <h2 className="font-cond text-[1.25rem] font-semibold">What will you weigh on?</h2>
      <div className="mt-2 grid gap-2 md:grid-cols-4">
        {scales.map((offer) => (
          <label
            key={offer.kind}
            className={`cursor-pointer border border-ink px-3 py-2 has-focus-visible:outline-2 has-focus-visible:outline-offset-2 ${offer.kind === scale ? "bg-ink text-paper" : "hover:bg-sunk"}`}
          >
            <input
              type="radio"
              name="scale"
              className="sr-only"
              checked={offer.kind === scale}
              onChange={() => setScale(offer.kind)}
            />
            <span className="block font-cond text-[1.125rem] font-semibold">{offer.name}</span>
            <span className={`text-[0.875rem] leading-snug ${offer.kind === scale ? "" : "text-soft"}`}>
              {offer.says}
            </span>
          </label>
        ))}
      </div>
      {evaluation.towing && scale !== "trailer_platform" && (
        <div className="mt-4 flex flex-wrap items-center gap-3">
          <span className="text-[1rem]">Can you leave the trailer standing there?</span>
          <Choice
            label="Can you leave the trailer standing there?"
            value={uncouple ? "yes" : "no"}
            options={[
              ["yes", "yes"],
              ["no", "no"],
            ]}
            onChange={(value) => setUncouple(value === "yes")}
          />
        </div>
      )}
      <ol className="mt-5 border-t border-ink" aria-label="The plan">
        {plan.data.passes.map((pass) => (
          <li key={pass.number} className="flex gap-4 border-b border-rule py-2">
            <span className="font-cond text-[1.625rem] leading-none font-semibold">{pass.number}</span>
            <span>
              <span className="block font-cond text-[1.125rem] leading-tight font-semibold">{pass.title}</span>
              <span className="block text-[0.9375rem] leading-snug">{pass.instruction}</span>
              <span className="block text-[0.875rem] text-soft">settles {pass.settles}</span>
            </span>
          </li>
        ))}
      </ol>
      {evaluation.towing && !uncouple && scale !== "trailer_platform" && (
        <p className="mt-2 text-[0.9375rem] leading-snug">
          Without uncoupling, the {word("tongue_weight")} and the trailer in total stay open. A {word("tongue_scale")},
          a beam on a bathroom scale or a lever settles them: “{term("tongue_weight")}, directly”, below the tickets.
        </p>
      )}
      <Refused problem={problem} />
      <Button strong className="mt-4" onClick={() => void start()}>
        Start a weigh-in
      </Button>
    </div>
  );
}
