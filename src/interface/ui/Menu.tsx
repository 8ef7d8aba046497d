import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

/** What a menu's button opens: one frame for all. */
export function MenuFrame({
  width,
  align = "start",
  children,
}: {
  width: number;
  align?: "start" | "end";
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align={align}
        sideOffset={5}
        style={{ minWidth: width }}
        className="z-50 rounded-md border border-line bg-raised py-1 text-[13px] shadow-xl"
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

/** How an entry of a menu looks, for those that are links or choices. */
export const menuItem =
  "flex items-baseline justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-mist data-[state=checked]:font-semibold";

/** An act in a menu; beside it what it does it to, a count, or its key. */
export function MenuItem({
  onSelect,
  aside,
  children,
}: {
  onSelect: () => void;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Item onSelect={onSelect} className={menuItem}>
      {children}
      {aside !== undefined && <span className="text-[12px] text-quiet">{aside}</span>}
    </DropdownMenu.Item>
  );
}

/** What stands over entries that belong together. */
export function MenuLabel({ children }: { children: ReactNode }) {
  return <DropdownMenu.Label className="px-3 py-1 text-[12px] text-quiet">{children}</DropdownMenu.Label>;
}

/** A line between entries. */
export function MenuLine() {
  return <DropdownMenu.Separator className="my-1 h-px bg-line" />;
}
