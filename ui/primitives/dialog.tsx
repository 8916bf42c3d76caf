"use client";

import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

/**
 * The one dialog: a sheet of paper laid over the bench. Escape and the close button put it away.
 */
export function Dialog({
  open,
  onClose,
  title,
  children,
  wide = false,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Radix.Content
          aria-describedby={undefined}
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
