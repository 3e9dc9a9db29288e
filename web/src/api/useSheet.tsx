import { type Query, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
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
import { onAnswer } from "./outbox";
import { type Aside, queueOf, type Saving } from "./queue";

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
  newWeighIn: (scale: ScaleKind, uncouple: boolean) => Promise<void>;
  /** Start the plan from what was weighed last; these three reject with what was wrong, to be shown where they were requested. */
  planFromWeighIn: () => Promise<void>;
  addItems: (jotted: QuickItem) => Promise<void>;
  apply: (changes: Change[], what: string) => Promise<void>;
  /** Send once more, or forget, what could not be saved and stands aside. */
  again: (id: string) => void;
  discard: (id: string) => void;
  /** Ask for something else that answers with the new sheet; rejects with what was wrong. */
  ask: (make: (id: string, weighIn: number | undefined) => Promise<Sheet>) => Promise<void>;
  field: (path: string) => FieldState | undefined;
  /** When the figures were computed, in milliseconds. */
  asOf: number;
  /** The place of the weigh-in looked at among those that `rig` holds, from 1: what paths are made with. */
  weighIn: number | undefined;
  /** Its number in the whole log, from 1: what people see, and what the server is asked for. */
  number: number | undefined;
  look: (number: number | undefined) => void;
};

const DeskContext = createContext<Desk | null>(null);
const SavingContext = createContext<Saving>({ state: "saved" });
const UnsentContext = createContext<ReadonlyMap<string, string>>(new Map());
const AsideContext = createContext<Aside[]>([]);

/** What could not be saved and stands aside, with what the server said of it. */
export const useAside = () => useContext(AsideContext);

/** What was typed and is not answered yet, by path. */
export const useUnsent = () => useContext(UnsentContext);

/** How saving stands; apart from the desk, so that a page of a hundred fields is not drawn again for it. */
export const useSaving = () => useContext(SavingContext);

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
  const [saving, setSaving] = useState<Saving>({ state: "saved" });
  const [aside, setAside] = useState<Aside[]>([]);
  const [unsent, setUnsent] = useState<ReadonlyMap<string, string>>(new Map());
  const queue = useMemo(() => queueOf(id), [id]);
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

  useEffect(() => queue.listen({ sheet: keep, saving: setSaving, aside: setAside, unsent: setUnsent }), [queue, keep]);
  useEffect(() => {
    const ended = onAnswer((brought) => {
      if (brought.rig !== id) return;
      if ("sheet" in brought) void keep(brought.sheet, undefined);
      else if ("lines" in brought) queries.setQueryData(["lines", id], brought.lines);
      else queries.setQueryData(["photos", id], brought.photos);
    });
    return () => void ended();
  }, [id, keep, queries]);

  useEffect(() => {
    queue.weighIn = weighIn;
  }, [queue, weighIn]);

  const sheet = query.data;
  const asOf = query.dataUpdatedAt;
  const desk = useMemo<Desk | null>(() => {
    if (!sheet) return null;
    const keys = sheet.window.keys;
    const fields = new Map(sheet.fields.map((field) => [field.path, field]));
    const ask = (make: () => Promise<Sheet>) => queue.ask(make, weighIn);
    const step = (make: () => Promise<Sheet>) => {
      ask(make).catch((error: Error) => setSaving({ state: "refused", why: error.message }));
    };
    return {
      sheet,
      rig: sheet.rig,
      evaluation: sheet.evaluation,
      pending: () => queue.pending,
      weighIn: sheet.evaluation.weigh_in ?? undefined,
      number: sheet.window.numbers[(sheet.evaluation.weigh_in ?? 0) - 1],
      look,
      type: (path, text, what, gesture) => queue.push([{ path, text, op: "type" }], what, gesture, keys, sheet.edits),
      change: (changes, what) => queue.push(changes, what, null, keys, sheet.edits),
      undo: () => step(() => api.undo(id, weighIn)),
      redo: () => step(() => api.redo(id, weighIn)),
      planFromWeighIn: () => ask(() => api.planFromWeighIn(id, weighIn)),
      addItems: (jotted) => ask(() => api.addItems(id, jotted, weighIn)),
      apply: (changes, what) =>
        ask(() => api.change(id, { changes, what, gesture: null, window: keys, base: sheet.edits }, weighIn)),
      ask: (make) => ask(() => make(id, weighIn)),
      newWeighIn: async (scale, uncouple) => {
        await queue.ask(() => api.newWeighIn(id, scale, uncouple), undefined);
        look(undefined);
      },
      again: (aside) => queue.again(aside),
      discard: (aside) => queue.discard(aside),
      field: (path) => fields.get(path),
      asOf,
    };
  }, [sheet, asOf, id, weighIn, look, queue]);

  if (query.error && !desk) return props.failed(query.error);
  if (!desk) return props.waiting;
  return (
    <DeskContext.Provider value={desk}>
      <SavingContext.Provider value={saving}>
        <AsideContext.Provider value={aside}>
          <UnsentContext.Provider value={unsent}>{props.children}</UnsentContext.Provider>
        </AsideContext.Provider>
      </SavingContext.Provider>
    </DeskContext.Provider>
  );
}
