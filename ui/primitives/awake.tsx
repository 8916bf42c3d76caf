"use client";

import { useLayoutEffect, useRef, type ReactNode } from "react";

/**
 * What the server sends takes no touch until this part of the page is awake: one given too early
 * would be lost without a word. Each part of a page wakes by itself, so each has its own.
 */
export function WhenAwake({ children }: { children: ReactNode }) {
  const part = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => part.current?.removeAttribute("inert"), []);
  return (
    <div ref={part} inert className="contents">
      {children}
    </div>
  );
}
