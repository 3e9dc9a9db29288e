/** The places, in the order of the work. */
export const PLACES = [
  { id: "plates", name: "Plates", says: "Every rating, off its label" },
  { id: "pack", name: "Pack", says: "What goes where, before the scale" },
  { id: "weigh", name: "Weigh", says: "The tickets, pass by pass" },
  { id: "margins", name: "Margins", says: "What is over, what is left" },
  { id: "adjust", name: "Adjust", says: "What to move, drain, leave or tighten" },
  { id: "log", name: "Log", says: "Every weigh-in, before and after, and papers" },
  { id: "match", name: "Match", says: "How much it can tow, every vehicle with every trailer" },
] as const;

/** The short path of a door: a view of the same rig, not among the places. */
export const PATH = { id: "path", name: "Start" } as const;

export type Place = (typeof PLACES)[number]["id"];
