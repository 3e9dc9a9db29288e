import type { Check, Evaluation, Status as Kind, Outlook } from "../api/client";
import { mass } from "../format";

const WORDS: Record<Kind, string> = {
  over: "over",
  low: "too light",
  high: "too heavy",
  tight: "too close",
  unconfirmed: "unconfirmed",
  unknown: "not known",
  within: "within",
};

/** The word for a status. */
export const statusWord = (status: Kind) => WORDS[status];

/** Ink that a status is written in; vermilion is kept for what is over. */
export function statusInk(status: Kind): string {
  switch (status) {
    case "over":
    case "low":
      return "text-vermilion";
    case "high":
    case "tight":
      return "text-ochre";
    case "unknown":
      return "text-soft";
    case "unconfirmed":
    case "within":
      return "text-spruce";
  }
}

/** Ink for what is left of a limit: one that is exceeded by a figure nobody confirmed is no green. */
export const marginInk = ({ status, margin }: { status: Kind; margin?: number | null }) =>
  status === "unconfirmed" && (margin ?? 0) < 0 ? "text-ochre" : statusInk(status);

/** Whether a check compares a share with a range, not a load with a limit. */
export const isShare = (check: Check) => check.low !== null && check.low !== undefined;

/** What is left of a limit, or by how much it is exceeded; `≈` where that is only expected. */
export function marginText(check: Check): string {
  if (isShare(check)) return "";
  if (check.margin === null || check.margin === undefined) {
    const ahead = check.expected?.margin;
    if (ahead === null || ahead === undefined) return check.limit === null ? "no rating" : "";
    return `≈ ${mass(Math.abs(ahead))} ${ahead < 0 ? "over" : "left"}`;
  }
  return `${mass(Math.abs(check.margin))} ${check.margin < 0 ? "over" : "left"}`;
}

/** A status by word, shape and colour: each has a shape of its own, so that it reads without colour. */
export function StatusTag({ status }: { status: Kind }) {
  const text =
    "inline-flex h-6 items-center whitespace-nowrap px-2 font-cond text-[0.875rem] font-semibold leading-none";
  switch (status) {
    case "over":
    case "low":
      return (
        <span
          className={`${text} bg-vermilion pr-4 text-onfill`}
          style={{ clipPath: "polygon(0 0, 100% 0, calc(100% - 9px) 50%, 100% 100%, 0 100%)" }}
        >
          {WORDS[status]}
        </span>
      );
    case "high":
    case "tight":
      return (
        <span className={`${text} border-y border-r border-ochre pl-0 text-ochre`}>
          <span className="hatch mr-1.5 h-full w-2.5 self-stretch" aria-hidden="true" />
          {WORDS[status]}
        </span>
      );
    case "unconfirmed":
      return (
        <span className={`${text} border-y border-r border-spruce pl-0 text-spruce`}>
          <span className="lined mr-1.5 h-full w-2.5 self-stretch" aria-hidden="true" />
          {WORDS[status]}
        </span>
      );
    case "unknown":
      return <span className={`${text} border border-dotted border-soft text-soft`}>{WORDS[status]}</span>;
    case "within":
      return <span className={`${text} border-l-[3px] border-spruce text-spruce`}>{WORDS[status]}</span>;
  }
}

const FLAG = "bg-vermilion [clip-path:polygon(0_0,100%_0,55%_50%,100%_100%,0_100%)]";
const HATCHED = "hatch border border-ochre";
const SHAPES: Record<Kind, string> = {
  over: FLAG,
  low: FLAG,
  high: HATCHED,
  tight: HATCHED,
  unconfirmed: "lined border border-spruce",
  unknown: "border border-dotted border-soft",
  within: "border-l-[3px] border-spruce",
};

/** The same shapes in little, for a narrow row whose words stand elsewhere in it. */
export function StatusMark({ status, always = false }: { status: Kind; always?: boolean }) {
  return (
    <>
      <span className="sr-only">{WORDS[status]}: </span>
      <span
        className={`mr-2 inline-block h-3.5 w-3 shrink-0 align-[-1px] ${always ? "" : "md:hidden"} ${SHAPES[status]}`}
      />
    </>
  );
}

const OF_VERDICT: Record<Evaluation["verdict"], Kind> = {
  stop: "over",
  caution: "tight",
  incomplete: "unknown",
  within: "within",
};

/** A verdict by its shape; its word stands beside it. */
export const VerdictMark = ({ verdict }: { verdict: Evaluation["verdict"] }) => (
  <span aria-hidden="true" className={`inline-block h-3.5 w-3 shrink-0 ${SHAPES[OF_VERDICT[verdict]]}`} />
);

const OUTLOOKS: Record<Outlook, string> = {
  over: "expected over",
  over_at_rating: "over at its rating",
  low: "expected too light",
  high: "expected too heavy",
  within: "expected within",
  open: "not settled",
};

/** The word for what is expected. */
export const outlookWord = (outlook: Outlook) => OUTLOOKS[outlook];

/** Ink of an outlook: the colours of a status, for what was not weighed. */
export function outlookInk(outlook: Outlook): string {
  switch (outlook) {
    case "over":
    case "low":
      return "text-vermilion";
    case "over_at_rating":
    case "high":
      return "text-ochre";
    case "within":
      return "text-spruce";
    case "open":
      return "text-soft";
  }
}

/** An outlook by word and outline: never filled, never mistaken for what was weighed. */
export function OutlookTag({ outlook }: { outlook: Outlook }) {
  return (
    <span
      data-outlook={outlook}
      className={`inline-flex h-6 items-center whitespace-nowrap border border-current px-2 font-cond text-[0.875rem] leading-none font-semibold ${outlookInk(outlook)} ${outlook === "open" ? "border-dotted" : ""}`}
    >
      {OUTLOOKS[outlook]}
    </span>
  );
}

/** The outline in little, for a narrow row. */
export function OutlookMark({ outlook }: { outlook: Outlook }) {
  return (
    <span
      className={`mr-2 inline-block h-3.5 w-3 shrink-0 border-2 border-current align-[-1px] md:hidden ${outlookInk(outlook)} ${outlook === "open" ? "border-dotted" : ""}`}
    />
  );
}
