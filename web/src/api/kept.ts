import { type DehydratedState, dehydrate, hydrate, type QueryClient } from "@tanstack/react-query";
import { clear, createStore, get, set } from "idb-keyval";

/** A paired device keeps the page and the last answers; the computer itself needs neither. */
export const PAIRED = window.location.protocol === "https:";
const KEPT_FOR = 60 * 86_400_000;
const TOGETHER_MS = 1000;
const NOT_KEPT = new Set(["share", "live", "proposals"]);
const answers = createStore("noxel-answers", "answers");

/** Keeps the last answers in this browser, so that the page opens with them where there is no network. */
export async function keepAnswers(queries: QueryClient): Promise<void> {
  if (!PAIRED) return;
  if ("serviceWorker" in navigator) void navigator.serviceWorker.register("/sw.js").catch(() => {});
  const kept = await get<DehydratedState>("kept", answers).catch(() => undefined);
  if (kept) {
    const fresh = kept.queries.filter((each) => Date.now() - each.state.dataUpdatedAt < KEPT_FOR);
    hydrate(queries, { ...kept, queries: fresh });
  }
  let due = 0;
  const keep = () => {
    window.clearTimeout(due);
    due = 0;
    const state = dehydrate(queries, {
      shouldDehydrateQuery: (query) => query.state.data !== undefined && !NOT_KEPT.has(String(query.queryKey[0])),
    });
    // the last answer stays good to look at, also where asking again has failed
    const good = { status: "success", error: null, fetchStatus: "idle" } as const;
    const kept = { ...state, queries: state.queries.map((each) => ({ ...each, state: { ...each.state, ...good } })) };
    return set("kept", kept, answers).catch(() => {}); // a full disk: the page goes on without
  };
  queries.getQueryCache().subscribe((event) => {
    if (event.type === "updated" || event.type === "removed") due ||= window.setTimeout(keep, TOGETHER_MS);
  });
  document.addEventListener("visibilitychange", () => document.hidden && due && void keep());
}

/** Forgets every answer: this device was shut out. What was typed and not sent stays. */
export const forgetAnswers = () => clear(answers).catch(() => {});
