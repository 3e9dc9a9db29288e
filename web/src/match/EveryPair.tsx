import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Link } from "react-router";
import { api, type MatchCell } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass, share as shareText } from "../format";
import { Button, Choice } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { useTerms } from "../ui/useTerms";
import { BrochureForm } from "./BrochureForm";
import { key, PairCell, type Plan, roomOf, verdictOf } from "./PairCell";
import { PairsCompared } from "./PairsCompared";
import { Some } from "./Some";

/** Every vehicle of the garage with every trailer; two pairs side by side, the difference explained. */
export function EveryPair() {
  const { rig, sheet } = useDesk();
  const t = useTerms();
  const unit = rig.units.mass;
  const [plan, setPlan] = useState<Plan>("rated");
  const [aboard, setAboard] = useState("");
  const [hitch, setHitch] = useState("");
  const [share, setShare] = useState("");
  const [order, setOrder] = useState<"room" | "name">("room");
  const [only, setOnly] = useState(false);
  const [wanted, setWanted] = useState("");
  const [picked, setPicked] = useState<string[]>([]);
  const [adding, setAdding] = useState<"vehicle" | "trailer" | null>(null);
  const [from, setFrom] = useState({ vehicles: 0, trailers: 0 });
  const id = useId();
  const pages = { vehicles_from: String(from.vehicles), trailers_from: String(from.trailers) };
  const asked = { unit, aboard, hitch, share, ...pages };
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
    <section aria-label="Every vehicle with every trailer" className="mt-10 border-t-2 border-ink pt-3">
      <h2 className="font-cond text-[1.5rem] font-semibold">Every vehicle with every trailer</h2>
      <p className="max-w-[86ch] text-[0.9375rem] leading-snug">
        Every vehicle of{" "}
        <Link to="/garage" className="underline">
          the garage
        </Link>{" "}
        with every trailer. A cell says how much room is left, or how much is too much, and the limiting rating. Choose
        two cells to see them side by side.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[0.9375rem]">
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
            className="ml-1 h-9 w-28 border-b-2 border-edge bg-card px-2 text-right outline-none placeholder:text-soft focus:border-ink"
          />{" "}
          <span className="text-[0.8125rem] text-soft">{unit}</span>
        </label>
        <label htmlFor={`${id}h`}>
          Hitch, where its mass is not entered{" "}
          <input
            id={`${id}h`}
            value={hitch}
            inputMode="decimal"
            placeholder="0"
            onChange={(event) => setHitch(event.currentTarget.value)}
            className="ml-1 h-9 w-20 border-b-2 border-edge bg-card px-2 text-right outline-none placeholder:text-soft focus:border-ink"
          />{" "}
          <span className="text-[0.8125rem] text-soft">{unit}</span>
        </label>
        <label htmlFor={`${id}s`}>
          {t("tongue_share")} of every trailer{" "}
          <select
            id={`${id}s`}
            value={share}
            onChange={(event) => setShare(event.currentTarget.value)}
            className="ml-1 h-9 border border-edge bg-card px-1"
          >
            <option value="">its own</option>
            {[0.06, 0.1, 0.12, 0.13, 0.15, 0.2, 0.25].map((each) => (
              <option key={each} value={each}>
                {each * 100} %
              </option>
            ))}
          </select>
        </label>
        <label htmlFor={`${id}w`}>
          <span className="sr-only">Look for</span>
          <input
            id={`${id}w`}
            value={wanted}
            placeholder="look for a name"
            onChange={(event) => setWanted(event.currentTarget.value)}
            className="h-9 w-40 border-b-2 border-edge bg-card px-2 outline-none placeholder:text-soft focus:border-ink"
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
      {found && found.damaged.length > 0 && (
        <p className="mt-2 border-l-4 border-ink pl-2">Left out, damaged where stored: {found.damaged.join(", ")}.</p>
      )}
      {found &&
        (["vehicles", "trailers"] as const).map((side) => (
          <Some
            key={side}
            side={side}
            from={from[side]}
            shown={found.at_once}
            count={side === "vehicles" ? found.vehicle_count : found.trailer_count}
            onFrom={(at) => setFrom({ ...from, [side]: at })}
          />
        ))}
      {found && (
        <div className="mt-3 overflow-x-auto">
          <table className="text-[0.875rem]">
            <thead>
              <tr>
                <th className="p-1">
                  <span className="sr-only">Trailer, or vehicle</span>
                </th>
                {shownTrailers.map((trailer) => (
                  <th
                    key={trailer.id}
                    className="min-w-36 border-b border-ink p-1.5 text-left align-bottom font-cond text-[1.0625rem] leading-tight"
                  >
                    {trailer.name || "a trailer"}
                    <span className="block text-[0.8125rem] font-normal text-soft">
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
                  <th className="max-w-40 border-b border-rule py-1.5 pr-3 text-left font-cond text-[1.0625rem] leading-tight">
                    {vehicle.name || "a vehicle"}
                  </th>
                  {shownTrailers.map((trailer) => {
                    const cell = pairs.get(`${vehicle.id} ${trailer.id}`);
                    return (
                      <td key={trailer.id} className="border border-rule p-0">
                        {cell && (
                          <PairCell
                            cell={cell}
                            plan={plan}
                            picked={picked.includes(key(cell))}
                            onPick={() => pick(cell)}
                          />
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
      <div className="no-print mt-3 flex flex-wrap gap-3">
        <Button onClick={() => setAdding("vehicle")}>A vehicle from a brochure</Button>
        <Button onClick={() => setAdding("trailer")}>A trailer from a brochure</Button>
      </div>
      {picked.length > 0 && (
        <PairsCompared picked={picked} asked={{ aboard, hitch, share }} onForget={() => setPicked([])} />
      )}
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
