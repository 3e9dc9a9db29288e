import type { Layout } from "./layout";

type Point = readonly [number, number];

/** A path through points in metres; a number after a point rounds that corner by as many metres. */
export function path({ across, up }: Layout, corners: readonly (readonly [number, number, number?])[]): string {
  const count = corners.length;
  const steps = corners.map(([x, y, radius = 0], index) => {
    const here: Point = [across(x), up(y)];
    const [px, py] = corners[(index + count - 1) % count] ?? [x, y];
    const [nx, ny] = corners[(index + 1) % count] ?? [x, y];
    const from = toward(here, [across(px), up(py)], radius, x, y, px, py);
    const to = toward(here, [across(nx), up(ny)], radius, x, y, nx, ny);
    const start = `${index === 0 ? "M" : "L"}${from[0]} ${from[1]}`;
    return radius ? `${start}Q${here[0]} ${here[1]} ${to[0]} ${to[1]}` : start;
  });
  return `${steps.join("")}Z`;
}

function toward(here: Point, there: Point, radius: number, x: number, y: number, ox: number, oy: number): Point {
  const far = Math.hypot(ox - x, oy - y) || 1;
  const part = Math.min(0.5, radius / far);
  return [here[0] + (there[0] - here[0]) * part, here[1] + (there[1] - here[1]) * part];
}

export const body = { fill: "var(--card)", stroke: "var(--ink)", strokeWidth: 1.8, strokeLinejoin: "round" } as const;
export const thin = { fill: "none", stroke: "var(--ink)", strokeWidth: 1 } as const;
export const glass = { fill: "var(--paper)", stroke: "var(--ink)", strokeWidth: 1.1, strokeLinejoin: "round" } as const;
