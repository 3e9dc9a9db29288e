type Span = readonly [from: number, to: number];

/** A straight scale of a chart: from a figure to where it stands. */
export const scale =
  ([least, most]: Span, [from, to]: Span) =>
  (value: number) =>
    from + ((value - least) / Math.max(1e-9, most - least)) * (to - from);

/** Round steps for an axis from nothing: about five of them. */
export function steps(most: number): number[] {
  const raw = most / 5;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 2.5, 5, 10].map((each) => each * power).find((each) => each >= raw) ?? raw;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, index) => index * step);
}
