import { useEffect, useSyncExternalStore } from "react";
import { api, type OpenPages, PAGE, type Present } from "./client";

const AGAIN_MS = 45_000;
/** Called whenever the server is listened to anew: what it said before is not known. */
export const listening = new Set<() => void>();
let present: readonly Present[] = [];
let newest = 0;
const heard = new Set<() => void>();

/** Which pages are open, as the server last said. */
export function nowPresent(now: OpenPages) {
  const restarted = now.count === 1;
  if (now.count < newest && !restarted) return; // an answer that was overtaken
  newest = now.count;
  present = now.pages;
  for (const each of heard) each();
}

/** Tells the others where this page is, as long as it is looked at. */
export function useWhereabouts(rig: string, place: string) {
  useEffect(() => {
    const say = () => {
      if (!document.hidden) api.present({ rig, place }).then(nowPresent, () => {});
    };
    const leave = () => void api.present({ rig: "", place: "" }, true).catch(() => {});
    const turned = () => (document.hidden ? leave() : say());
    say();
    const timer = setInterval(say, AGAIN_MS);
    listening.add(say);
    document.addEventListener("visibilitychange", turned);
    window.addEventListener("pagehide", leave);
    return () => {
      clearInterval(timer);
      listening.delete(say);
      document.removeEventListener("visibilitychange", turned);
      window.removeEventListener("pagehide", leave);
    };
  }, [rig, place]);
}

/** Who else has this rig open, and where. */
export function useOthers(rig: string): Present[] {
  const all = useSyncExternalStore(
    (each) => {
      heard.add(each);
      return () => heard.delete(each);
    },
    () => present,
  );
  return all.filter((each) => each.rig === rig && each.page !== PAGE);
}
