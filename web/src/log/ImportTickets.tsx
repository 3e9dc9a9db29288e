import { useQueryClient } from "@tanstack/react-query";
import { api, type TablePreview } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { ImportTable } from "../ui/ImportTable";

const COLUMN_WORDS = {
  weigh_in: "which weigh-in",
  date: "date",
  place: "place",
  pass: "which pass",
  configuration: "hitched, vehicle only …",
  spring_bars: "bars engaged, slack",
  front: "front axle",
  rear: "rear axle",
  trailer: "trailer axles",
  trailer_1: "trailer axle 1",
  trailer_2: "trailer axle 2",
  trailer_3: "trailer axle 3",
  gross: "gross as printed",
  reading: "which reading",
  mass: "its mass",
  unit: "its unit",
  ticket_number: "ticket number",
  note: "note",
};

const many = (count: number, one: string, more: string) =>
  count === 1 ? `1 ${one}` : `${count.toLocaleString("en-US")} ${more}`;

/** A spreadsheet's table of tickets: a line a pass, or a line a reading. */
export function ImportTickets({ onDone }: { onDone: (said: string) => void }) {
  const { sheet } = useDesk();
  const queries = useQueryClient();
  return (
    <ImportTable<TablePreview["written"], TablePreview>
      words={COLUMN_WORDS}
      row="a pass"
      example={"date,place,configuration,bars,front,rear,trailer\n2026-05-02,Alder Bend,hitched,engaged,2960,3720,5480"}
      preview={(text, written) => api.previewTickets(sheet.id, { text, written })}
      take={async (text, written) => {
        const { added, already } = await api.importTickets(sheet.id, { text, written });
        await queries.invalidateQueries({ queryKey: ["sheet", sheet.id] });
        const there = already ? `; ${already} ${already === 1 ? "was" : "were"} there already` : "";
        onDone(`${many(added, "weigh-in", "weigh-ins")} imported${there}.`);
      }}
      says={(seen) =>
        `${many(seen.weigh_ins, "weigh-in", "weigh-ins")} with ${many(seen.passes, "pass", "passes")}${
          seen.already ? `, of which ${seen.already} there already` : ""
        }. They go in by their dates.`
      }
      some={(seen) => seen.weigh_ins > seen.already}
      more={(written, put) => (
        <>
          <span>
            3/4 is{" "}
            <Choice
              label="Order of dates"
              value={written.day_first ? "day" : "month"}
              options={[
                ["month", "March 4"],
                ["day", "3 April"],
              ]}
              onChange={(value) => put({ day_first: value === "day" })}
            />
          </span>
          <label className="flex items-center gap-2">
            Scale prints in steps of
            <input
              className="h-9 w-24 border border-edge bg-card px-2 text-right"
              value={written.resolution}
              onChange={(event) => put({ resolution: event.currentTarget.value })}
            />
          </label>
        </>
      )}
      onDone={() => undefined}
    />
  );
}
