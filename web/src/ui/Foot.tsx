import { createContext, type ReactNode, useContext } from "react";
import { createPortal } from "react-dom";

/** Where the foot of the page is: below what scrolls, so that it never covers a field. */
export const FootContext = createContext<HTMLElement | null>(null);

/** Stands at the foot of the page, whatever is scrolled. */
export function Foot({ label = "The answer so far", children }: { label?: string; children: ReactNode }) {
  const foot = useContext(FootContext);
  return foot ? createPortal(<section aria-label={label}>{children}</section>, foot) : null;
}
