import type { Target } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import type { BoardState, Least, Move } from "./moves";
import type { SetOutPlan } from "./plan";
import type { relationErrors } from "./relations";
import type { Slot } from "./slot";
import type { PlanPose } from "./stand";
import type { MoveWords } from "./words";

/** What only targets need that are no board ahead of the vehicle: readings, moves, words, relations. */
export type FloorParts = {
  slots: (plan: SetOutPlan) => Slot[];
  /** What is read in the plan of a board that stands behind the vehicle or beside it. */
  around: (plan: SetOutPlan) => Slot[];
  points: (target: Target) => { id: string; xMm: number; yMm: number }[];
  drawMoves: (target: Target, now: BoardState, wanted: PlanPose, least: Least) => Move[];
  drawnBy: (move: Extract<Move, { kind: "draw" }>) => PlanPose;
  drawWords: (move: Extract<Move, { kind: "draw" }>, mm: (v: number) => string) => MoveWords;
  /** What two targets have to be to each other. */
  relationErrors: typeof relationErrors;
  /** A trailer by itself, as a vehicle is taken. @throws RangeError */
  trailerAlone: (vehicle: Vehicle) => Vehicle;
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
