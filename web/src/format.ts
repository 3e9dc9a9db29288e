const whole = new Intl.NumberFormat("en-US", { maximumFractionDigits: 0 });
const exact = new Intl.NumberFormat("en-US", { maximumFractionDigits: 4 });

/** A mass in whole units, minus as a minus sign; a figure that is not nothing never reads as 0. */
export function mass(value: number): string {
  const text = whole.format(Math.abs(value));
  if (text === "0" && Math.abs(value) > 1e-6) return "<1";
  return value < 0 && text !== "0" ? `−${text}` : text;
}

/** A share that was set: in per cent, with a tenth where it is not whole. */
export const percent = (value: number) => exact.format(Number((value * 100).toFixed(1)));

export const share = (value: number) => `${(value * 100).toFixed(1)} %`;

/** A figure as a field shows it at rest: numbers grouped, texts as they are. */
export function atRest(value: unknown): string {
  if (typeof value === "number") return exact.format(value);
  return typeof value === "string" ? value : "";
}

/** A figure as a field shows it while it is edited: no grouping to trip over. */
export const inHand = (value: unknown) => (typeof value === "number" ? String(value) : atRest(value));

export function day(date: string | null | undefined): string {
  if (!date) return "";
  const [year, month, dayOfMonth] = date.split("-").map(Number);
  if (!year || !month || !dayOfMonth) return date;
  return new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone: "UTC" }).format(
    Date.UTC(year, month - 1, dayOfMonth),
  );
}

/** A moment: the time if it was today, else the day. */
export function when(moment: string): string {
  const at = new Date(moment);
  return at.toDateString() === new Date().toDateString()
    ? `at ${at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}`
    : `on ${day(moment.slice(0, 10))}`;
}

/** A word or sentence with a capital first letter. */
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
