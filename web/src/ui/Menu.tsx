import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

export function MenuBody({ children }: { children: ReactNode }) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="start"
        sideOffset={4}
        collisionPadding={8}
        className="z-50 max-h-[70vh] max-w-[92vw] min-w-40 overflow-y-auto border border-ink bg-card py-1 text-ink shadow-[3px_3px_0_var(--rule)]"
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

export function MenuItem(props: { children: ReactNode; onSelect: () => void; marked?: boolean; disabled?: boolean }) {
  return (
    <DropdownMenu.Item
      onSelect={props.onSelect}
      disabled={props.disabled ?? false}
      className="flex min-h-9 cursor-default items-center gap-2 px-3 py-1 text-[0.9375rem] outline-none data-[disabled]:text-soft data-[highlighted]:bg-ink data-[highlighted]:text-paper"
    >
      <span aria-hidden="true" className={`h-2 w-2 shrink-0 ${props.marked ? "bg-current" : ""}`} />
      {props.children}
    </DropdownMenu.Item>
  );
}

export const MenuRule = () => <DropdownMenu.Separator className="my-1 h-px bg-rule" />;
