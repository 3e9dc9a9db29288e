import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type HowMuch, RequestFailed } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share as shareText } from "../format";
import { Button, Choice } from "../ui/controls";
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
              <Bars found={found} />
            </div>
            <div>{found.chart && <Room chart={found.chart} />}</div>
          </div>
          <Backwards found={found} />
        </>
      )}
      <EveryPair />
    </div>
  );
}

function Cannot({ error }: { error: Error }) {
  const { sheet } = useDesk();
  const problems = error instanceof RequestFailed ? (error.problem?.errors ?? []) : [];
  return (
    <section aria-label="How much">
      <h2 className="font-cond text-[1.5rem] font-semibold">Not enough to answer yet</h2>
      {(problems.length ? problems : [{ path: "", message: error.message }]).map((each) => (
        <p key={each.path} className="mt-1 text-[1rem]">
          {each.path && (
            <Link
              className="mr-1 underline"
              to={each.path.startsWith("vehicle") ? `/rigs/${sheet.id}/plates#${each.path}` : `/rigs/${sheet.id}/pack`}
            >
              {each.path.split(".").slice(-2).join(", ").replaceAll("_", " ")}
            </Link>
          )}
          {each.message}.
        </p>
      ))}
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
        <p className="mb-2 flex flex-wrap items-center gap-2 text-[0.9375rem]">
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
        </p>
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
          {(evaluation.terms.tongue_share ?? "tongue share").replace(/^./, (first) => first.toUpperCase())}{" "}
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
      <p className="mt-1 flex flex-wrap items-center justify-between gap-2 text-[0.875rem] leading-snug text-soft">
        <span>{found.break_even_says}</span>
        <button type="button" className="text-ink underline" onClick={onReset}>
          as it was
        </button>
      </p>
    </section>
  );
}

/** The heaviest trailer by each limit, as bars on one scale; the shortest is the answer. */
function Bars({ found }: { found: HowMuch }) {
  const { rig } = useDesk();
  const scale = Math.min(
    Math.max(...found.bars.map((bar) => bar.heaviest), 1),
    2 * Math.max(Math.min(...found.bars.map((bar) => bar.heaviest)), 1),
  );
  return (
    <section aria-label="By each limit">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">
        The heaviest trailer by each limit, in {rig.units.mass}
      </h2>
      {found.bars.map((bar) => (
        <details key={bar.check} className="border-b border-rule py-1" data-bar={bar.check} data-binding={bar.binding}>
          <summary className="cursor-pointer list-none">
            <span className="flex items-baseline justify-between gap-3 text-[0.9375rem]">
              <span>
                {bar.label}
                {bar.worked_out && <span className="text-soft"> (not confirmed)</span>}
                {bar.binding && <b className="ml-2 font-cond">the limit</b>}
              </span>
              <span className="font-cond text-[1.125rem] font-semibold">{mass(bar.heaviest)}</span>
            </span>
            <span className="relative mt-0.5 block h-3.5">
              <span
                className={`absolute inset-y-0 left-0 border border-ink ${bar.binding ? "weakest" : bar.worked_out ? "lined" : "bg-spruce"}`}
                style={{ width: `${Math.min(1, bar.heaviest / scale) * 100}%` }}
              />
              {bar.heaviest > scale && <span className="absolute -top-1 right-0 bg-paper pl-1 font-cond">»</span>}
            </span>
          </summary>
          <p className="py-1 text-[0.875rem] leading-snug text-soft">
            {bar.working}. Limit: {bar.source}.
            {bar.break_even !== null &&
              bar.break_even < 1 &&
              ` From a share of ${shareText(bar.break_even)} on it is the limit before every fixed one.`}
          </p>
        </details>
      ))}
    </section>
  );
}

/** Prints the list alone, for the walk around the dealer's yard. */
function printNeeds() {
  document.body.dataset.print = "needs";
  window.print();
  delete document.body.dataset.print;
}

/** The question backwards: what a vehicle would need for this trailer, and what a trailer may weigh for this vehicle. */
function Backwards({ found }: { found: HowMuch }) {
  const { rig } = useDesk();
  const unit = rig.units.mass;
  const short = found.needs.filter((need) => need.enough === false).length;
  return (
    <section
      aria-label="Backwards"
      data-print-part="needs"
      className="mt-8 grid gap-x-10 gap-y-6 border-t border-ink pt-3 lg:grid-cols-2"
    >
      {found.needs.length > 0 && (
        <div data-part="needs">
          <h2 className="font-cond text-[1.25rem] font-semibold">
            What a vehicle would need for {rig.trailer?.name || "this trailer"} at its rating, with us aboard
          </h2>
          <p className="text-[0.875rem] text-soft">
            {short === 0
              ? "This one has all of it, as far as it was entered."
              : `This one falls short in ${short} of ${found.needs.length}.`}
          </p>
          <table className="mt-1 w-full text-[0.9375rem]">
            <tbody>
              {found.needs.map((need) => (
                <tr
                  key={need.key}
                  className="border-t border-rule"
                  data-need={need.key}
                  data-enough={need.enough ?? "unknown"}
                >
                  <td className="py-1 pr-2 leading-tight">
                    {need.label}
                    <span className="block text-[0.8125rem] text-soft">{need.working}</span>
                  </td>
                  <td className="text-right whitespace-nowrap">
                    at least <b className="font-cond text-[1.125rem]">{mass(need.value)}</b>
                  </td>
                  <td className="w-28 pl-3 text-right text-[0.875rem] whitespace-nowrap">
                    {need.has === null ? (
                      <span className="text-soft">not entered</span>
                    ) : (
                      <span className={need.enough ? "text-soft" : "font-semibold text-vermilion"}>
                        has {mass(need.has)}
                        {need.enough ? "" : ": short"}
                      </span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div>
        <h2 className="font-cond text-[1.25rem] font-semibold">
          What a trailer may weigh for {rig.vehicle?.name || "this vehicle"}
        </h2>
        {found.trailer_says.map((line) => (
          <p key={line} className="mt-1 text-[0.9375rem] leading-snug">
            {line}
          </p>
        ))}
        <p className="mt-2 text-[0.8125rem] leading-snug text-soft">
          In {unit}. With the bars slack, the worst case for the rear axle. A rating is the maker's to give: no air bag,
          spring or tire raises it.
        </p>
        <Button className="no-print mt-3" onClick={printNeeds}>
          Print as a shopping list
        </Button>
      </div>
    </section>
  );
}
