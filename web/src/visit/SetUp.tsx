import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type ScaleKind, type VisitState } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice } from "../ui/controls";
import { useWords } from "../ui/useTerms";

/** Before the first step: what is weighed on, whether the trailer can be left, what it costs. */
export function SetUp({ onStart }: { onStart: (state: Partial<VisitState>) => void }) {
  const { sheet, evaluation } = useDesk();
  const word = useWords();
  const [scale, setScale] = useState<ScaleKind>("truck_scale");
  const [uncouple, setUncouple] = useState(true);
  const [prices, setPrices] = useState({ first_price: "", again_price: "", hours: "24" });
  const plan = useQuery({
    queryKey: ["plan", sheet.id, sheet.saved_at, scale, uncouple],
    queryFn: () => api.plan(sheet.id, scale, uncouple),
  });
  const asked = [
    ["first_price", "Price of the first weigh"],
    ["again_price", "Price of a re-weigh"],
    ["hours", "The re-weigh price lasts, in hours"],
  ] as const;
  return (
    <div className="mx-auto max-w-2xl">
      <h1 className="font-cond text-[2.125rem] leading-[1.08] font-semibold">The visit, step by step</h1>
      <p className="mt-2 text-[1.125rem] leading-snug">
        One thing at a time, from loading up to the verdict. Leave at any step; it goes on where you left it.
      </p>
      <fieldset className="mt-4">
        <legend className="text-[1.125rem] font-semibold">What will you weigh on?</legend>
        {(plan.data?.scales ?? []).map((offer) => (
          <label
            key={offer.kind}
            className="flex min-h-13 cursor-pointer items-center gap-3 border-b border-rule py-1.5"
          >
            <input
              type="radio"
              name="scale"
              checked={offer.kind === scale}
              onChange={() => setScale(offer.kind)}
              className="h-6 w-6 shrink-0 accent-(--spruce)"
            />
            <span>
              <span className="block font-cond text-[1.25rem] leading-tight font-semibold">{offer.name}</span>
              <span className="block text-[0.9375rem] leading-snug text-soft">{offer.says}</span>
            </span>
          </label>
        ))}
      </fieldset>
      {evaluation.towing && scale !== "trailer_platform" && scale !== "tongue_scale" && (
        <div className="mt-4 flex flex-wrap items-center justify-between gap-3 text-[1.125rem]">
          Can you leave the trailer there?
          <Choice
            label="Can you leave the trailer there?"
            value={uncouple ? "yes" : "no"}
            options={[
              ["yes", "yes"],
              ["no", "no"],
            ]}
            onChange={(value) => setUncouple(value === "yes")}
          />
        </div>
      )}
      <div className={scale === "tongue_scale" ? "hidden" : "mt-4"}>
        {asked.map(([name, label]) => (
          <label key={name} className="flex min-h-12 items-center gap-3 border-b border-rule text-[1.0625rem]">
            <span className="flex-1">{label}</span>
            <input
              value={prices[name]}
              autoComplete="off"
              className="h-11 w-28 border-b-2 border-edge bg-card px-2 text-right font-cond text-[1.3125rem] font-semibold outline-none focus:border-ink"
              onChange={(event) => setPrices({ ...prices, [name]: event.currentTarget.value.slice(0, 40) })}
            />
          </label>
        ))}
      </div>
      <Button
        strong
        className="mt-5 min-h-14 w-full text-[1.3125rem]"
        onClick={() => {
          const { hours, ...rest } = prices;
          const read = Number(hours.replace(",", "."));
          onStart({
            scale,
            uncouple,
            ...rest,
            hours: Number.isFinite(read) ? Math.min(240, Math.max(0, read)) : 24,
            at: 0,
            ticked: [],
          });
        }}
      >
        Begin
      </Button>
      <p className="mt-4 text-[1rem] leading-snug text-soft">
        A dry run at home?{" "}
        <Link className="underline underline-offset-2" to={`/rigs/${sheet.id}/weigh`}>
          Weigh
        </Link>{" "}
        has a simulated scale that weighs this rig, and four ways to measure the {word("tongue_weight")} at home.
      </p>
    </div>
  );
}
