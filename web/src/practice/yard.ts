import { useCallback, useRef, useState } from "react";
import type { components } from "../../generated/api";
import { ask, type MassUnit } from "../api/client";

type Schemas = components["schemas"];
export type Yard = Schemas["YardOut"];
export type Lesson = Schemas["LessonOut"];
export type Challenge = Schemas["ChallengeOut"];
export type Word = Schemas["JudgedOut"]["word"];
export type PracticeHome = Schemas["PracticeHome"];
export type TermSet = NonNullable<Schemas["LessonIn"]["terms"]>;

export const practice = {
  home: (learner: string) =>
    ask<PracticeHome>("GET", `/practice${learner ? `?learner=${encodeURIComponent(learner)}` : ""}`),
  lesson: (name: string, asked: Partial<Schemas["LessonIn"]>) =>
    ask<Lesson>("POST", `/practice/lessons/${encodeURIComponent(name)}`, asked),
  yard: (asked: Schemas["YardIn"]) => ask<Yard>("POST", "/practice/yard", asked),
  challenge: (asked: Schemas["ChallengeIn"]) => ask<Challenge>("POST", "/practice/challenges", asked),
  add: (name: string) => ask<Schemas["LearnerOut"]>("POST", "/practice/learners", { name }),
  remove: (id: string) => ask<void>("DELETE", `/practice/learners/${id}`),
  reset: (id: string) => ask<void>("POST", `/practice/learners/${id}/reset`),
};

/** How the yard is practised on this device: units, terms and who; kept in this browser. */
export type Settings = { unit: MassUnit; terms: TermSet; learner: string };
const KEPT = "noxel.practice";
const FIRST: Settings = { unit: "lb", terms: "north_america", learner: "" };

const kept = (): Settings => {
  try {
    return { ...FIRST, ...(JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Partial<Settings>) };
  } catch {
    return FIRST;
  }
};

export function useSettings() {
  const [settings, set] = useState(kept);
  const change = useCallback((changed: Partial<Settings>) => {
    set((now) => {
      const next = { ...now, ...changed };
      localStorage.setItem(KEPT, JSON.stringify(next));
      return next;
    });
  }, []);
  return { settings, change };
}

/** One question at a time: the last answer stays in view until the next one is there, and why there is none is said. */
export function usePlay<T>() {
  const [seen, setSeen] = useState<T | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const turn = useRef(0);
  const play = useCallback(async (doing: () => Promise<T>): Promise<T | null> => {
    const mine = ++turn.current;
    try {
      const found = await doing();
      if (mine !== turn.current) return null;
      setSeen(found);
      setProblem(null);
      return found;
    } catch (error) {
      if (mine === turn.current) setProblem((error as Error).message);
      return null;
    }
  }, []);
  return { seen, problem, play };
}

/** A seed that nobody has drawn yet. */
export const newSeed = () => Math.floor(Math.random() * 0xfffff).toString(16);
