import type { Target } from "@/core/sheet";
import type { Stand } from "./stand";

/**
 * What carries a mat: two hands. It has no adjusters and no feet to turn; whoever draws the mat puts
 * it anywhere on the floor.
 */
export const HANDS: Stand = {
  id: "hands",
  name: "hands",
  beamHalfMm: 300,
  hookHeightMm: 50,
  joints: [],
  boardXMm: 0,
  boardYMm: 0,
  crank: { minMm: 0, maxMm: 1, mmPerTurn: 1 },
  scaleOffsetMm: 0,
  feet: [
    { xMm: 0, yMm: 0 },
    { xMm: 1, yMm: 0 },
    { xMm: 0, yMm: 1 },
  ],
  footMmPerTurn: 1,
};

/** Whether hands carry it. */
export const isByHand = (target: Pick<Target, "kind">): boolean => target.kind !== "board";

/** Whether it carries a label that can be read: a cross drawn on the floor carries none. */
export const isLabelled = (target: Pick<Target, "kind">): boolean => target.kind !== "mark";

/** The side of the vehicle a mat or a mark lies on: 1 for vehicle left, -1 for vehicle right. */
export const sideOf = ({
  kind,
  object,
  placement,
}: Pick<Target, "kind" | "object" | "placement">): 1 | -1 =>
  (kind === "mark" ? object.side === "left" : placement.acrossMm >= 0) ? 1 : -1;
