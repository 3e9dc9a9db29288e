import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** A sheet of paper over the page, for what must be said or asked before going on. */
export function Slip(props: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  lead?: string;
  wide?: boolean;
  /** For reading: nothing in it takes the focus at first. */
  quiet?: boolean;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={props.open} onOpenChange={props.onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <Dialog.Content
          {...(props.lead ? {} : { "aria-describedby": undefined })}
          onOpenAutoFocus={(event) => props.quiet && event.preventDefault()}
          className={`fixed top-1/2 left-1/2 z-50 max-h-[88vh] ${props.wide ? "w-[min(60rem,94vw)]" : "w-[min(34rem,94vw)]"} -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-ink bg-card p-5 text-ink shadow-[5px_5px_0_var(--rule)]`}
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
