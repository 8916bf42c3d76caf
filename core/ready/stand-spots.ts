import type { BoardSide } from "@/core/sheet";

/** Where a stand is, in words, and its feet: to the right of whoever looks out of it at the car. */
const STANDS_AT: Record<BoardSide, { at: string; feet: readonly [string, string] }> = {
  ahead: { at: "ahead", feet: ["left", "right"] },
  behind: { at: "behind", feet: ["right", "left"] },
  left: { at: "on vehicle left", feet: ["rear", "front"] },
  right: { at: "on vehicle right", feet: ["front", "rear"] },
};

/** What its two feet are called, the one that is read first before the other. */
export const standFeet = (side: BoardSide): readonly [string, string] => STANDS_AT[side].feet;

/** Where the stand of a side is, as words between others say it. */
export const standsAt = (side: BoardSide): string => STANDS_AT[side].at;

/**
 * Where the floor is read under a stand: fields, and how far each lies to the right of whoever looks
 * out of it at the car, mm.
 *
 * @param side of the vehicle where it stands; null for the first board of a job
 */
export const standSpots = (side: BoardSide | null): [field: string, mm: number][] =>
  side === null
    ? [
        ["stand", 350],
        ["stand-2", -350],
      ]
    : [[`stand-${side}`, 0]];
