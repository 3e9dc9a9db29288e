import { useCallback, useRef, useState } from "react";
import type { ChallengeIn, JudgedOut, LessonIn, YardIn } from "../../generated/api";
import { got, type MassUnit, server } from "../api/client";

export type {
  ChallengeOut as Challenge,
  LessonOut as Lesson,
  PracticeHome,
  YardOut as Yard,
} from "../../generated/api";
export type Word = JudgedOut["word"];
export type TermSet = NonNullable<LessonIn["terms"]>;

export const practice = {
  home: (learner: string) => got(server.GET("/api/practice", { params: { query: learner ? { learner } : {} } })),
  lesson: (name: string, body: LessonIn) =>
    got(server.POST("/api/practice/lessons/{name}", { params: { path: { name } }, body })),
  yard: (body: YardIn) => got(server.POST("/api/practice/yard", { body })),
  challenge: (body: ChallengeIn) => got(server.POST("/api/practice/challenges", { body })),
  add: (name: string) => got(server.POST("/api/practice/learners", { body: { name } })),
  remove: (learner: string) =>
    got(server.DELETE("/api/practice/learners/{learner}", { params: { path: { learner } } })),
  reset: (learner: string) =>
    got(server.POST("/api/practice/learners/{learner}/reset", { params: { path: { learner } } })),
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

/**
 * Acts one after another, each on what the one before led to, however quickly they are tapped; `begin` starts anew and forgets what
 * still waits. The last answer stays in view until the next one is there, and why there is none is said.
 */
export function usePlay<T>() {
  const [seen, setSeen] = useState<T | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const line = useRef<Promise<unknown>>(Promise.resolve());
  const now = useRef<T | null>(null);
  const turn = useRef(0);
  const play = useCallback((doing: (now: T | null) => Promise<T>): Promise<T | null> => {
    const mine = turn.current;
    const next = line.current.then(async () => {
      if (mine !== turn.current) return null;
      try {
        const found = await doing(now.current);
        if (mine !== turn.current) return null;
        now.current = found;
        setSeen(found);
        setProblem(null);
        return found;
      } catch (error) {
        if (mine === turn.current) setProblem((error as Error).message);
        return null;
      }
    });
    line.current = next;
    return next;
  }, []);
  const begin = useCallback(
    (doing: () => Promise<T>) => {
      turn.current++;
      line.current = Promise.resolve();
      return play(doing);
    },
    [play],
  );
  return { seen, problem, play, begin };
}

/** A seed that nobody has drawn yet. */
export const newSeed = () => Math.floor(Math.random() * 0xfffff).toString(16);
