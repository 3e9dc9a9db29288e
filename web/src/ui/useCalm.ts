import { useEffect, useState } from "react";

/** How long after the last key the answer's words wait: half a figure would say “stop”. */
const CALM_MS = 600;
let lastKey = Number.NEGATIVE_INFINITY;

/** A key was pressed in a field. */
export const keyPressed = () => {
  lastKey = performance.now();
};

/** The same value, but not while a figure is being typed: the drawing follows every key, words wait for the figure. */
export function useCalm<T>(value: T): T {
  const [shown, setShown] = useState(value);
  useEffect(() => {
    let due: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      const wait = lastKey + CALM_MS - performance.now(); // another key begins the wait anew
      if (wait <= 0) setShown(value);
      else due = setTimeout(look, wait);
    };
    look();
    return () => clearTimeout(due);
  }, [value]);
  return shown;
}
