"use client";

import { Dialog as Radix } from "radix-ui";
import { useRef, type ReactNode } from "react";

export type DialogProps = {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
};

/**
 * The sheet itself. Escape and the close button put it away, and the keyboard is then where it was
 * before.
 */
export function DialogSheet({ open, onClose, title, children, wide = false }: DialogProps) {
  // The library hands the focus back to a trigger of its own only; our dialogs are opened by state.
  const before = useRef<HTMLElement | null>(null);
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Radix.Content
          aria-describedby={undefined}
          onOpenAutoFocus={() => {
            const held = document.activeElement;
            before.current = held instanceof HTMLElement ? held : null;
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            before.current?.focus({ preventScroll: true });
          }}
          className={`fixed left-1/2 top-1/2 z-50 max-h-[92dvh] w-[calc(100vw-24px)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-md border border-hairline bg-sheet p-6 text-ink ${wide ? "max-w-3xl" : "max-w-xl"}`}
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <Radix.Title className="text-2xl font-semibold leading-tight">{title}</Radix.Title>
            <Radix.Close
              className="-mr-2 -mt-2 min-h-12 min-w-12 rounded-md text-2xl leading-none hover:bg-wash"
              aria-label="Close"
            >
              ×
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
