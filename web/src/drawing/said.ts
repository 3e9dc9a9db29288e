import type { KeyboardEvent } from "react";
import type { Check } from "../api/client";
import { mass } from "../format";

/** What is left, or over, in the words of the drawing. */
export function verdictOf(check: Check | undefined, short = false): string {
  if (!check) return "";
  if (check.margin === null || check.margin === undefined) {
    const ahead = check.expected?.margin;
    if (ahead !== null && ahead !== undefined)
      return `${short ? "≈" : "expected"} ${mass(Math.abs(ahead))} ${ahead < 0 ? "over" : "left"}`;
    if (check.at_least !== null && check.at_least !== undefined)
      return check.status === "over" ? "over already" : "not settled";
    return check.actual === null ? "not known" : "no rating entered";
  }
  const left = mass(Math.abs(check.margin));
  switch (check.status) {
    case "over":
      return `${left} over`;
    case "tight":
      return check.plus_minus !== null && check.margin <= check.plus_minus ? `${left} left: too close` : `${left} left`;
    case "unconfirmed":
      return check.margin < 0 ? `${left} over?` : `${left} left?`;
    default:
      return `${left} left`;
  }
}

/** The load as it stands, a floor marked as one. */
export const loadText = (check: Check | undefined) => {
  if (check?.actual !== null && check?.actual !== undefined) return mass(check.actual);
  if (check?.expected) return `≈\u2009${mass(check.expected.actual)}`;
  return check?.at_least !== null && check?.at_least !== undefined ? `≥ ${mass(check.at_least)}` : "?";
};

/** A post or a brace for those who hear it: the load with its ±, whether it was weighed, then the rating and what is
 * left or over. */
export function spoken(check: Check, unit: string, predicted: boolean): string {
  const figure = (value: number, plusMinus?: number | null) =>
    `${mass(value)}${plusMinus ? ` ± ${mass(plusMinus)}` : ""} ${unit}`;
  const load =
    check.actual !== null && check.actual !== undefined
      ? `${figure(check.actual, check.plus_minus)} ${predicted ? "predicted" : "weighed"}`
      : check.expected
        ? `${figure(check.expected.actual, check.expected.plus_minus)} expected, not weighed`
        : check.at_least !== null && check.at_least !== undefined
          ? `at least ${figure(check.at_least)}`
          : "not weighed";
  return `${check.label}: ${load}. ${check.sentence}`;
}

/** Opens the working of a check. */
export type Pick = (check: string) => void;

/** Enter and the space bar do what a click does. */
export const pressed = (act: () => void) => (event: KeyboardEvent) => {
  if (event.key !== "Enter" && event.key !== " ") return;
  event.preventDefault();
  act();
};
