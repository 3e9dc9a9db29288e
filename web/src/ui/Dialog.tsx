import { Dialog } from "radix-ui";
import { type ReactNode, useEffect, useRef } from "react";

/** While something lies over the page, Back closes it and leaves the place as it is. */
export function useBackCloses(open: boolean, close: () => void) {
  const closing = useRef(close);
  closing.current = close;
  useEffect(() => {
    if (!open) return;
    const mark = crypto.randomUUID();
    window.history.pushState({ ...window.history.state, over: mark }, "");
    const back = () => closing.current();
    window.addEventListener("popstate", back);
    return () => {
      window.removeEventListener("popstate", back);
      if (window.history.state?.over === mark) window.history.back(); // closed by itself: the entry is not needed
    };
  }, [open]);
}

/** What had the focus when something opened over the page, or the menu that it was chosen from. */
function opener(): HTMLElement | null {
  const focused = document.activeElement as HTMLElement | null;
  const menu = focused?.closest("[role=menu]");
  return menu ? document.querySelector<HTMLElement>(`[aria-controls="${menu.id}"]`) : focused;
}

/** A sheet of paper over the page, for what must be said or asked before going on. */
export function Slip(props: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  lead?: string;
  wide?: boolean;
  /** For reading: the sheet itself takes the focus, none of its buttons. */
  quiet?: boolean;
  children: ReactNode;
}) {
  const { open, onOpenChange } = props;
  const sheet = useRef<HTMLDivElement>(null);
  const before = useRef<HTMLElement | null>(null);
  if (open && before.current === null) before.current = opener();
  if (!open && before.current !== null && sheet.current === null) before.current = null;
  useBackCloses(open, () => onOpenChange(false));
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <Dialog.Content
          {...(props.lead ? {} : { "aria-describedby": undefined })}
          ref={sheet}
          tabIndex={-1}
          onOpenAutoFocus={(event) => {
            if (!props.quiet) return;
            event.preventDefault();
            sheet.current?.focus();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            const back = before.current?.isConnected ? before.current : document.getElementById("content");
            back?.focus({ preventScroll: true });
          }}
          className={`fixed top-1/2 left-1/2 z-50 max-h-[88vh] ${props.wide ? "w-[min(60rem,94vw)]" : "w-[min(34rem,94vw)]"} -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-ink bg-card p-5 text-ink shadow-[5px_5px_0_var(--rule)] outline-none`}
        >
          <div className="flex items-start justify-between gap-3">
            <Dialog.Title className="font-cond text-[1.5rem] leading-tight font-semibold">{props.title}</Dialog.Title>
            <Dialog.Close className="-mt-1 -mr-1 flex h-11 shrink-0 items-center px-2 font-cond text-[1rem] underline underline-offset-2">
              Close
            </Dialog.Close>
          </div>
          {props.lead && <Dialog.Description className="mt-1 text-soft">{props.lead}</Dialog.Description>}
          <div className="mt-4">{props.children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
