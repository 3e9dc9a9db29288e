import { createStore, del, set, values } from "idb-keyval";
import { useSyncExternalStore } from "react";
import { afterPress } from "../press";
import { api, PAGE, RequestFailed } from "./client";
import { type Brought, type Entry, Line, type Means } from "./line";
import { onReach, reachable } from "./reach";

export type { Brought, Entry, Saving, Typed } from "./line";

const store = createStore("noxel-queue", "entries");
const TAKE_OVER = "noxel.queue";
/** This page holds a lock of its own name as long as it lives. */
const alive = new Promise<void>((held) => {
  void navigator.locks.request(PAGE, () => {
    held();
    return new Promise(() => {});
  });
});
/** The weigh-in that is looked at in each rig: what is typed is answered for it. */
const looking = new Map<string, number | undefined>();
export const lookAt = (rig: string, weighIn: number | undefined) => looking.set(rig, weighIn);

const send: Means["send"] = async (entry, weighIn): Promise<Brought> => {
  const { rig, key } = entry;
  switch (entry.kind) {
    case "asked":
      return { rig, sheet: await entry.make(key) };
    case "typed": {
      const { changes, says, gesture, seen, epoch, overrules, client } = entry;
      const body = { changes, what: says.slice(0, 200), gesture, seen, epoch, overrules, by: client };
      return { rig, sheet: await api.change(rig, body, key, weighIn) };
    }
    case "ticket":
      return { rig, sheet: await api.jot(rig, entry.ticket) };
    case "tick": {
      const ago = Math.max(0, Math.round((Date.now() - entry.at) / 1000));
      return { rig, lines: await api.tickLine(rig, entry.line, { done: entry.done, by: entry.by, ago }) };
    }
    case "photo": {
      const asked = { about: entry.about, visit: entry.visit ?? "", weigh_in: entry.weighIn ?? "" };
      return { rig, photos: await api.addPhoto(rig, key, entry.file, asked) };
    }
  }
};

function failure(error: unknown) {
  if (!(error instanceof RequestFailed)) return { message: String(error), status: 500 };
  const { message, problem } = error;
  if (!problem) return { message };
  return {
    message,
    status: problem.status,
    code: problem.code,
    paths: (problem.errors ?? []).map((each) => each.path),
  };
}

export const queue = new Line({
  page: PAGE,
  looking: (rig) => looking.get(rig),
  send,
  failure,
  keep: (entry) => set(entry.key, { ...entry, page: PAGE }, store),
  drop: (key) => del(key, store),
  later: (act, ms) => {
    const due = setTimeout(act, ms);
    return () => clearTimeout(due);
  },
  newKey: () => crypto.randomUUID(),
  now: Date.now,
});

/** Take over what pages left that are no longer open; each by one page only. */
async function takeOver() {
  await alive;
  await navigator.locks.request(TAKE_OVER, async () => {
    const open = new Set((await navigator.locks.query()).held?.map((each) => each.name));
    const kept = await values<Entry & { page: string }>(store);
    const left = kept.filter((each) => !open.has(each.page));
    await Promise.all(left.map((each) => set(each.key, { ...each, page: PAGE }, store)));
    queue.adopt(left);
  });
}
/** What an earlier version kept: tickets, ticks and photographs go on; what counted items has to be typed again. */
async function ofEarlierVersion() {
  const outbox = createStore("noxel-outbox", "waiting");
  for (const old of await values<Entry & { weighIn?: unknown; why?: string }>(outbox).catch(() => [])) {
    const weighIn = typeof old.weighIn === "number" ? `w${String(old.weighIn).padStart(8, "0")}` : null;
    const refused = old.why === undefined ? null : { why: old.why, code: "", paths: [] };
    const entry = { ...old, weighIn, refused, client: "earlier", page: "earlier", order: old.at, tries: 0 };
    await set(old.key, entry, store);
    await del(old.key, outbox);
  }
  for (const name of Object.keys(localStorage)) {
    const [, what, rig = ""] = name.split(".");
    if (!name.startsWith("noxel.") || (what !== "unsent" && what !== "aside")) continue;
    for (const old of JSON.parse(localStorage.getItem(name) ?? "[]")) {
      const why = "It was typed before Noxel was updated, and could not be sent since. Type it again.";
      const entry = {
        kind: "typed",
        key: crypto.randomUUID(),
        rig,
        says: old.what,
        changes: old.changes,
        gesture: null,
      };
      const more = { seen: 0, epoch: "", overrules: [], tries: 0, at: Date.now(), order: Date.now() };
      const refused = { why, code: "earlier", paths: [] };
      await set(entry.key, { ...entry, ...more, refused, client: "earlier", page: "earlier" }, store);
    }
    localStorage.removeItem(name);
  }
}
void alive
  .then(() => navigator.locks.request(TAKE_OVER, ofEarlierVersion))
  .catch(() => {})
  .then(() => tryToTakeOver());
const tryToTakeOver = () => void takeOver().catch(() => {}); // a browser that keeps nothing left nothing
document.addEventListener("visibilitychange", () => document.hidden || tryToTakeOver());
onReach(() => reachable() && queue.retry());
window.addEventListener("online", queue.retry);

const subscribe = (heard: () => void) => queue.subscribe(() => afterPress(heard));
/** Everything that waits or stands aside, and how saving stands. */
export const useQueue = () => useSyncExternalStore(subscribe, () => queue.state);
