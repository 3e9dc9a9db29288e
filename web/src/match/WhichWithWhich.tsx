import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { Link } from "react-router";
import { api, type MatchCell, RequestFailed, type ThingKind } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share as shareText } from "../format";
import { Button, Choice } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { StatusMark } from "../ui/Status";

type Plan = "rated" | "expected";
const key = (cell: MatchCell) => `${cell.vehicle} ${cell.trailer}`;
const verdictOf = (cell: MatchCell, plan: Plan) =>
  (plan === "expected" ? (cell.verdict_expected ?? cell.verdict) : cell.verdict) as
    | "stop"
    | "incomplete"
    | "caution"
    | "within";
const roomOf = (cell: MatchCell, plan: Plan) => (plan === "expected" ? (cell.room_expected ?? cell.room) : cell.room);
/** A front axle that stays over its limit whatever room there is besides. */
const inFrontOf = (cell: MatchCell, plan: Plan) =>
  plan === "expected" && cell.verdict_expected ? cell.in_front_expected : cell.in_front;

/** Every vehicle of the garage before every trailer; two pairs side by side, the difference explained. */
export function WhichWithWhich() {
  const { rig, sheet } = useDesk();
  const unit = rig.units.mass;
  const [plan, setPlan] = useState<Plan>("rated");
  const [aboard, setAboard] = useState("");
  const [order, setOrder] = useState<"room" | "name">("room");
  const [only, setOnly] = useState(false);
  const [wanted, setWanted] = useState("");
  const [picked, setPicked] = useState<string[]>([]);
  const [adding, setAdding] = useState<"vehicle" | "trailer" | null>(null);
  const id = useId();
  const asked = { unit, aboard, share: "" };
  const table = useQuery({
    queryKey: ["match", sheet.saved_at, asked],
    queryFn: () => api.match(asked),
    placeholderData: (before) => before,
    retry: false,
  });
  const found = table.data;
  const pairs = new Map(found?.pairs.map((cell) => [key(cell), cell]));
  const named = (name: string) => name.toLowerCase().includes(wanted.trim().toLowerCase());
  const best = (vehicle: string) =>
    Math.max(
      ...(found?.trailers ?? []).map(
        (trailer) => roomOf(pairs.get(`${vehicle} ${trailer.id}`) as MatchCell, plan) ?? -1e9,
      ),
    );
  const vehicles = [...(found?.vehicles ?? [])].sort((a, b) =>
    order === "room" ? best(b.id) - best(a.id) : a.name.localeCompare(b.name),
  );
  const trailers = [...(found?.trailers ?? [])].sort((a, b) => (a.rated ?? 0) - (b.rated ?? 0));
  const fits = (cell: MatchCell | undefined) => cell && verdictOf(cell, plan) !== "stop";
  const shownVehicles = vehicles.filter(
    (each) =>
      (named(each.name) || trailers.some((trailer) => named(trailer.name))) &&
      (!only || trailers.some((trailer) => fits(pairs.get(`${each.id} ${trailer.id}`)))),
  );
  const shownTrailers = trailers.filter(
    (each) => !only || vehicles.some((vehicle) => fits(pairs.get(`${vehicle.id} ${each.id}`))),
  );
  const pick = (cell: MatchCell) =>
    setPicked(
      picked.includes(key(cell)) ? picked.filter((each) => each !== key(cell)) : [...picked.slice(-1), key(cell)],
    );
  return (
    <section aria-label="Which with which" className="mt-10 border-t-2 border-ink pt-3">
      <h2 className="font-cond text-[24px] font-semibold">Which with which</h2>
      <p className="max-w-[86ch] text-[15px] leading-snug">
        Every vehicle of{" "}
        <Link to="/garage" className="underline">
          the garage
        </Link>{" "}
        before every trailer. A cell says how much room is left, or how much is too much, and what ends it. Choose two
        cells to see them side by side.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[15px]">
        <span>
          Plan the trailer{" "}
          <Choice
            label="Plan the trailer"
            value={plan}
            options={[
              ["rated", "at its rating"],
              ["expected", "as it will be loaded"],
            ]}
            onChange={setPlan}
          />
        </span>
        <label htmlFor={`${id}a`}>
          People and gear in every vehicle{" "}
          <input
            id={`${id}a`}
            value={aboard}
            inputMode="decimal"
            placeholder="as listed"
            onChange={(event) => setAboard(event.currentTarget.value)}
            className="ml-1 h-9 w-28 border-b-2 border-rule bg-card px-2 text-right outline-none placeholder:text-soft focus:border-ink"
          />{" "}
          <span className="text-[13px] text-soft">{unit}</span>
        </label>
        <label htmlFor={`${id}w`}>
          <span className="sr-only">Look for</span>
          <input
            id={`${id}w`}
            value={wanted}
            placeholder="look for a name"
            onChange={(event) => setWanted(event.currentTarget.value)}
            className="h-9 w-40 border-b-2 border-rule bg-card px-2 outline-none placeholder:text-soft focus:border-ink"
          />
        </label>
        <span>
          Sort by{" "}
          <Choice
            label="Sort by"
            value={order}
            options={[
              ["room", "room"],
              ["name", "name"],
            ]}
            onChange={setOrder}
          />
        </span>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5 accent-[var(--ink)]"
            checked={only}
            onChange={(event) => setOnly(event.currentTarget.checked)}
          />
          only what may work
        </label>
      </div>
      {table.error && <p className="mt-2 border-l-4 border-ink pl-2 font-semibold">{table.error.message}</p>}
      {found && (
        <div className="mt-3 overflow-x-auto">
          <table className="text-[14px]">
            <thead>
              <tr>
                <th className="p-1" />
                {shownTrailers.map((trailer) => (
                  <th
                    key={trailer.id}
                    className="min-w-36 border-b border-ink p-1.5 text-left align-bottom font-cond text-[17px] leading-tight"
                  >
                    {trailer.name || "a trailer"}
                    <span className="block text-[13px] font-normal text-soft">
                      {trailer.rated === null ? "no rating" : `rated ${mass(trailer.rated ?? 0)}`}
                      {trailer.expected !== null && `, expected ${mass(trailer.expected ?? 0)}`}
                      {`, share ${shareText(trailer.share ?? 0)}`}
                    </span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {shownVehicles.map((vehicle) => (
                <tr key={vehicle.id}>
                  <th className="max-w-40 border-b border-rule py-1.5 pr-3 text-left font-cond text-[17px] leading-tight">
                    {vehicle.name || "a vehicle"}
                  </th>
                  {shownTrailers.map((trailer) => {
                    const cell = pairs.get(`${vehicle.id} ${trailer.id}`);
                    return (
                      <td key={trailer.id} className="border border-rule p-0">
                        {cell && (
                          <Cell cell={cell} plan={plan} picked={picked.includes(key(cell))} onPick={() => pick(cell)} />
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="no-print mt-3 flex flex-wrap gap-3">
        <Button onClick={() => setAdding("vehicle")}>A vehicle from a brochure</Button>
        <Button onClick={() => setAdding("trailer")}>A trailer from a brochure</Button>
      </p>
      {picked.length > 0 && <Compared picked={picked} aboard={aboard} onForget={() => setPicked([])} />}
      <Slip
        open={adding !== null}
        onOpenChange={() => setAdding(null)}
        title={adding === "trailer" ? "A trailer from a brochure" : "A vehicle from a brochure"}
        lead="What you have is enough; what is missing is named in the answer. It goes into the garage."
      >
        {adding && <BrochureForm kind={adding} onDone={() => setAdding(null)} />}
      </Slip>
    </section>
  );
}

function Cell(props: { cell: MatchCell; plan: Plan; picked: boolean; onPick: () => void }) {
  const { cell, plan, picked, onPick } = props;
  const verdict = verdictOf(cell, plan);
  const room = roomOf(cell, plan);
  const inFront = inFrontOf(cell, plan);
  const roomed = room === null ? "?" : room < 0 ? `${mass(-room)} too much` : `${mass(room)} room`;
  const [said, what] =
    inFront !== null && (room ?? 0) >= 0
      ? [`${mass(inFront)} over in front`, "front axle"]
      : [roomed, cell.binding?.toLowerCase() ?? "no limit known"];
  const status = { stop: "over", incomplete: "unknown", caution: "unconfirmed", within: "within" } as const;
  return (
    <button
      type="button"
      aria-pressed={picked}
      data-pair={`${cell.vehicle} ${cell.trailer}`}
      data-verdict={verdict}
      title={[cell.says, ...cell.missing].join("\n")}
      onClick={onPick}
      className={`flex w-full min-w-36 items-start gap-2 p-1.5 text-left leading-tight ${picked ? "bg-sunk shadow-[inset_0_0_0_2px_var(--ink)]" : "hover:bg-card"}`}
    >
      <span className="mt-0.5 shrink-0">
        <StatusMark always status={status[verdict]} />
      </span>
      <span>
        <b className={`font-cond text-[17px] ${verdict === "stop" ? "text-vermilion" : ""}`}>{said}</b>
        <span className="block text-[13px] text-soft">
          {what}
          {verdict === "incomplete" && `; ${cell.missing.length} not known`}
        </span>
      </span>
    </button>
  );
}

function Compared({ picked, aboard, onForget }: { picked: string[]; aboard: string; onForget: () => void }) {
  const { rig } = useDesk();
  const unit = rig.units.mass;
  const [one = "", other = one] = picked;
  const [vehicle = "", trailer = ""] = one.split(" ");
  const [otherVehicle = "", otherTrailer = ""] = other.split(" ");
  const asked = { vehicle, trailer, other_vehicle: otherVehicle, other_trailer: otherTrailer, unit, aboard };
  const found = useQuery({
    queryKey: ["compare", asked],
    queryFn: () => api.compare(asked),
    placeholderData: (before) => before,
  });
  const answer = found.data;
  if (!answer) return null;
  const two = picked.length > 1;
  return (
    <section aria-label="Side by side" className="mt-4 border border-ink bg-card p-4" data-part="compared">
      <div className="flex justify-between gap-3">
        <h3 className="font-cond text-[20px] font-semibold">{two ? "Side by side" : "One pair in full"}</h3>
        <button type="button" className="underline" onClick={onForget}>
          close
        </button>
      </div>
      {(two ? answer.says : [answer.one.says]).map((line) => (
        <p key={line} className="mt-1 text-[15px] leading-snug">
          {line}
        </p>
      ))}
      <table className="mt-2 w-full max-w-3xl text-[14px]">
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">margin, in {unit}</th>
            <th className="text-right font-normal">first</th>
            {two && <th className="text-right font-normal">second</th>}
          </tr>
        </thead>
        <tbody>
          {answer.one_rows.map((row) => {
            const across = answer.other_rows.find((each) => each.check === row.check);
            return (
              <tr key={row.check} className="border-t border-rule">
                <td className="py-0.5">{row.label}</td>
                {(two ? [row, across] : [row]).map((each, index) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the two pairs are told apart by their side
                  <td key={index} className="text-right font-cond text-[16px]">
                    {each?.margin === null || each?.margin === undefined ? (
                      <span className="text-[13px] text-soft">{each?.missing ?? "?"}</span>
                    ) : (
                      <span className={each.margin < 0 ? "font-semibold text-vermilion" : ""}>
                        {mass(Math.abs(each.margin))} {each.margin < 0 ? "over" : "left"}
                      </span>
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 text-[13px] text-soft">
        The trailer at its rating, at a share of {shareText(answer.one.share)}
        {two && answer.other.share !== answer.one.share && ` and ${shareText(answer.other.share)}`}, bars slack.
      </p>
    </section>
  );
}

const FIGURES: Record<Exclude<ThingKind, "hitch">, readonly (readonly [string, string])[]> = {
  vehicle: [
    ["ratings.gvwr", "GVWR"],
    ["ratings.payload", "Payload"],
    ["ratings.gawr_rear", "GAWR rear"],
    ["ratings.gcwr", "GCWR"],
    ["ratings.tow_rating", "Tow rating"],
    ["ratings.tongue_rating", "Tongue limit"],
    ["curb_weight", "Curb weight"],
  ],
  trailer: [
    ["ratings.gvwr", "GVWR"],
    ["dry_weight", "Weight as built, with options"],
    ["ratings.ccc", "CCC"],
  ],
};

function BrochureForm({ kind, onDone }: { kind: "vehicle" | "trailer"; onDone: () => void }) {
  const { rig } = useDesk();
  const queries = useQueryClient();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [problems, setProblems] = useState<Record<string, string>>({});
  const id = useId();
  const add = (event: FormEvent) => {
    event.preventDefault();
    const typed = Object.fromEntries(Object.entries(texts).filter(([, text]) => text.trim()));
    api.brochure({ kind, mass: rig.units.mass, texts: typed }).then(
      () => {
        void queries.invalidateQueries({ queryKey: ["match"] });
        void queries.invalidateQueries({ queryKey: ["garage"] });
        onDone();
      },
      (error: unknown) => {
        const told = error instanceof RequestFailed ? (error.problem?.errors ?? []) : [];
        setProblems(
          told.length
            ? Object.fromEntries(told.map((each) => [each.path.replace(`${kind}.`, ""), each.message]))
            : { name: String(error) },
        );
      },
    );
  };
  return (
    <form onSubmit={add} className="space-y-2">
      {([["name", "What you call it"], ...FIGURES[kind]] as const).map(([path, label]) => (
        <div key={path}>
          <div className="flex items-center gap-2">
            <label htmlFor={id + path} className="flex-1 text-[15px]">
              {label}
            </label>
            <input
              id={id + path}
              value={texts[path] ?? ""}
              onChange={(event) => setTexts({ ...texts, [path]: event.currentTarget.value })}
              className={`h-10 border-b-2 border-rule bg-paper px-2 outline-none focus:border-ink ${path === "name" ? "w-44" : "w-32 text-right font-cond text-[20px] font-semibold"}`}
            />
            <span className="w-6 text-[13px] text-soft">{path === "name" ? "" : rig.units.mass}</span>
          </div>
          {problems[path] && <p className="border-l-4 border-ink pl-2 text-[13px] font-semibold">{problems[path]}</p>}
        </div>
      ))}
      <div className="flex gap-2 pt-1">
        <Button strong type="submit">
          Put it in the garage
        </Button>
        <Button onClick={onDone}>Not now</Button>
      </div>
    </form>
  );
}
