import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, download } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { ImportTickets } from "./ImportTickets";

/** What can be printed and taken along, and bringing a whole logbook in. */
export function Papers() {
  const { sheet, number } = useDesk();
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [tickets, setTickets] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const at = number ? `weigh_in=${number}&` : "";
  const link = "flex min-h-10 items-center border border-ink px-3 font-cond text-[17px] font-semibold hover:bg-sunk";
  const bring = (chosen: File) =>
    api.importLogbook(chosen).then(
      ({ added, already }) => {
        setTold(`${added.length} brought in${already ? `, ${already} were there already` : ""}.`);
        void queries.invalidateQueries({ queryKey: ["rigs"] });
      },
      (error: Error) => setTold(`Nothing was brought in. ${error.message}`),
    );
  const write = (path: string, says: string) => {
    setTold(null);
    download(path, says).catch((error: Error) => setTold(`It could not be written. ${error.message}`));
  };
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
        <Button onClick={() => write(`/rigs/${sheet.id}/paper.pdf?${at}what=report`, "writing the report")}>
          The full report
        </Button>
        <a
          className={link}
          target="_blank"
          rel="noreferrer"
          href={`/api/rigs/${sheet.id}/print.html${number ? `?weigh_in=${number}` : ""}`}
        >
          Print view
        </a>
        <Button
          onClick={() =>
            write(`/rigs/${sheet.id}/workbook.xlsx${number ? `?weigh_in=${number}` : ""}`, "writing the workbook")
          }
        >
          Workbook with formulas
        </Button>
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
        <Button onClick={() => write("/backup", "copying the database")}>A backup of everything</Button>
        <Button onClick={() => setTickets(true)}>Bring in tickets…</Button>
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
      <Slip open={tickets} onOpenChange={setTickets} title="Tickets from a spreadsheet" wide>
        <ImportTickets
          onDone={(said) => {
            setTickets(false);
            setTold(said);
          }}
        />
      </Slip>
    </section>
  );
}
