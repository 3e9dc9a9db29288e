import { Fragment } from "react";
import type { Check } from "../api/client";
import { mass, percent, share } from "../format";
import { sourceWord } from "../ui/SourceTag";
import {
  isShare,
  marginInk,
  marginText,
  OutlookMark,
  OutlookTag,
  outlookInk,
  outlookWord,
  StatusMark,
  StatusTag,
  statusWord,
} from "../ui/Status";
import { WorkingPanel } from "./WorkingPanel";

/** Where the limit's tick stands on a bar: what lies beyond it is over. */
const TICK = 0.86;

function Bar({ check }: { check: Check }) {
  if (check.low !== null && check.low !== undefined && check.high !== null && check.high !== undefined) {
    return <ShareBar check={check} low={check.low} high={check.high} />;
  }
  const load = check.actual ?? check.expected?.actual ?? check.at_least ?? null;
  const limit = check.limit ?? null;
  const ahead = check.actual === null && check.expected !== undefined && check.expected !== null;
  const used = load !== null && limit !== null && limit > 0 ? Math.max(0, load / limit) : null;
  const width = used === null ? 0 : Math.min(1, used * TICK);
  const fill = {
    over: "bg-vermilion",
    low: "bg-vermilion",
    high: "hatch",
    tight: "hatch",
    unconfirmed: "lined",
    unknown: "",
    within: "bg-spruce",
  };
  return (
    <span className="relative block h-[13px]" aria-hidden="true">
      <span
        className={`absolute inset-y-0 left-0 border ${used === null ? "border-dotted border-soft" : "border-ink/50"}`}
        style={{ width: `${TICK * 100}%` }}
      />
      <span
        data-expected={ahead}
        className={`absolute inset-y-0 left-0 ${ahead ? `bg-card border-2 ${outlookEdge(check)}` : fill[check.status]} ${!ahead && check.actual === null && used !== null ? "border border-dotted border-ink" : ""}`}
        style={{
          width: `${width * 100}%`,
          minWidth: check.status === "over" ? `calc(${TICK * 100}% + 5px)` : undefined,
        }}
      />
      <span className="absolute -inset-y-1 w-[2px] bg-ink" style={{ left: `${TICK * 100}%` }} />
    </span>
  );
}

/** The outline of what is expected; it is never filled, since nothing was weighed. */
const outlookEdge = (check: Check) => {
  switch (check.expected?.outlook) {
    case "over":
    case "low":
      return "border-vermilion";
    case "within":
      return "border-spruce";
    default:
      return "border-ochre";
  }
};

/** A share lies in a range, not below a limit: a band with a mark. */
function ShareBar({ check, low, high }: { check: Check; low: number; high: number }) {
  const most = high * 1.6;
  const place = (value: number) => `${Math.max(0, Math.min(1, value / most)) * 100}%`;
  const mark = check.status === "within" ? "bg-spruce" : check.status === "low" ? "bg-vermilion" : "bg-ochre";
  return (
    <span className="relative block h-[13px]" aria-hidden="true">
      <span className="absolute top-1/2 right-0 left-0 h-px bg-rule" />
      <span
        className="absolute inset-y-0.5 border border-ink/50 bg-sunk"
        style={{ left: place(low), width: `calc(${place(high)} - ${place(low)})` }}
      />
      {check.actual !== null && (
        <span
          className={`absolute -inset-y-1 w-[5px] -translate-x-1/2 ${mark}`}
          style={{ left: place(check.actual) }}
        />
      )}
      {check.actual === null && check.expected && (
        <span
          data-expected
          className={`absolute -inset-y-1 w-[7px] -translate-x-1/2 border-2 bg-card ${outlookEdge(check)}`}
          style={{ left: place(check.expected.actual) }}
        />
      )}
    </span>
  );
}

function actualText(check: Check): string {
  if (check.actual === null) {
    if (check.expected) return `≈ ${isShare(check) ? share(check.expected.actual) : mass(check.expected.actual)}`;
    return check.at_least ? `≥ ${mass(check.at_least)}` : "?";
  }
  return isShare(check) ? share(check.actual) : mass(check.actual);
}

function plusMinus(check: Check): string {
  const pm = check.plus_minus ?? check.expected?.plus_minus ?? null;
  if (pm === null) return "";
  return isShare(check) ? `±${(pm * 100).toFixed(1)}` : `±${mass(pm)}`;
}

function limitText(check: Check): string {
  if (isShare(check)) return `${percent(check.low ?? 0)}–${percent(check.high ?? 0)} %`;
  return check.limit === null || check.limit === undefined ? "–" : mass(check.limit);
}

const GROUPS: readonly (readonly [Check["group"], string])[] = [
  ["vehicle", "The vehicle"],
  ["trailer", "The trailer"],
  ["hitch", "The hitch"],
  ["combination", "Both together"],
  ["tires", "The tires"],
];

/** Every check, tightest first. A row opens its working: beside the ledger where there is room, else below the row. */
export function Ledger(props: {
  checks: readonly Check[];
  grouped: boolean;
  /** In a narrow column: without where each limit came from. */
  compact?: boolean;
  /** The row whose working stands beside the ledger, and the one that was opened by hand. */
  picked: string | null;
  opened: string | null;
  onPick: (id: string | null) => void;
}) {
  const { checks, grouped, compact = false, picked, opened, onPick } = props;
  const row = (check: Check) => {
    const chosen = check.id === picked;
    return (
      <Fragment key={check.id}>
        <tr
          data-check={check.id}
          data-status={check.status}
          onClick={() => onPick(check.id === opened ? null : check.id)}
          className={`cursor-pointer border-t border-rule ${chosen ? "lg:bg-sunk" : ""} ${check.id === opened ? "bg-sunk" : "hover:bg-card"}`}
        >
          <td className="h-[33px] py-0.5 pr-1 pl-2 leading-tight">
            <button
              type="button"
              aria-expanded={check.id === opened}
              className="flex items-baseline text-left font-cond text-[1.0625rem] font-semibold pointer-coarse:items-center md:whitespace-nowrap"
            >
              {check.expected ? (
                <>
                  <span className="sr-only">{outlookWord(check.expected.outlook)}: </span>
                  <OutlookMark outlook={check.expected.outlook} />
                </>
              ) : (
                <StatusMark status={check.status} />
              )}
              {check.label}
            </button>
          </td>
          <td className="pr-2 text-right whitespace-nowrap">
            <span className="font-cond text-[1.125rem] font-semibold">{actualText(check)}</span>
            <span className="ml-1 inline-block w-8 text-left font-cond text-[0.8125rem] text-soft max-md:hidden">
              {plusMinus(check)}
            </span>
          </td>
          <td className="w-[24%] px-2 max-md:hidden">
            <Bar check={check} />
          </td>
          <td className="pr-2 text-right whitespace-nowrap">
            <span className="font-cond text-[1.0625rem] max-md:text-soft">
              <span className="md:hidden">of </span>
              {limitText(check)}
            </span>
          </td>
          <td
            className={`truncate pr-2 text-[0.8125rem] leading-tight text-soft max-md:hidden ${compact ? "hidden" : ""}`}
          >
            {check.limit_label}
            {check.limit_entry?.source ? `, ${sourceWord(check.limit_entry.source)}` : ""}
          </td>
          <td
            className={`pr-3 text-right font-cond text-[1rem] font-semibold whitespace-nowrap ${check.expected ? outlookInk(check.expected.outlook) : marginInk(check)}`}
          >
            {marginText(check)}
            {isShare(check) && <span className="md:hidden">{statusWord(check.status)}</span>}
          </td>
          <td className="pr-1 max-md:hidden">
            {check.expected ? <OutlookTag outlook={check.expected.outlook} /> : <StatusTag status={check.status} />}
          </td>
        </tr>
        {check.id === opened && (
          <tr className="lg:hidden">
            <td colSpan={7} className="border-b border-ink bg-card">
              <WorkingPanel check={check} />
            </td>
          </tr>
        )}
      </Fragment>
    );
  };
  return (
    <table className="w-full border-collapse text-left" aria-label="Checks, tightest first">
      <thead className="sr-only">
        <tr>
          <th>Check</th>
          <th>Actual</th>
          <th>Share of the limit</th>
          <th>Limit</th>
          <th>Left</th>
          <th>Status</th>
        </tr>
      </thead>
      {grouped ? (
        GROUPS.map(([group, name]) => {
          const members = checks.filter((check) => check.group === group);
          return members.length ? (
            <tbody key={group}>
              <tr>
                <th colSpan={7} className="pt-3 pb-0.5 text-left font-cond text-[1rem] font-semibold text-soft">
                  {name}
                </th>
              </tr>
              {members.map(row)}
            </tbody>
          ) : null;
        })
      ) : (
        <tbody>{checks.map(row)}</tbody>
      )}
    </table>
  );
}
