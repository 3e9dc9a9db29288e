import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import { api, download } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Slip } from "../ui/Dialog";
import { ImportTickets } from "./ImportTickets";

const LINK =
  "flex min-h-10 w-full items-center px-1 text-left font-cond text-[1.0625rem] hover:bg-sunk hover:underline";

/** The one paper to take along. */
export function GloveBox() {
  const { sheet, number } = useDesk();
  return (
    <a
      className="no-print flex min-h-10 items-center bg-ink px-3 font-cond text-[1.0625rem] font-semibold text-paper hover:bg-spruce"
      href={`/api/rigs/${sheet.id}/paper.pdf?${number ? `weigh_in=${number}&` : ""}what=glove_box`}
    >
      A page for the glove box
    </a>
  );
}

/** What can be printed, continued elsewhere and kept, and what can be imported. */
export function Papers() {
  const { sheet, number } = useDesk();
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [tickets, setTickets] = useState(false);
  const [notice, setNotice] = useState<string | null>(null);
  const rig = `/rigs/${sheet.id}`;
  const at = number ? `weigh_in=${number}&` : "";
  const bring = (chosen: File) =>
    api.importLogbook(chosen).then(
      ({ added, already }) => {
        setNotice(`${added.length} imported${already ? `, ${already} already present` : ""}.`);
        void queries.invalidateQueries({ queryKey: ["rigs"] });
      },
      (error: Error) => setNotice(`Nothing was imported. ${error.message}`),
    );
  const write = (path: string, says: string) => {
    setNotice(null);
    download(path, says).catch((error: Error) => setNotice(`It could not be written. ${error.message}`));
  };
  return (
    <section aria-label="Papers and files" className="no-print mt-8">
      <h2 className="border-b border-ink font-cond text-[1.375rem] font-semibold">Papers and files</h2>
      <div className="mt-1 grid grid-cols-2 gap-x-6 gap-y-3 md:grid-cols-4">
        <Group title="To print">
          <Act does={() => write(`${rig}/paper.pdf?${at}what=report`, "writing the report")}>The full report</Act>
          <a className={LINK} target="_blank" rel="noreferrer" href={`/api${rig}/print.html?${at}`}>
            Print view
          </a>
        </Group>
        <Group title="For a spreadsheet">
          <Act does={() => write(`${rig}/workbook.xlsx?${at}`, "writing the workbook")}>Workbook with formulas</Act>
          <a className={LINK} href={`/api${rig}/tickets.csv`}>
            Tickets, CSV
          </a>
          <a className={LINK} href={`/api${rig}/items.csv`}>
            Items, CSV
          </a>
        </Group>
        <Group title="To keep">
          <a className={LINK} href={`/api${rig}/file`}>
            This rig as a file
          </a>
          <a className={LINK} href="/api/logbook">
            Every rig in one file
          </a>
          <Act does={() => write("/backup", "copying the database")}>A backup of everything</Act>
        </Group>
        <Group title="To bring in">
          <Act does={() => setTickets(true)}>Tickets from a spreadsheet…</Act>
          <Act does={() => file.current?.click()}>A logbook…</Act>
        </Group>
      </div>
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
      {notice && (
        <p role="status" className="mt-2 border-l-4 border-ink pl-2 text-[0.9375rem]">
          {notice}
        </p>
      )}
      <Slip open={tickets} onOpenChange={setTickets} title="Tickets from a spreadsheet" wide>
        <ImportTickets
          onDone={(said) => {
            setTickets(false);
            setNotice(said);
          }}
        />
      </Slip>
    </section>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div>
      <h3 className="border-b border-rule text-[0.875rem] text-soft">{title}</h3>
      {children}
    </div>
  );
}

const Act = ({ does, children }: { does: () => void; children: ReactNode }) => (
  <button type="button" className={LINK} onClick={does}>
    {children}
  </button>
);
