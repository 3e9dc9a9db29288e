import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type HowMuch, RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Boundary } from "../app/Boundary";
import { capital, mass, share as shareText } from "../format";
import { Choice } from "../ui/controls";
import { Missing } from "../ui/Missing";
import { NextStep } from "../ui/NextStep";
import { Backwards } from "./Backwards";
import { Bars } from "./Bars";
import { EveryPair } from "./EveryPair";
import { Room } from "./Room";

/** How much it can tow, and every vehicle with every trailer: the least of all limits, not the largest figure in a brochure. */
export function Match() {
  const { sheet, rig, number } = useDesk();
  const unit = rig.units.mass;
  const [added, setAdded] = useState(0);
  const [share, setShare] = useState<number | null>(null);
  const [start, setStart] = useState<"plan" | "weigh_in" | null>(null);
  const asked = {
    start: start ?? "",
    added: added ? String(added) : "",
    share: share ? String(share) : "",
    weigh_in: String(number ?? ""),
  };
  const answer = useQuery({
    queryKey: ["how-much", sheet.id, sheet.saved_at, asked],
    queryFn: () => api.howMuch(sheet.id, asked),
    placeholderData: (before) => before,
    retry: false,
  });
  const found = answer.data;
  return (
    <div className="mx-auto max-w-[87.5rem] px-4 py-4 lg:px-6">
      {answer.error && <Cannot error={answer.error} />}
      {found && !answer.error && (
        <>
          <p className="text-[0.9375rem] text-soft">
            How much can {rig.vehicle?.name || "it"} tow, loaded{" "}
            {found.start === "weigh_in" ? "as it was weighed" : "as planned"}?
          </p>
          <h2 className="max-w-[70ch] font-cond text-[1.625rem] leading-tight font-semibold" data-part="ceiling">
            {found.ceiling !== null && (
              <span className="mr-2 text-[2.5rem] leading-none" data-ceiling>
                {mass(found.ceiling)} {unit}
              </span>
            )}
            {found.says}
          </h2>
          <div className="mt-4 grid grid-cols-1 items-start gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
            <div>
              <Sliders
                found={found}
                added={added}
                share={share ?? found.share}
                onAdded={setAdded}
                onShare={setShare}
                onStart={setStart}
                onReset={() => {
                  setAdded(0);
                  setShare(null);
                }}
              />
              {found.bars.length > 0 ? (
                <Bars found={found} />
              ) : (
                <NextStep to={`/rigs/${sheet.id}/path?door=tow`}>Enter the first label</NextStep>
              )}
            </div>
            <div>
              {found.chart && (
                <Boundary part="The chart">
                  <Room chart={found.chart} />
                </Boundary>
              )}
            </div>
          </div>
          <Backwards found={found} />
        </>
      )}
      <EveryPair />
    </div>
  );
}

function Cannot({ error }: { error: Error }) {
  const problems = error instanceof RequestFailed ? (error.problem?.errors ?? []) : [];
  return (
    <section aria-label="How much">
      <h2 className="font-cond text-[1.5rem] font-semibold">Not enough to answer yet</h2>
      <Missing figures={problems.length ? problems : [{ path: "", message: error.message }]} />
    </section>
  );
}

function Sliders(props: {
  found: HowMuch;
  added: number;
  share: number;
  onAdded: (value: number) => void;
  onShare: (value: number) => void;
  onStart: (value: "plan" | "weigh_in") => void;
  onReset: () => void;
}) {
  const { found, added, share, onAdded, onShare, onStart, onReset } = props;
  const { rig, evaluation } = useDesk();
  const unit = rig.units.mass;
  const [less, more, step] = unit === "lb" ? [-800, 1500, 10] : [-400, 700, 5];
  const line = "block w-full accent-[var(--ink)]";
  return (
    <section aria-label="What if" className="mb-5 border border-ink bg-card p-3">
      {found.can_start.length > 1 && (
        <div className="mb-2 flex flex-wrap items-center gap-2 text-[0.9375rem]">
          Starting from
          <Choice
            label="Start from"
            value={found.start}
            options={[
              ["weigh_in", "the scale"],
              ["plan", "the plan"],
            ]}
            onChange={onStart}
          />
        </div>
      )}
      <label className="block text-[0.9375rem]">
        <span className="flex justify-between">
          People and gear in the vehicle{" "}
          <b className="font-cond text-[1.125rem]">
            {added === 0 ? "as they are" : `${added > 0 ? "+" : "−"}${mass(Math.abs(added))} ${unit}`}
          </b>
        </span>
        <input
          type="range"
          min={less}
          max={more}
          step={step}
          value={added}
          onChange={(event) => onAdded(Number(event.currentTarget.value))}
          className={line}
        />
      </label>
      <label className="mt-2 block text-[0.9375rem]">
        <span className="flex justify-between">
          <span>
            {capital(evaluation.terms.tongue_share ?? "tongue share")}, {found.share_way}
          </span>{" "}
          <b className="font-cond text-[1.125rem]">{shareText(share)}</b>
        </span>
        <input
          type="range"
          min={found.shares[0]}
          max={found.shares[1]}
          step={0.001}
          value={share}
          onChange={(event) => onShare(Number(event.currentTarget.value))}
          className={line}
        />
      </label>
      <div className="mt-1 flex flex-wrap items-center justify-between gap-2 text-[0.875rem] leading-snug text-soft">
        <span>{found.break_even_says}</span>
        <button type="button" className="text-ink underline" onClick={onReset}>
          as it was
        </button>
      </div>
    </section>
  );
}
