export type Theme = "day" | "night";

const KEY = "noxel.theme";

export function theme(): Theme {
  return document.documentElement.dataset.theme === "night" ? "night" : "day";
}

export function setTheme(wanted: Theme) {
  document.documentElement.dataset.theme = wanted;
  localStorage.setItem(KEY, wanted);
}

/** The theme chosen before, else what the machine prefers. */
export function startTheme() {
  const kept = localStorage.getItem(KEY);
  const dark = matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.dataset.theme = kept === "day" || kept === "night" ? kept : dark ? "night" : "day";
}
