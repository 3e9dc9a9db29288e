import type { Pass, PassAnswer } from "../api/client";

/** How finely a pass is read. */
export type Grain = "axles" | "singly" | "wheels" | "vehicle" | "gross";
export type Lit = "front" | "rear" | "trailer" | null;

const WORDS: Record<string, string> = {
  front: "front axle",
  rear: "rear axle",
  trailer: "trailer axles",
  vehicle: "whole vehicle",
  gross: "everything on the scale",
};

/** The axle that a reading lights up in the drawing. */
export function litBy(name: string): Lit {
  if (name.startsWith("trailer")) return "trailer";
  return name.startsWith("front") ? "front" : name.startsWith("rear") ? "rear" : null;
}

export function wordsFor(name: string): string {
  const [, stem = name, side] = /^(.*?)(?:_(left|right))?$/.exec(name) ?? [];
  const words = WORDS[stem] ?? `trailer axle ${stem.split("_")[1]}`;
  return side ? `${words}, ${side}` : words;
}

/** The readings that a pass asks for, in the order of the platforms. */
export function namesFor(config: Pass["config"], grain: Grain, trailerAxles: number): string[] {
  if (grain === "gross") return ["gross"];
  const vehicle = config === "trailer_only" ? [] : grain === "vehicle" ? ["front", "vehicle"] : ["front", "rear"];
  const axles = Array.from({ length: trailerAxles }, (_, index) => `trailer_${index + 1}`);
  const trailer =
    config === "hitched" || config === "trailer_only"
      ? grain === "singly" || grain === "wheels"
        ? axles
        : ["trailer"]
      : [];
  const all = [...vehicle, ...trailer];
  return grain === "wheels" ? all.flatMap((name) => [`${name}_left`, `${name}_right`]) : all;
}

export const titleOf = (answer: PassAnswer | undefined) => answer?.title ?? "Pass";

/** How finely a pass is read: as it has been so far, else as its kind of scale does by itself. */
export function grainOf(names: readonly string[], scale: string | null | undefined, trailerAxles: number): Grain {
  if (names.some((name) => /_(left|right)$/.test(name))) return "wheels";
  if (names.some((name) => name.startsWith("trailer_"))) return "singly";
  if (names.includes("gross")) return "gross";
  if (names.includes("vehicle")) return "vehicle";
  if (names.includes("trailer")) return "axles";
  if (scale === "wheel_pads" && names.length === 0) return "wheels";
  return scale === "single_platform" && trailerAxles > 1 ? "singly" : "axles";
}
