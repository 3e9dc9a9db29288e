import { useLayoutEffect, useRef, useState, useSyncExternalStore } from "react";

const LOW = matchMedia("(max-height: 500px)");
const NARROW = matchMedia("(max-width: 45.99rem)");

/** How wide an element is, in pixels; known before anything is painted, so that nothing moves. A chart drawn that wide
 * keeps its words legible on a phone. */
export function useWidth<Box extends Element = HTMLDivElement>() {
  const box = useRef<Box>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const { paddingLeft, paddingRight } = getComputedStyle(element);
    setWidth(Math.floor(element.clientWidth - Number.parseFloat(paddingLeft) - Number.parseFloat(paddingRight)));
    const watcher = new ResizeObserver(([entry]) => entry && setWidth(Math.floor(entry.contentRect.width)));
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return [box, width] as const;
}

const useMatch = (query: MediaQueryList) =>
  useSyncExternalStore(
    (each) => {
      query.addEventListener("change", each);
      return () => query.removeEventListener("change", each);
    },
    () => query.matches,
  );

/** Whether the screen is too low for a large drawing, such as a phone on its side. */
export const useLow = () => useMatch(LOW);

/** Whether the screen is as narrow as a phone's. */
export const useNarrow = () => useMatch(NARROW);
