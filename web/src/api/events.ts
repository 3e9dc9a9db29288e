import type { QueryClient } from "@tanstack/react-query";
import { PAGE } from "./client";

const CHANNEL = "noxel.events";
type Saved = { page: string | null };

/**
 * Hears of everything that is saved elsewhere, and has what is shown asked for again. Of all pages of this browser only
 * the one that holds the lock listens to the server, and passes on what it hears: a browser opens only six connections.
 */
export function hearOfOthers(queries: QueryClient) {
  const channel = new BroadcastChannel(CHANNEL);
  const heard = (saved: Saved) => {
    if (saved.page !== PAGE) void queries.invalidateQueries();
  };
  channel.onmessage = (message: MessageEvent<Saved>) => heard(message.data);
  const pass = (saved: Saved) => {
    heard(saved);
    channel.postMessage(saved);
  };
  void navigator.locks.request(CHANNEL, () => {
    const source = new EventSource("/api/events");
    let lost = false;
    source.onmessage = (message) => pass(JSON.parse(message.data) as Saved);
    source.onerror = () => {
      lost = true;
    };
    source.onopen = () => {
      if (lost) pass({ page: null }); // whatever was saved meanwhile
      lost = false;
    };
    return new Promise(() => {});
  });
}
