import { type Query, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
import { keepTerms } from "../ui/useSay";
import {
  api,
  type Change,
  type Evaluation,
  type FieldState,
  type QuickItem,
  type RigFile,
  type ScaleKind,
  type Sheet,
} from "./client";
import { addedAgain, elementOf, named, sealed } from "./identity";
import { type Entry, lookAt, queue, type Typed, useQueue } from "./queue";

type Desk = {
  sheet: Sheet;
  rig: RigFile;
  evaluation: Evaluation;
  /** Whether anything typed is still to be answered. */
  pending: () => boolean;
  /** Type a text into the field at a path. */
  type: (path: string, text: string, what: string, gesture: string) => void;
  /** Set choices, insert and remove parts: one step that is undone as one. */
  change: (changes: Change[], what: string) => void;
  undo: () => void;
  redo: () => void;
  /** What the last of these two was refused with. */
  refused: string | null;
  newWeighIn: (scale: ScaleKind, uncouple: boolean) => Promise<void>;
  /** Start the plan from what was weighed last; these three reject with what was wrong, to be shown where they were requested. */
  planFromWeighIn: () => Promise<void>;
  addItems: (jotted: QuickItem) => Promise<void>;
  apply: (changes: Change[], what: string) => Promise<void>;
  /** Send once more what stands aside: over what somebody else set, or put back where it was taken away. */
  again: (aside: Entry) => void;
  /** Ask for something else that answers with the new sheet; rejects with what was wrong. */
  ask: (make: (id: string, key: string, weighIn: number | undefined) => Promise<Sheet>) => Promise<void>;
  field: (path: string) => FieldState | undefined;
  /** The path by which something is known while it waits: elements by identity. */
  named: (path: string) => string;
  /** When the figures were computed, in milliseconds. */
  asOf: number;
  /** The place of the weigh-in looked at among those that `rig` holds, from 1: what paths are made with. */
  weighIn: number | undefined;
  /** Its number in the whole log, from 1: what people see, and what the server is asked for. */
  number: number | undefined;
  look: (number: number | undefined) => void;
};

const DeskContext = createContext<Desk | null>(null);
const UnsentContext = createContext<ReadonlyMap<string, string>>(new Map());

/** What was typed and is not answered yet, by its path with identities. */
export const useUnsent = () => useContext(UnsentContext);

/** What of this rig could not be saved and stands aside. */
export function useAside(): readonly Entry[] {
  const { sheet } = useDesk();
  return useQueue().aside.filter((each) => each.rig === sheet.id);
}

const shownAsTyped = (change: Change) => (change.op ?? "type") === "type";
const shownAsSet = (change: Change) => change.op === "set" && change.path.startsWith("ready.");

/** What was typed into fields or ticked and is not answered yet: shown until it is. */
function textsOf(waiting: readonly Entry[], rig: string): ReadonlyMap<string, string> {
  const changes = waiting.flatMap((each) => (each.kind === "typed" && each.rig === rig ? each.changes : []));
  return new Map(
    changes
      .filter((change) => shownAsTyped(change) || shownAsSet(change))
      .map((change) => [change.path, String((shownAsTyped(change) ? change.text : change.value) ?? "")]),
  );
}

/** The rig on the desk; none on the first page. */
export const useDeskIfAny = () => useContext(DeskContext);

/** The rig on the desk, for everything below {@link DeskProvider}. */
export function useDesk(): Desk {
  const desk = useDeskIfAny();
  if (!desk) throw new Error("useDesk needs a DeskProvider above it");
  return desk;
}

export function DeskProvider(props: {
  id: string;
  weighIn: number | undefined;
  look: (weighIn: number | undefined) => void;
  children: ReactNode;
  waiting: ReactNode;
  failed: (error: Error) => ReactNode;
}) {
  const { id, weighIn, look } = props;
  const queries = useQueryClient();
  const { waiting } = useQueue();
  const unsent = useMemo(() => textsOf(waiting, id), [waiting, id]);
  const [refused, setRefused] = useState<string | null>(null);
  const key = useMemo(() => ["sheet", id, weighIn ?? 0], [id, weighIn]);
  const query = useQuery({ queryKey: key, queryFn: () => api.open(id, weighIn), placeholderData: (before) => before });

  /** The newest answer: what is still under way, of any weigh-in, was computed before it and is dropped. */
  const keep = useCallback(
    async (sheet: Sheet, at: number | undefined) => {
      const key = ["sheet", id, at ?? 0];
      await queries.cancelQueries({ queryKey: ["sheet", id] }); // a first answer under way would not be asked for again
      queries.setQueryData(key, sheet);
      const others = { queryKey: ["sheet", id], predicate: (each: Query) => each.queryKey[2] !== key[2] };
      queries.removeQueries({ ...others, type: "inactive" });
      void queries.invalidateQueries(others);
      void queries.invalidateQueries({ queryKey: ["rigs"], refetchType: "none" }); // asked for when the menu opens
    },
    [id, queries],
  );

  useEffect(
    () =>
      queue.onAnswer((brought, at) => {
        if (brought.rig !== id) return;
        if ("sheet" in brought) void keep(brought.sheet, at);
        else if ("lines" in brought) queries.setQueryData(["lines", id], brought.lines);
        else queries.setQueryData(["photos", id], brought.photos);
      }),
    [id, keep, queries],
  );

  useEffect(() => {
    lookAt(id, weighIn);
  }, [id, weighIn]);
  const terms = query.data?.rig.terms ?? "north_america";
  useEffect(() => keepTerms(terms), [terms]);

  const sheet = query.data;
  const asOf = query.dataUpdatedAt;
  const desk = useMemo<Desk | null>(() => {
    if (!sheet) return null;
    const { rig, edits: seen, epoch } = sheet;
    const fields = new Map(sheet.fields.map((field) => [field.path, field]));
    const push = (changes: Change[], what: string, gesture: string | null) => {
      const made = changes.map((change) => sealed(rig, change));
      queue.type(id, what, { changes: made, gesture, seen, epoch, outer: elementOf(rig, made[0]?.path ?? "") });
    };
    const ask = (make: (key: string) => Promise<Sheet>) => queue.ask(id, make, weighIn);
    const step = (make: (key: string) => Promise<Sheet>) => {
      setRefused(null);
      ask(make).catch((error: Error) => setRefused(error.message));
    };
    return {
      sheet,
      rig,
      evaluation: sheet.evaluation,
      pending: () => queue.state.waiting.some((each) => each.kind === "typed" && each.rig === id),
      weighIn: sheet.evaluation.weigh_in ?? undefined,
      number: sheet.window.numbers[(sheet.evaluation.weigh_in ?? 0) - 1],
      look,
      type: (path, text, what, gesture) => push([{ path, text, op: "type" }], what, gesture),
      change: (changes, what) => push(changes, what, null),
      undo: () => step((key) => api.undo(id, key, weighIn)),
      redo: () => step((key) => api.redo(id, key, weighIn)),
      refused,
      planFromWeighIn: () => ask((key) => api.planFromWeighIn(id, key, weighIn)),
      addItems: (jotted) => ask((key) => api.addItems(id, jotted, key, weighIn)),
      apply: (changes, what) => {
        const made = changes.map((change) => sealed(rig, change));
        return ask((key) => api.change(id, { changes: made, what, gesture: null, seen, epoch }, key, weighIn));
      },
      ask: (make) => ask((key) => make(id, key, weighIn)),
      newWeighIn: async (scale, uncouple) => {
        await queue.ask(id, (key) => api.newWeighIn(id, scale, uncouple, key), undefined);
        look(undefined);
      },
      again: (aside) => queue.again(aside.key, decided(aside, sheet)),
      field: (path) => fields.get(path),
      named: (path) => named(rig, path),
      asOf,
    };
  }, [sheet, asOf, id, weighIn, look, refused]);

  if (query.error && !desk) return props.failed(query.error);
  if (!desk) return props.waiting;
  return (
    <DeskContext.Provider value={desk}>
      <UnsentContext.Provider value={unsent}>{props.children}</UnsentContext.Provider>
    </DeskContext.Provider>
  );
}

/** What a person decided by sending a change once more: its own figure holds, or its element is put back. */
function decided(aside: Entry, sheet: Sheet): Partial<Typed> {
  if (aside.kind !== "typed" || !aside.refused) return {};
  const { code, paths } = aside.refused;
  const now = { seen: sheet.edits, epoch: sheet.epoch };
  if (code === "conflict.field") return { overrules: [...aside.overrules, ...paths] };
  if (code === "conflict.epoch") return { ...now, overrules: aside.changes.map((change) => change.path) };
  if (code !== "conflict.gone") return {};
  return { ...now, changes: addedAgain(aside.changes, paths[0] ?? "", aside.outer) ?? aside.changes };
}
