import { useSyncExternalStore } from "react";

/** Whether the computer that runs Noxel answers, and since when it does not. */
let lost: number | null = null;
const heard = new Set<() => void>();

/** An answer came, or none did. */
export function reached(there: boolean) {
  if (there === (lost === null)) return;
  lost = there ? null : Date.now();
  for (const each of heard) each();
}

/** Subscribes to changes; the function returned unsubscribes. */
export function onReach(each: () => void) {
  heard.add(each);
  return () => heard.delete(each);
}

export const reachable = () => lost === null;

/** Since when nothing answers, in milliseconds; null while something does. */
export const useLost = () => useSyncExternalStore(onReach, () => lost);
