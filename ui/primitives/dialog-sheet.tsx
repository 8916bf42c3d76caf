"use client";

import { hideOthers } from "aria-hidden";
import { Dialog as Radix } from "radix-ui";
import { useEffect, useRef, type ReactNode, type RefObject } from "react";

export type DialogProps = {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
};

/**
 * What lies under a sheet: it dims the page, takes every touch meant for it, and does not let the
 * wheel move it. The library would do so by the style of the whole page, which then is worked out
 * anew, all of it, at the very moment the sheet should come up.
 */
function Cover({ onPress }: { onPress: () => void }) {
  const cover = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const at = cover.current;
    const hold = (e: Event): void => e.preventDefault();
    at?.addEventListener("wheel", hold, { passive: false });
    return () => at?.removeEventListener("wheel", hold);
  }, []);
  return (
    <div
      ref={cover}
      aria-hidden
      className="fixed inset-0 z-40 touch-none bg-black/45"
      // The press must not take the focus out of the sheet before the click closes it.
      onMouseDown={(e) => e.preventDefault()}
      onClick={onPress}
    />
  );
}

/** Hides everything else from a screen reader while the sheet is there. */
function Alone({ sheet }: { sheet: RefObject<HTMLElement | null> }) {
  useEffect(() => (sheet.current ? hideOthers(sheet.current) : undefined), [sheet]);
  return null;
}

/**
 * The sheet itself. Escape and the close button put it away, and the keyboard is then where it was
 * before.
 */
export function DialogSheet({ open, onClose, title, children, wide = false }: DialogProps) {
  // The library hands the focus back to a trigger of its own only; our dialogs are opened by state.
  const before = useRef<HTMLElement | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  return (
    <Radix.Root modal={false} open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Cover onPress={onClose} />
        <Radix.Content
          ref={sheet}
          aria-modal
          aria-describedby={undefined}
          onInteractOutside={(e) => e.preventDefault()}
          // What is sent here is no form of the page beneath, though that may hold this sheet.
          onSubmit={(e) => e.stopPropagation()}
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
          <Alone sheet={sheet} />
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
