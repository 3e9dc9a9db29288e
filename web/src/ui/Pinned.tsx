import { type ReactNode, useEffect, useRef } from "react";

/** Stays at the top of the place while the rest is scrolled; what takes the focus below comes to lie in view. */
export function Pinned({ className = "", children }: { className?: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const top = box.current;
    const scrolled = top?.closest("main");
    if (!top || !scrolled) return;
    const measure = () => {
      const pinned = getComputedStyle(top).position === "sticky";
      scrolled.style.scrollPaddingTop = pinned ? `${top.offsetHeight + 8}px` : "";
    };
    const sizes = new ResizeObserver(measure);
    sizes.observe(top);
    window.addEventListener("resize", measure);
    return () => {
      sizes.disconnect();
      window.removeEventListener("resize", measure);
      scrolled.style.scrollPaddingTop = "";
    };
  }, []);
  return (
    <div ref={box} className={`border-b border-ink bg-paper short:static ${className}`}>
      {children}
    </div>
  );
}
