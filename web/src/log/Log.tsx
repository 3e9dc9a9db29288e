import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { Kept } from "../adjust/Kept";
import { api, type Log } from "../api/client";
import { useDesk } from "../api/useSheet";
import { day, mass } from "../format";
import { Button } from "../ui/controls";
import { StatusMark } from "../ui/Status";
import { Compared } from "./Compared";
import { Multiples } from "./Multiples";

const MARK = { stop: "over", incomplete: "unknown", caution: "tight", within: "within" } as const;

/** The record: every weigh-in in a line, every load over time, two to four of them compared, papers to take along. */
export function LogPlace() {
  const { sheet } = useDesk();
  const found = useQuery({
    queryKey: ["log", sheet.id, sheet.revision],
    queryFn: () => api.log(sheet.id),
    placeholderData: (before) => before,
  });
  const [chosen, setChosen] = useState<number[]>([]);
  const log = found.data;
  if (found.error) return <p className="p-6 font-semibold">{found.error.message}</p>;
  if (!log) return null;
  const toggle = (number: number) =>
    setChosen(chosen.includes(number) ? chosen.filter((each) => each !== number) : [...chosen, number].slice(-4));
  return (
    <div className="mx-auto max-w-[1400px] px-4 py-4 lg:px-6">
      <Papers />
      <Kept kept={log.kept} />
      {log.entries.length === 0 ? (
        <p className="mt-6 text-[16px]">
          Nothing weighed yet. Every weigh-in will stand here, with what changed since the one before.
        </p>
      ) : (
        <>
          <section aria-label="Weigh-ins" className="mt-6">
            <h2 className="border-b border-ink font-cond text-[22px] font-semibold">Weigh-ins</h2>
            <p className="py-1 text-[14px] text-soft">
              Tick two to four to compare them. A change is named only where it is more than the scales' ±.
            </p>
            {log.entries.map((entry) => (
              <Line
                key={entry.number}
                entry={entry}
                chosen={chosen.includes(entry.number)}
                onChoose={() => toggle(entry.number)}
              />
            ))}
          </section>
          {chosen.length > 1 && <Compared numbers={[...chosen].sort((a, b) => a - b)} />}
          {log.entries.length > 1 && <Multiples log={log} />}
        </>
      )}
    </div>
  );
}

function Line(props: { entry: Log["entries"][number]; chosen: boolean; onChoose: () => void }) {
  const { entry, chosen, onChoose } = props;
  const { sheet, rig } = useDesk();
  const navigate = useNavigate();
  const unit = rig.units.mass;
  const when = entry.date ? day(entry.date) : `No. ${entry.number}`;
  const totals = [
    ["vehicle_hitched", "vehicle"],
    ["trailer_gross", "trailer"],
    ["combination_gross", "together"],
  ] as const;
  return (
    <article data-entry={entry.number} className={`flex gap-3 border-b border-rule py-2 ${chosen ? "bg-sunk" : ""}`}>
      <input
        type="checkbox"
        aria-label={`Compare ${when}`}
        className="mt-1 h-5 w-5 shrink-0 accent-[var(--ink)]"
        checked={chosen}
        onChange={onChoose}
      />
      <div className="min-w-0 flex-1">
        <p className="flex flex-wrap items-baseline gap-x-3">
          <StatusMark always status={MARK[entry.verdict]} />
          <button
            type="button"
            className="font-cond text-[19px] font-semibold underline-offset-2 hover:underline"
            onClick={() => navigate(`/rigs/${sheet.id}/margins?weigh-in=${entry.number}`)}
          >
            {when}
          </button>
          <span className="text-[15px] text-soft">{entry.place}</span>
          <span className="font-cond text-[16px]">
            {totals
              .flatMap(([key, name]) =>
                entry.totals[key] === undefined ? [] : [`${name} ${mass(entry.totals[key] ?? 0)}`],
              )
              .join(" · ")}{" "}
            {unit}
          </span>
        </p>
        <p className="text-[15px] leading-snug">{entry.sentence}</p>
        {entry.changed.length > 0 && (
          <p className="text-[14px] leading-snug text-soft">Since the one before: {entry.changed.join(", ")}.</p>
        )}
        {entry.note && <p className="text-[14px] leading-snug text-soft italic">{entry.note}</p>}
      </div>
    </article>
  );
}

/** What can be printed and taken along, and bringing a whole logbook in. */
function Papers() {
  const { sheet, weighIn } = useDesk();
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState<string | null>(null);
  const at = weighIn ? `weigh_in=${weighIn}&` : "";
  const link = "flex min-h-10 items-center border border-ink px-3 font-cond text-[17px] font-semibold hover:bg-sunk";
  const bring = (chosen: File) =>
    api.importLogbook(chosen).then(
      ({ added, already }) => {
        setTold(`${added.length} brought in${already ? `, ${already} were there already` : ""}.`);
        void queries.invalidateQueries({ queryKey: ["rigs"] });
      },
      (error: Error) => setTold(`Nothing was brought in. ${error.message}`),
    );
  return (
    <section aria-label="Papers" className="no-print">
      <h2 className="border-b border-ink font-cond text-[22px] font-semibold">Papers and files</h2>
      <div className="mt-2 flex flex-wrap gap-2">
        <a
          className={`${link} bg-ink text-paper hover:bg-spruce`}
          href={`/api/rigs/${sheet.id}/paper.pdf?${at}what=glove_box`}
        >
          A page for the glove box
        </a>
        <a className={link} href={`/api/rigs/${sheet.id}/paper.pdf?${at}what=report`}>
          The full report
        </a>
        <a className={link} href={`/api/rigs/${sheet.id}/file`}>
          This rig as a file
        </a>
        <a className={link} href={`/api/rigs/${sheet.id}/tickets.csv`}>
          Tickets, CSV
        </a>
        <a className={link} href={`/api/rigs/${sheet.id}/items.csv`}>
          Items, CSV
        </a>
        <a className={link} href="/api/logbook">
          Every rig in one file
        </a>
        <Button onClick={() => file.current?.click()}>Bring in a logbook…</Button>
        <input
          ref={file}
          type="file"
          aria-label="Logbook file"
          accept=".json,application/json"
          className="hidden"
          onChange={(event) => {
            const chosen = event.currentTarget.files?.[0];
            event.currentTarget.value = "";
            if (chosen) void bring(chosen);
          }}
        />
      </div>
      {told && (
        <p role="status" className="mt-2 border-l-4 border-ink pl-2 text-[15px]">
          {told}
        </p>
      )}
    </section>
  );
}
