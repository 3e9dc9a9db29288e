import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Check, Working, WorkLine } from "../api/client";
import { useDesk } from "../api/useSheet";
import { day, mass, share } from "../format";
import { TermMark } from "../ui/Glossary";
import { sourceWord } from "../ui/SourceTag";
import { marginInk, OutlookTag, StatusTag } from "../ui/Status";

/** The glossary's term of what each check is compared with. */
const TERM_OF: Record<string, string> = {
  "vehicle.front_axle": "gawr_front",
  "vehicle.rear_axle": "gawr_rear",
  "vehicle.gross": "gvwr",
  "vehicle.payload": "payload",
  "combination.gross": "gcwr",
  "vehicle.tow_rating": "tow_rating",
  "trailer.gross": "trailer.gvwr",
  "trailer.axles": "trailer.gawr",
  "trailer.cargo": "trailer.ccc",
  "hitch.tongue": "tongue_rating",
  "tongue.share": "tongue_share",
};

/** How the picked check was worked out; any figure in it opens its own working in turn. */
export function WorkingPanel({ check }: { check: Check }) {
  const { evaluation, sheet } = useDesk();
  const [trail, setTrail] = useState<string[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another check starts a new trail
  useEffect(() => setTrail([]), [check.id]);
  const key = trail.at(-1) ?? check.working ?? check.expected?.working ?? "";
  const working = evaluation.working[key];
  const unit = evaluation.units.mass;
  const atCheck = trail.length === 0;
  const notes = evaluation.advisories.filter((each) => each.path && each.path === check.limit_path);
  return (
    <div className="p-4 text-[0.9375rem] md:p-5" data-part="working" data-key={key}>
      {!atCheck && (
        <button
          type="button"
          className="mb-2 font-cond text-[0.9375rem] underline"
          onClick={() => setTrail(trail.slice(0, -1))}
        >
          back to {evaluation.working[trail.at(-2) ?? check.working ?? ""]?.title ?? check.label}
        </button>
      )}
      <div className="flex items-start justify-between gap-3">
        <h2 className="font-cond text-[1.25rem] leading-tight font-semibold">
          {atCheck ? check.label : working?.title}
          <TermMark
            term={(atCheck && TERM_OF[check.id]) || (check.expected ? "expected" : "working")}
            name={atCheck ? check.label : "a working"}
          />
        </h2>
        {atCheck &&
          (check.expected ? <OutlookTag outlook={check.expected.outlook} /> : <StatusTag status={check.status} />)}
      </div>
      {working ? (
        <Lines working={working} unit={unit} length={evaluation.length} onOpen={(ref) => setTrail([...trail, ref])} />
      ) : (
        <p className="mt-2">{check.expected?.sentence || check.sentence}</p>
      )}
      {atCheck && working && check.limit !== null && check.limit !== undefined && (
        <div className="mt-1 border-t border-ink pt-1.5">
          {check.limit_lines?.map((line) => (
            <div key={line.label} className="pb-0.5">
              <Row label={`${line.op} ${line.label}`.trim()} value={mass(line.value)} />
              <p className="text-[0.8125rem] leading-tight text-soft">{line.source}</p>
            </div>
          ))}
          <Row label={`${check.limit_lines ? "= " : ""}${check.limit_label ?? "limit"}`} value={mass(check.limit)} />
          <p className="text-[0.8125rem] text-soft">
            {[sourceWord(check.limit_entry?.source), day(check.limit_entry?.date), check.limit_entry?.note]
              .filter((each) => each && each !== "source?")
              .join(" · ") || "source not said"}
          </p>
          {check.margin !== null && check.margin !== undefined && (
            <div className={`mt-1 border-t border-ink pt-1.5 ${marginInk(check)}`}>
              <Row label={check.margin < 0 ? "over by" : "left"} value={mass(Math.abs(check.margin))} strong />
            </div>
          )}
        </div>
      )}
      {atCheck && working && <p className="mt-3 leading-snug">{check.expected?.sentence || check.sentence}</p>}
      {atCheck && check.settled_by && <p className="mt-2 leading-snug font-semibold">{check.settled_by}</p>}
      {atCheck &&
        notes.map((note) => (
          <p key={note.code} className="mt-2 border-l-4 border-ochre pl-2 leading-snug">
            {note.message}
          </p>
        ))}
      {atCheck && check.limit_path && (
        <Link
          to={`/rigs/${sheet.id}/plates#${check.limit_path}`}
          className="mt-3 inline-block font-cond text-[1rem] underline"
        >
          {check.limit === null ? "Enter its rating" : "Open its plate"}
        </Link>
      )}
    </div>
  );
}

function amount(line: { sort: WorkLine["sort"]; value: number }): string {
  switch (line.sort) {
    case "mass":
      return mass(line.value);
    case "share":
      return share(line.value);
    case "count":
      return String(line.value);
    case "length":
      return new Intl.NumberFormat("en-US", { maximumFractionDigits: 2 }).format(line.value);
  }
}

function Lines(props: { working: Working; unit: string; length: string; onOpen: (ref: string) => void }) {
  const { working, unit, length, onOpen } = props;
  const { evaluation } = useDesk();
  const pm = working.sort === "share" ? share(working.plus_minus) : mass(working.plus_minus);
  return (
    <>
      <p className="mt-1 mb-2 text-[0.875rem] text-soft">
        {working.formula}, in {unit}
      </p>
      {working.lines.map((line, index) => {
        const ref = line.ref;
        const opens = ref !== null && ref !== undefined && ref !== working.key && ref in evaluation.working;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: the lines of a working have no other name
          <div key={index} className="py-0.5">
            <Row
              label={
                opens ? (
                  <button
                    type="button"
                    className="text-left underline decoration-rule underline-offset-2"
                    onClick={() => onOpen(ref)}
                  >
                    {`${line.op} ${line.label}`.trim()}
                  </button>
                ) : (
                  `${line.op} ${line.label}`.trim()
                )
              }
              value={`${amount(line)}${line.sort === "length" ? ` ${length}` : ""}`}
            />
            {line.source && <p className="pr-16 text-[0.8125rem] leading-tight text-soft">{line.source}</p>}
          </div>
        );
      })}
      <div className="mt-1 border-t border-ink pt-1.5">
        <Row
          label={
            <>
              = {working.title.toLowerCase()} <span className="text-[0.8125rem] text-soft">±{pm}</span>
            </>
          }
          value={amount(working)}
          strong
        />
      </div>
      {working.remarks?.map((remark) => (
        <p key={remark} className="mt-2 text-[0.875rem] leading-snug text-soft">
          {remark}
        </p>
      ))}
    </>
  );
}

function Row({ label, value, strong = false }: { label: React.ReactNode; value: string; strong?: boolean }) {
  return (
    <div className={`flex items-baseline justify-between gap-3 ${strong ? "font-semibold" : ""}`}>
      <span className="leading-tight">{label}</span>
      <span className="font-cond text-[1.125rem] font-semibold whitespace-nowrap">{value}</span>
    </div>
  );
}
