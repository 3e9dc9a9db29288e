import type { QueryClient } from "@tanstack/react-query";
import { type OpenPages, PAGE } from "./client";
import { listening, nowPresent } from "./presence";
import { reached } from "./reach";

/** What is saved elsewhere within so long is asked for at once. */
const TOGETHER_MS = 400;
const CHANNEL = "noxel.events";
type Saved = { page: string | null; present?: OpenPages | null };

/** Asks again for what is shown; also for what is being asked for the first time, whose answer may be from before. */
async function askAgain(queries: QueryClient, queryKey?: string[]) {
  const which = queryKey ? { queryKey } : {};
  await queries.cancelQueries(which);
  await queries.invalidateQueries(which);
}

/**
 * Hears of everything that is saved elsewhere, and has what is shown asked for again. Of all pages of this browser only
 * the one that holds the lock listens to the server, and passes on what it hears: a browser opens only six connections.
 */
export function hearOfOthers(queries: QueryClient) {
  const channel = new BroadcastChannel(CHANNEL);
  let due: ReturnType<typeof setTimeout> | undefined;
  const ask = () => {
    due = undefined;
    void askAgain(queries);
  };
  const heard = (saved: Saved) => {
    if (saved.present) {
      nowPresent(saved.present);
      return;
    }
    // once for a run of keystrokes elsewhere; a page that nobody sees asks when it is looked at
    if (saved.page === PAGE)
      void askAgain(queries, ["garage"]); // it may be shown before the answer comes
    else due ??= setTimeout(() => !document.hidden && ask(), TOGETHER_MS);
  };
  document.addEventListener("visibilitychange", () => {
    if (due !== undefined && !document.hidden) ask();
  });
  channel.onmessage = (message: MessageEvent<Saved>) => heard(message.data);
  const pass = (saved: Saved) => {
    heard(saved);
    channel.postMessage(saved);
  };
  void navigator.locks.request(CHANNEL, () => {
    const source = new EventSource("/api/events");
    let lost = false;
    let heardOnce = false;
    source.onmessage = (message) => pass(JSON.parse(message.data) as Saved);
    source.onerror = () => {
      lost = true;
      reached(false);
    };
    source.onopen = () => {
      reached(true);
      for (const each of listening) each();
      if (lost)
        pass({ page: null }); // whatever was saved meanwhile
      else if (!heardOnce) void queries.invalidateQueries(); // what was saved between the first answers and now
      lost = false;
      heardOnce = true;
    };
    return new Promise(() => {});
  });
}
