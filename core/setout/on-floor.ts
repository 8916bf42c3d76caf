import type { Target } from "@/core/sheet";
import type { BoardState, Least, Move } from "./moves";
import type { SetOutPlan } from "./plan";
import type { Slot } from "./slot";
import type { PlanPose } from "./stand";

/** What is read of targets that lie on the floor, and how hands draw them to their place. */
export type FloorParts = {
  slots: (plan: SetOutPlan) => Slot[];
  points: (target: Target) => { id: string; xMm: number; yMm: number }[];
  drawMoves: (target: Target, now: BoardState, wanted: PlanPose, least: Least) => Move[];
  drawnBy: (move: Extract<Move, { kind: "draw" }>) => PlanPose;
};

/**
 * These stand in files of their own, which a page fetches whose job has something on the floor: most
 * jobs have boards alone, and a bench should open quickly. Whoever works with such targets calls
 * `installFloorSlots` first.
 */
let parts: FloorParts | null = null;

export function installOnFloor(floor: FloorParts): void {
  parts = floor;
}

/** @throws where nobody has installed them: a fault of the program */
export function onFloor(): FloorParts {
  if (!parts) throw new Error("installFloorSlots() was not called before a mat or a mark was met.");
  return parts;
}
