"use client";

import { REFERENCES } from "@/core/setout";
import type { Target } from "@/core/sheet";
import { formatLength } from "@/core/units";
import { useSettings } from "../settings";

/** The book's own figures, and what they come to on this stand. */
export function BookFigures({ target, on }: { target: Target; on: Target }) {
  const { lengths } = useSettings();
  const { along, height } = target.measuredTo ?? {};
  const [book, own] = [target.placement, on.placement];
  const parts = [
    along === "beam-back" &&
      `${formatLength(book.alongMm, lengths)} to ${REFERENCES.along[along]} is ${formatLength(own.alongMm, lengths)} to the board’s face`,
    (height === "scale" || height === "laser") &&
      `${formatLength(book.heightMm, lengths)} by ${REFERENCES.height[height]} is ${formatLength(own.heightMm, lengths)} to the board’s centre`,
  ].filter(Boolean);
  if (parts.length === 0) return null;
  return (
    <p className="border-b border-hairline bg-sheet px-3 py-1.5 text-base">
      <span className="text-soft">In the book</span> {parts.join("; ")}.
    </p>
  );
}
