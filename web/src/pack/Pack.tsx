import { useState } from "react";
import type { Evaluation } from "../api/client";
import { useDesk } from "../api/useSheet";
import type { OnPlace, Placed } from "../drawing/Items";
import { RigDrawing } from "../drawing/RigDrawing";
import { mass } from "../format";
import { Ledger } from "../margins/Ledger";
import { TermMark } from "../ui/Glossary";
import { Missing } from "../ui/Missing";
import { Standing } from "../ui/Standing";
import { AddItems } from "./AddItems";
import { Items } from "./Items";
import { Schools } from "./Schools";
import { HowFarOff, StowageSense } from "./Sense";
import { StartFrom } from "./StartFrom";
import { PHASES, Tanks } from "./Tanks";

/** More marks than this hide each other. */
const MOST_MARKS = 90;

/** What goes where, and what the scale will say: predicted posts are outlined, nothing here was weighed. */
export function Pack() {
  const { rig, evaluation, sheet, type, change } = useDesk();
  const [picked, setPicked] = useState<string | null>(null);
  const { pack } = sheet;
  const predicted = pack.whole;
  const shown: Evaluation = { ...evaluation, checks: pack.checks, bars_moved: null };
  const loads = rig.loads ?? [];
  const placed = pack.items.flatMap((item): Placed[] => {
    const load = loads[item.index];
    return load && item.metres !== null && (load.aboard ?? true)
      ? [{ path: `loads[${item.index}]`, name: load.name || "item", on: load.on, metres: item.metres, tank: false }]
      : [];
  });
  const tanks = pack.tanks.flatMap((item): Placed[] => {
    const tank = rig.tanks?.[item.index];
    return tank && item.metres !== null
      ? [{ path: `tanks[${item.index}]`, name: tank.name || tank.fluid, on: tank.on, metres: item.metres, tank: true }]
      : [];
  });
  const place: OnPlace = (path, on, metres, gesture) => {
    const text = `${Math.round(metres * 100)} cm`;
    const now = [...placed, ...tanks].find((each) => each.path === path)?.on;
    if (now === on) type(`${path}.position`, text, "place of an item", gesture);
    else
      change(
        [
          { path: `${path}.on`, op: "set", value: on },
          { path: `${path}.position`, op: "type", text },
        ],
        `into the ${on}`,
      );
  };
  return (
    <>
      <Standing shown={pack.whole ? pack : shown} />
      <RigDrawing
        evaluation={shown}
        short
        predicted={predicted}
        items={[...placed.slice(0, MOST_MARKS), ...tanks]}
        measured={predicted && evaluation.weigh_in ? evaluation.checks : undefined}
        picked={picked}
        onPick={setPicked}
        onPlace={place}
      />
      <div className="mx-auto grid max-w-[87.5rem] items-start gap-x-8 grid-cols-1 gap-y-6 px-4 py-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] lg:px-6">
        <div>
          <AddItems />
          {placed.length > MOST_MARKS && (
            <p className="mb-2 text-[0.8125rem] text-soft">The drawing marks the first {MOST_MARKS} items.</p>
          )}
          <Items on="vehicle" title="In the vehicle" />
          {evaluation.towing && <Items on="trailer" title="In the trailer" />}
          <Tanks />
          <StartFrom />
        </div>
        <div>
          <Predicted picked={picked} onPick={setPicked} />
          <Payload />
          <StowageSense />
          {pack.schools.length > 0 && <Schools />}
          <HowFarOff />
        </div>
      </div>
    </>
  );
}

function Predicted({ picked, onPick }: { picked: string | null; onPick: (id: string | null) => void }) {
  const { sheet, rig, evaluation, change } = useDesk();
  const { pack } = sheet;
  const ink = pack.verdict === "stop" ? "text-vermilion" : pack.verdict === "within" ? "text-spruce" : "text-ochre";
  return (
    <section aria-label="Prediction">
      <p className="text-[0.875rem] font-semibold text-ochre">
        {pack.whole ? "Predicted, not weighed" : "Expected from labels and lists, not weighed"}
        {rig.tanks?.length ? `: ${PHASES.find(([code]) => code === pack.phase)?.[1]}` : ""}. The ± is what the sources
        of its figures allow.
        <TermMark term={pack.whole ? "plus_minus" : "expected"} name={pack.whole ? "±" : "expected"} />
      </p>
      <h2 className="pb-2 font-cond text-[1.375rem] leading-tight font-semibold" data-predicted={pack.verdict}>
        <span className={ink}>{pack.headline.lead}</span> {pack.headline.sentence}
      </h2>
      {!pack.whole && pack.headline.rest.length > 0 && (
        <p className="pb-2 text-[0.9375rem] leading-snug" data-part="outlook">
          {pack.headline.rest.slice(0, 4).join(" ")}
        </p>
      )}
      <Ledger checks={pack.checks} compact grouped={false} picked={picked} opened={null} onPick={onPick} />
      {evaluation.towing && (
        <label className="mt-2 flex min-h-11 items-center gap-2 text-[0.9375rem]">
          <input
            type="checkbox"
            checked={pack.list_complete}
            onChange={(event) =>
              change(
                [{ path: "plan.trailer_by", op: "set", value: event.currentTarget.checked ? "listed" : null }],
                "my list is complete",
              )
            }
            className="h-5 w-5 accent-[var(--ink)]"
          />
          My list for the trailer is complete: expect what it adds up to, not the rating
        </label>
      )}
      {!pack.whole && pack.missing.length > 0 && (
        <details className="mt-2 border-t border-rule pt-1.5">
          <summary className="cursor-pointer font-cond text-[1rem]">
            For each axle: {pack.missing.length} more {pack.missing.length === 1 ? "figure" : "figures"}
          </summary>
          <Missing figures={pack.missing} />
        </details>
      )}
    </section>
  );
}

/** The payload placard, itemised: each pound stands in one line only, the tongue among them. */
function Payload() {
  const { sheet, evaluation } = useDesk();
  const { payload, payload_limit: limit, payload_used: total } = sheet.pack;
  const unit = evaluation.units.mass;
  const row = "flex items-baseline justify-between gap-3 py-0.5";
  return (
    <section aria-label="Payload, itemised" className="mt-6 border-t border-ink pt-2">
      <h2 className="font-cond text-[1.125rem] font-semibold">Payload, itemised, in {unit}</h2>
      {payload.map((line) => (
        <p key={line.label} className={`${row} text-[0.9375rem]`}>
          <span>{line.label}</span>
          <span className="font-cond text-[1.0625rem] font-semibold">{mass(line.mass)}</span>
        </p>
      ))}
      <p className={`${row} border-t border-ink font-semibold`}>
        <span>used{limit === null ? "" : `, of ${mass(limit)}`}</span>
        <span className={`font-cond text-[1.1875rem] ${limit !== null && total > limit ? "text-vermilion" : ""}`}>
          {mass(total)}
        </span>
      </p>
      <p className="text-[0.8125rem] leading-snug text-soft">
        The load on the hitch counts here once, as load on the vehicle. In the combination it is part of the trailer and
        is not counted again.
      </p>
    </section>
  );
}
