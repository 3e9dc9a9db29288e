import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { got, type RowOut as Row, server } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";

const NAMES: Record<string, string> = {
  year: "year",
  engine: "engine",
  axle_ratio: "axle ratio",
  cab: "cab",
  drive: "drive",
  wheelbase: "wheelbase",
};

/** A maker's towing guide, pasted once and kept in the garage: the row of this vehicle, and the rows easily read instead of it. */
export function GuideLookup() {
  const { rig, sheet, change, evaluation } = useDesk();
  const queries = useQueryClient();
  const guides = useQuery({ queryKey: ["guides"], queryFn: () => got(server.GET("/api/guides")) });
  const [chosen, setChosen] = useState("");
  const [text, setText] = useState("");
  const [name, setName] = useState("");
  const { problem, attempt } = useAttempt();
  const known = JSON.stringify(rig.vehicle?.guide ?? {});
  const rows = useQuery({
    queryKey: ["guide-rows", sheet.id, chosen, known],
    queryFn: () =>
      got(
        server.GET("/api/rigs/{rig_id}/guide-rows", {
          params: { path: { rig_id: sheet.id }, query: { guide: chosen } },
        }),
      ),
    enabled: chosen !== "",
  });
  const keep = () =>
    attempt(got(server.POST("/api/guides", { body: { name, unit: rig.units.mass, text } })), (guide) => {
      setText("");
      setName("");
      setChosen(guide.id);
      return queries.invalidateQueries({ queryKey: ["guides"] });
    });
  const take = (row: Row) =>
    change(
      [
        ...Object.entries(row.ratings).map(([key, said]) => ({
          path: `vehicle.ratings.${key}`,
          op: "type" as const,
          text: said,
          source: "manual" as const,
        })),
        ...Object.entries(row.keys).map(([key, said]) => ({
          path: `vehicle.guide.${key}`,
          op: "type" as const,
          text: said,
        })),
      ],
      "a row of the towing guide",
    );
  const said = (row: Row) =>
    Object.entries(row.ratings)
      .map(([key, value]) => `${evaluation.terms[key] ?? key} ${value}`)
      .join(", ");
  const about = (row: Row) => Object.values(row.keys).join(" · ");
  const found = rows.data;
  const own = found?.rows.length === 1 ? found.rows[0] : undefined;
  return (
    <div className="mt-2 border-t border-rule pt-2 pb-1">
      <p className="text-[0.9375rem] font-semibold">Look it up in the guide's table</p>
      {(guides.data?.length ?? 0) > 0 && (
        <select
          aria-label="Towing guide"
          className="mt-1 h-11 w-full border border-edge bg-card px-1"
          value={chosen}
          onChange={(event) => setChosen(event.currentTarget.value)}
        >
          <option value="">choose a guide of the garage</option>
          {guides.data?.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name}, {each.rows} rows
            </option>
          ))}
        </select>
      )}
      {found && !own && (
        <p data-part="guide" className="mt-2 border-l-4 border-ink pl-2 text-[0.9375rem] leading-snug">
          {found.rows.length ? `${found.rows.length} rows fit.` : "No row fits what is entered above."}{" "}
          {found.ask.length > 0 && `Enter above: ${found.ask.map((each) => NAMES[each] ?? each).join(", ")}.`}
        </p>
      )}
      {own && (
        <div data-part="guide" className="mt-2 border-l-4 border-spruce pl-2 text-[0.9375rem] leading-snug">
          <p>
            <b>Your row</b>, line {own.number}: {about(own)}
          </p>
          <p>{said(own)}</p>
          <Button className="mt-1" onClick={() => take(own)}>
            Take this row
          </Button>
        </div>
      )}
      {own && found && found.alike.length > 0 && (
        <div className="mt-2 border-l-4 border-ochre pl-2 text-[0.9375rem] leading-snug">
          <p className="font-semibold">Not yours, but easily read instead:</p>
          {found.alike.map((row) => (
            <p key={row.number}>
              {NAMES[row.differs ?? ""] ?? row.differs} {row.keys[row.differs ?? ""] ?? "not given"}: {said(row)}
            </p>
          ))}
        </div>
      )}
      {chosen !== "" && (
        <button
          type="button"
          className="mt-1 min-h-11 text-[0.875rem] underline underline-offset-2"
          onClick={() =>
            void got(server.DELETE("/api/guides/{guide}", { params: { path: { guide: chosen } } })).then(() => {
              setChosen("");
              return queries.invalidateQueries({ queryKey: ["guides"] });
            })
          }
        >
          take this guide out of the garage
        </button>
      )}
      <details className="mt-1">
        <summary className="flex min-h-11 cursor-pointer items-center underline underline-offset-2">
          paste a guide's table
        </summary>
        <input
          aria-label="Name of the guide"
          placeholder="Which guide, which year"
          maxLength={120}
          className="h-11 w-full border border-edge bg-card px-2"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <textarea
          aria-label="The guide's table"
          placeholder={"Engine; Axle ratio; Cab; Drive; GCWR; Tow rating\n3.5; 3.55; crew; 4x4; 15,900; 9,800"}
          rows={5}
          className="mt-1 w-full border border-edge bg-card p-2 font-mono text-[0.875rem]"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <p className="text-[0.8125rem] leading-snug text-soft">
          A line of headings, then a row a line. Masses are in {rig.units.mass} unless the table says otherwise.
        </p>
        <Refused problem={problem} />
        <Button className="mt-1" disabled={!text.trim()} onClick={() => void keep()}>
          Keep it in the garage
        </Button>
      </details>
    </div>
  );
}
