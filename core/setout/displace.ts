import { onFloor } from "./on-floor";
import { footSlopes, levelShift, type BoardState, type Move } from "./moves";
import { baseFor, boardAt, type PlanPose, type Stand, type StandState } from "./stand";

declare module "./on-floor" {
  interface FloorParts {
    drawnBy: (move: Extract<Move, { kind: "draw" }>) => PlanPose;
  }
}

/**
 * How a move carries the board in the plan: first by `by` in the board's own axes, then by `alsoMm`
 * in vehicle axes.
 */
export type Displacement = { by: PlanPose; alsoMm: { xMm: number; yMm: number } };

const HERE: PlanPose = { xMm: 0, yMm: 0, headingRad: 0 };
export const NOWHERE: Displacement = { by: HERE, alsoMm: { xMm: 0, yMm: 0 } };

/**
 * Whether this foot is the last of its levelling. Logs older than the mark only know levellings to
 * plumb.
 */
export const settlesTilt = (move: Move): boolean =>
  move.kind === "level" && (move.last ?? (move.after.pitchRad === 0 && move.after.rollRad === 0));

/** The adjusters after a move. */
export const stateAfter = (state: StandState, move: Move): StandState => {
  if (move.kind === "zero") return { joints: state.joints.map(() => 0) };
  if (move.kind !== "yaw" && move.kind !== "slide") return state;
  const by = move.kind === "yaw" ? move.turnRad : move.byMm;
  return { joints: state.joints.map((v, i) => (i === move.joint ? v + by : v)) };
};

/**
 * Where a move carries the board, as told; what hands make of it is another matter.
 *
 * Adjusters act between base and board, so they carry the board in its own axes, wherever it
 * stands; rolling acts on the base in vehicle axes, and turns the board about the base's origin.
 *
 * @param state the adjusters before the move
 * @param at the board before the move; levelling shifts it by its height times the change of tilt
 */
export function displacement(
  stand: Stand,
  state: StandState,
  move: Move,
  at: BoardState,
): Displacement {
  const base = baseFor(stand, HERE, state);
  switch (move.kind) {
    case "roll": {
      const turned = { ...base, headingRad: base.headingRad + move.turnRad };
      return {
        by: boardAt(stand, turned, state),
        alsoMm: { xMm: move.awayMm, yMm: move.leftMm },
      };
    }
    case "yaw":
    case "slide":
    case "zero":
      return { ...NOWHERE, by: boardAt(stand, base, stateAfter(state, move)) };
    case "level": {
      // Only the last foot of a levelling brings the board to rest.
      if (!settlesTilt(move)) return NOWHERE;
      const from = footSlopes(at.pitchRad, at.rollRad);
      const to = footSlopes(move.after.pitchRad, move.after.rollRad);
      const [x, y] = levelShift(stand, state, at.heightMm, from, to);
      const { headingRad } = baseFor(stand, at.pose, state);
      const [c, s] = [Math.cos(headingRad), Math.sin(headingRad)];
      return { ...NOWHERE, alsoMm: { xMm: c * x - s * y, yMm: s * x + c * y } };
    }
    case "draw":
      return { ...NOWHERE, by: onFloor().drawnBy(move) };
    case "crank":
    case "booster":
    case "rail":
      return NOWHERE;
  }
}

/** Where a displacement carries a pose. */
export function carried({ by, alsoMm }: Displacement, pose: PlanPose): PlanPose {
  const [c, s] = [Math.cos(pose.headingRad), Math.sin(pose.headingRad)];
  return {
    xMm: pose.xMm + c * by.xMm - s * by.yMm + alsoMm.xMm,
    yMm: pose.yMm + s * by.xMm + c * by.yMm + alsoMm.yMm,
    headingRad: pose.headingRad + by.headingRad,
  };
}

/** One displacement after another, as one. */
export const followedBy = (a: Displacement, b: Displacement): Displacement => ({
  // A shift in vehicle axes is the same whichever way the board is turned.
  by: carried({ ...NOWHERE, by: b.by }, a.by),
  alsoMm: { xMm: a.alsoMm.xMm + b.alsoMm.xMm, yMm: a.alsoMm.yMm + b.alsoMm.yMm },
});
