import { createStore, del, entries, set } from "idb-keyval";
import { useSyncExternalStore } from "react";
import { api, type JottedTicket, type OwnLine, type Photo, RequestFailed, type Sheet } from "./client";
import { onReach, reachable } from "./reach";

type Made = { key: string; rig: string; at: number; says: string; why?: string };
/** What was made on this device and is to be sent: kept until it is answered, sent in order, each once. */
export type Waiting = Made &
  (
    | { kind: "ticket"; ticket: JottedTicket }
    | { kind: "tick"; line: number; done: boolean; by: string }
    | { kind: "photo"; about: string; weighIn: number | null; visit: string | null; file: Blob }
  );

const TRY_MS = 4000;
const store = createStore("noxel-outbox", "waiting");
/** Faults that pass: try again, and keep the order. */
const PASSING = [401, 429, 500, 503, 507];
let waiting: readonly Waiting[] = [];
let sending = false;
let retry: ReturnType<typeof setTimeout> | undefined;
const heard = new Set<() => void>();
/** What an answer brought: a sheet, the photographs or the own lines of a rig. */
export type Brought =
  | { rig: string; sheet: Sheet }
  | { rig: string; photos: Photo[] }
  | { rig: string; lines: OwnLine[] };
const answered = new Set<(brought: Brought) => void>();

function show(next: readonly Waiting[]) {
  waiting = next;
  for (const each of heard) each();
}

async function read() {
  const all = (await entries<string, Waiting>(store)).map(([, each]) => each);
  show(all.sort((one, other) => one.at - other.at));
}

/** Keep something and send it as soon as that is possible. */
export async function put(made: Waiting) {
  await set(made.key, made, store); // it is kept before it is shown as kept
  await read();
  void flush();
}

export async function discard(key: string) {
  await del(key, store);
  await read();
}

/** Send what was refused once more. */
export async function again(made: Waiting) {
  const { why: _, ...rest } = made;
  await put(rest);
}

/** Hear of everything that an answer brought. */
export function onAnswer(each: (brought: Brought) => void) {
  answered.add(each);
  return () => answered.delete(each);
}

async function send(next: Waiting): Promise<Brought> {
  if (next.kind === "ticket") return { rig: next.rig, sheet: await api.jot(next.rig, next.ticket) };
  if (next.kind === "tick") {
    const ago = Math.max(0, Math.round((Date.now() - next.at) / 1000));
    return { rig: next.rig, lines: await api.tickLine(next.rig, next.line, { done: next.done, by: next.by, ago }) };
  }
  const { about, visit } = next;
  const asked = { about, visit: visit ?? "", weigh_in: next.weighIn === null ? "" : String(next.weighIn) };
  return { rig: next.rig, photos: await api.addPhoto(next.rig, next.key, next.file, asked) };
}

async function flush() {
  clearTimeout(retry);
  if (sending) return;
  sending = true;
  try {
    // one page of this browser sends; each entry is taken once by the server, whichever page it comes from
    await navigator.locks.request("noxel.outbox", async () => {
      await read();
      for (const next of waiting.filter((each) => each.why === undefined)) {
        try {
          const brought = await send(next);
          await del(next.key, store);
          for (const each of answered) each(brought);
        } catch (error) {
          const status = error instanceof RequestFailed ? error.problem?.status : undefined;
          if (status === undefined || PASSING.includes(status)) break;
          await set(next.key, { ...next, why: (error as Error).message }, store);
        }
      }
      await read();
    });
  } finally {
    sending = false;
    if (waiting.some((each) => each.why === undefined)) retry = setTimeout(() => void flush(), TRY_MS);
  }
}

onReach(() => reachable() && void flush());
window.addEventListener("online", () => void flush());
void flush();

export const useOutbox = () =>
  useSyncExternalStore(
    (each) => {
      heard.add(each);
      return () => heard.delete(each);
    },
    () => waiting,
  );
