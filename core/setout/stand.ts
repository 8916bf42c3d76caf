import { z } from "zod";

const finite = z.number().min(-5000).max(5000);

/** A yaw joint turns everything above it about a vertical axis; a slide carries everything above it along x or y. */
const joint = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("yaw"), xMm: finite, yMm: finite, limitRad: z.number().positive().max(1) }),
  z.object({ kind: z.literal("slide"), axis: z.enum(["fore-aft", "cross"]), limitMm: z.number().positive().max(1000) }),
]);

/**
 * A stand, described from the floor upward in its own axes: x toward the car, y to the left of that, z up.
 *
 * Every dimension is the shop's own measurement of its own stand.
 */
export const standSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  /** Half the length of the beam between the hooks that tapes are held to. */
  beamHalfMm: z.number().min(200).max(3000),
  /** Height of those hooks above the floor. */
  hookHeightMm: z.number().min(50).max(2500),
  /** Joints from the floor upward. None at all: the stand only rolls. */
  joints: z.array(joint).max(4),
  /** Centre of the board in the frame above the last joint. */
  boardXMm: finite,
  boardYMm: finite,
  crank: z.object({ minMm: z.number(), maxMm: z.number(), mmPerTurn: z.number().positive() }),
  /** Board-centre height minus the height the stand's own scale shows. */
  scaleOffsetMm: finite,
  /** Levelling feet in base axes; the first is the reference foot and is left alone. */
  feet: z
    .array(z.object({ xMm: finite, yMm: finite }))
    .min(3)
    .max(4),
  footMmPerTurn: z.number().positive(),
});

export type Stand = z.infer<typeof standSchema>;

/** Where the stand's own adjusters are: one value per joint (rad or mm from the middle of its travel). */
export type StandState = { joints: number[] };

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
  return { xMm: board.xMm - c * top.xMm + s * top.yMm, yMm: board.yMm - s * top.xMm - c * top.yMm, headingRad };
}

/** Where the board is, for a base pose and adjuster values. */
export const boardAt = (stand: Stand, base: PlanPose, state: StandState): PlanPose =>
  compose(base, boardInBase(stand, state));
