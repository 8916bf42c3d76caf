import type { Target } from "@/core/sheet";
import type { BoardState, Least, Move } from "./moves";
import type { SetOutPlan } from "./plan";
import type { Slot } from "./slot";
import type { PlanPose } from "./stand";

/** What is read of targets that are no board ahead of the vehicle, and how hands draw those on the floor. */
export type FloorParts = {
  slots: (plan: SetOutPlan) => Slot[];
  /** What is read in the plan of a board that stands behind the vehicle or beside it. */
  around: (plan: SetOutPlan) => Slot[];
  points: (target: Target) => { id: string; xMm: number; yMm: number }[];
  drawMoves: (target: Target, now: BoardState, wanted: PlanPose, least: Least) => Move[];
  drawnBy: (move: Extract<Move, { kind: "draw" }>) => PlanPose;
};

/**
 * These stand in files of their own, which a page fetches whose job has such targets: most jobs have
 * boards ahead alone, and a bench should open quickly. Whoever works with such targets calls
 * `installFloorSlots` first.
 */
let parts: FloorParts | null = null;

export function installOnFloor(floor: FloorParts): void {
  parts = floor;
}

/** @throws where nobody has installed them: a fault of the program */
export function onFloor(): FloorParts {
  if (!parts)
    throw new Error(
      "installFloorSlots() was not called before a target was met that is no board ahead.",
    );
  return parts;
}
