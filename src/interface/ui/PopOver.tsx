import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** What floats beside the control that opened it: one frame for all. */
export function PopOver({
  label,
  width,
  align = "start",
  onEscape,
  children,
}: {
  label: string;
  width: number;
  align?: "start" | "end";
  /** Leaves without doing what closing would do. */
  onEscape?: () => void;
  children: ReactNode;
}) {
  return (
    <Popover.Portal>
      <Popover.Content
        align={align}
        sideOffset={5}
        collisionPadding={10}
        aria-label={label}
        style={{ width }}
        onEscapeKeyDown={(e) => {
          if (!onEscape) return;
          e.preventDefault();
          onEscape();
        }}
        className="z-50 rounded-md border border-line bg-raised p-3 shadow-xl"
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}
