import { useSyncExternalStore } from "react";

export type Theme = "day" | "night";

const KEY = "noxel.theme";
const heard = new Set<() => void>();

export function theme(): Theme {
  return document.documentElement.dataset.theme === "night" ? "night" : "day";
}

export function setTheme(wanted: Theme) {
  document.documentElement.dataset.theme = wanted;
  localStorage.setItem(KEY, wanted);
  for (const each of heard) each();
}

/** The theme chosen before, else what the machine prefers, also when that changes. */
export function startTheme() {
  const dark = matchMedia("(prefers-color-scheme: dark)");
  const follow = () => {
    const kept = localStorage.getItem(KEY);
    const wanted = kept === "day" || kept === "night" ? kept : dark.matches ? "night" : "day";
    document.documentElement.dataset.theme = wanted;
    for (const each of heard) each();
  };
  follow();
  dark.addEventListener("change", follow);
}

/** The theme now; a component that asks is drawn again when it changes. */
export const useTheme = () =>
  useSyncExternalStore((each) => {
    heard.add(each);
    return () => heard.delete(each);
  }, theme);
