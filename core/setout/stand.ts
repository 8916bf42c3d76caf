import type { z } from "zod";
import type { Booster, standSchema } from "./stand-schema";

export type Stand = z.infer<typeof standSchema> & {
  /** The booster that is on it just now; scale and crank are then those of the boosted stand. */
  fitted?: Booster;
};

/**
 * Where the stand's own adjusters are: one value per joint (rad or mm from the middle of its
 * travel).
 */
export type StandState = { joints: number[] };

/**
 * The stand with one of its boosters (or with none): its scale then shows too little, and its crank
 * reaches higher.
 */
export function withBooster(stand: Stand, id: string | null): Stand {
  const by = (stand.boosters?.find((b) => b.id === id)?.addsMm ?? 0) - (stand.fitted?.addsMm ?? 0);
  const { fitted: _, ...bare } = stand;
  const fitted = stand.boosters?.find((b) => b.id === id);
  // What is as it was stays the same thing, so that what was made of it is found again.
  if (by === 0 && fitted?.id === stand.fitted?.id) return stand;
  return {
    ...bare,
    scaleOffsetMm: stand.scaleOffsetMm + by,
    crank: { ...stand.crank, minMm: stand.crank.minMm + by, maxMm: stand.crank.maxMm + by },
    ...(fitted ? { fitted } : {}),
  };
}

/**
 * What must be under the mast for the crank to reach a height of the board's centre: the booster
 * that is on already where it serves, or none, or the lowest that does. `undefined` when the stand
 * cannot reach it at all.
 *
 * @param heightMm above the floor at the stand
 */
export function boosterFor(stand: Stand, heightMm: number): Booster | null | undefined {
  const reaches = (b: Booster | null): boolean => {
    const { minMm, maxMm } = withBooster(stand, b?.id ?? null).crank;
    return heightMm >= minMm && heightMm <= maxMm;
  };
  const low = [...(stand.boosters ?? [])].sort((a, b) => a.addsMm - b.addsMm);
  return [stand.fitted ?? null, null, ...low].find(reaches);
}

/** Pose of the board on the floor plan, vehicle axes. */
export type PlanPose = { xMm: number; yMm: number; headingRad: number };

export const stateAtRest = (stand: Stand): StandState => ({ joints: stand.joints.map(() => 0) });

/** Pose of the board centre in the base frame, for given adjuster values. */
function boardInBase(stand: Stand, state: StandState): PlanPose {
  let [x, y, heading] = [0, 0, 0];
  const carry = (dx: number, dy: number): void => {
    x += Math.cos(heading) * dx - Math.sin(heading) * dy;
    y += Math.sin(heading) * dx + Math.cos(heading) * dy;
  };
  stand.joints.forEach((j, i) => {
    const value = state.joints[i] ?? 0;
    if (j.kind === "yaw") {
      carry(j.xMm, j.yMm);
      heading += value;
    } else if (j.axis === "fore-aft") carry(value, 0);
    else carry(0, value);
  });
  carry(stand.boardXMm, stand.boardYMm);
  return { xMm: x, yMm: y, headingRad: heading };
}

/** a followed by b, where b is given in a's axes. */
export function compose(a: PlanPose, b: PlanPose): PlanPose {
  const c = Math.cos(a.headingRad);
  const s = Math.sin(a.headingRad);
  return {
    xMm: a.xMm + c * b.xMm - s * b.yMm,
    yMm: a.yMm + s * b.xMm + c * b.yMm,
    headingRad: a.headingRad + b.headingRad,
  };
}

/** Where the base must be for the board to be at `board` with these adjuster values. */
export function baseFor(stand: Stand, board: PlanPose, state: StandState): PlanPose {
  const top = boardInBase(stand, state);
  const headingRad = board.headingRad - top.headingRad;
  const c = Math.cos(headingRad);
  const s = Math.sin(headingRad);
  return {
    xMm: board.xMm - c * top.xMm + s * top.yMm,
    yMm: board.yMm - s * top.xMm - c * top.yMm,
    headingRad,
  };
}

/** Where the board is, for a base pose and adjuster values. */
export const boardAt = (stand: Stand, base: PlanPose, state: StandState): PlanPose =>
  compose(base, boardInBase(stand, state));
