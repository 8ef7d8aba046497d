import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** A floating sheet for one task. Focus stays inside; Escape leaves it. */
export function Sheet({
  open,
  onOpenChange,
  title,
  hint,
  width = 460,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  hint?: string;
  width?: number;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-veil" />
        <Dialog.Content
          className={`fixed top-[12vh] left-1/2 z-50 max-h-[80vh] w-[calc(100vw-40px)] -translate-x-1/2 overflow-y-auto
            rounded-md border border-line bg-paper p-5 shadow-xl`}
          style={{ maxWidth: width }}
          aria-describedby={undefined}
        >
          <Dialog.Title className="pr-16 font-serif text-[18px] leading-tight font-semibold">{title}</Dialog.Title>
          {hint && <p className="mt-1 text-[13px] text-quiet">{hint}</p>}
          <div className="mt-4">{children}</div>
          {/* Last in order, so that the first field has the focus; first in sight. A sheet without fields can be scrolled from it. */}
          <Dialog.Close className="absolute top-4 right-4 h-7 rounded-md px-2 text-[12.5px] text-quiet hover:bg-soft hover:text-ink">
            close <kbd className="text-[11.5px] text-faint">Esc</kbd>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
