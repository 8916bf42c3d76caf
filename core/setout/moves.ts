import { wrapAngle } from "@/core/math/linear";
import { baseFor, boardAt, withBooster, type PlanPose, type Stand, type StandState } from "./stand";

/** One act on one adjuster. Amounts are what the technician does, in the adjuster's own terms. */
export type Move =
  /**
   * Roll the whole stand: `awayMm` away from the car, `leftMm` to vehicle left, then turn it about
   * its own origin.
   */
  (
    | { kind: "roll"; awayMm: number; leftMm: number; turnRad: number }
    /** Screw one foot out (+) or in (-); the last foot of a levelling brings the board to rest. */
    | { kind: "level"; foot: number; raiseMm: number; turns: number; last?: boolean | undefined }
    /**
     * Turn the beam about its pivot, counter-clockwise positive; `leftEndMm`: travel of its
     * vehicle-left end away from the car.
     */
    | {
        kind: "yaw";
        joint: number;
        turnRad: number;
        leftEndMm: number;
        playMm?: number | undefined;
      }
    /**
     * Slide by `byMm` along the slide's own direction, which is `awayMm`, `leftMm` on the floor.
     */
    | {
        kind: "slide";
        joint: number;
        axis: "fore-aft" | "cross";
        byMm: number;
        awayMm: number;
        leftMm: number;
        playMm?: number | undefined;
      }
    | { kind: "crank"; upMm: number; turns: number; playMm?: number | undefined }
    /**
     * Another booster goes under the mast, or none; `upMm`: what that does to the board's height.
     */
    | { kind: "booster"; booster: string | null; upMm: number }
  ) & {
    /** Where everything stands once this move is done (and those before it). */
    after: BoardState;
  };

/** All six degrees of freedom of the board, as far as the judgement knows them. */
export type BoardState = {
  pose: PlanPose;
  heightMm: number;
  /** Positive: top leans away from the car. */
  pitchRad: number;
  /** Positive: vehicle-left end high. */
  rollRad: number;
};

/** Moves smaller than this are not worth a hand on the stand. */
export type Least = { mm: number; rad: number };

type Vec3 = [number, number, number];

/**
 * Slopes of the foot plane in base axes from the measured tilts. With base +x toward the car and +y
 * to vehicle right: world-up in base axes is (a, b, 1)/|.|, so sin(pitch) = a/|.| and sin(roll) =
 * -b/|.|.
 */
export function footSlopes(pitchRad: number, rollRad: number): Slopes {
  const sx = Math.sin(pitchRad);
  const sy = -Math.sin(rollRad);
  const up = Math.sqrt(Math.max(1e-9, 1 - sx * sx - sy * sy));
  return { a: sx / up, b: sy / up };
}

/**
 * Rotates v by the smallest rotation that takes world-up, (a, b, 1)/|.| in base axes, to the
 * vertical (Rodrigues).
 */
function untiltedToWorld(v: Vec3, a: number, b: number): Vec3 {
  const n = Math.hypot(a, b, 1);
  // axis = up x z = (b, -a, 0)/n ; cos = 1/n
  const [kx, ky] = [b / n, -a / n];
  const cos = 1 / n;
  const dot = kx * v[0] + ky * v[1];
  const f = 1 / (1 + cos);
  return [
    v[0] * cos + ky * v[2] + kx * dot * f,
    v[1] * cos - kx * v[2] + ky * dot * f,
    v[2] * cos + kx * v[1] - ky * v[0],
  ];
}

type Slopes = { a: number; b: number };

/**
 * How the board centre shifts, in base axes (level), when the feet bring a stand from one tilt to
 * another about foot 0.
 */
export function levelShift(
  stand: Stand,
  state: StandState,
  heightMm: number,
  { a, b }: Slopes,
  wanted: Slopes,
): Vec3 {
  const board = boardAt(stand, { xMm: 0, yMm: 0, headingRad: 0 }, state);
  const foot = stand.feet[0]!;
  const flat: Vec3 = [board.xMm - foot.xMm, board.yMm - foot.yMm, 0];
  const cos = 1 / Math.hypot(a, b, 1);
  const mast = (heightMm - untiltedToWorld(flat, a, b)[2]) / cos; // mast length that gives the measured height
  const own: Vec3 = [flat[0], flat[1], mast];
  const from = untiltedToWorld(own, a, b);
  const to = untiltedToWorld(own, wanted.a, wanted.b);
  return [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
}

/**
 * The adjuster settings that null the aim error, in an order in which no move undoes an earlier
 * one: roll, level, turn, slide, crank. Levelling moves the board by its height times the tilt, so
 * it comes before anything fine; turning swings the board about a pivot that is not its centre, so
 * slides come after it.
 *
 * Neglected: on a base that is to stay tilted, slides carry the board along the tilt; its height
 * changes by travel times tilt, under 1 mm for 100 mm on any floor that Ready lets pass.
 *
 * The stand is rolled only when an adjuster lacks the travel; its slides then return toward
 * mid-travel.
 *
 * @param now best knowledge of the board
 * @param target where the board belongs: pose in vehicle axes (mm, rad), height above the floor,
 *   tilts against gravity (rad; plumb and level when not given)
 * @param least moves below this are left out
 */
export function planMoves(
  stand: Stand,
  state: StandState,
  now: BoardState,
  target: { pose: PlanPose; heightMm: number; pitchRad?: number; rollRad?: number },
  least: Least = { mm: 0.2, rad: 1e-4 },
): Move[] {
  const { pitchRad = 0, rollRad = 0 } = target;
  const from = footSlopes(now.pitchRad, now.rollRad);
  const to = footSlopes(pitchRad, rollRad);
  const tilted = Math.hypot(now.pitchRad - pitchRad, now.rollRad - rollRad) >= least.rad;
  const baseNow = baseFor(stand, now.pose, state);
  const shift: Vec3 = tilted ? levelShift(stand, state, now.heightMm, from, to) : [0, 0, 0];
  const inPlan = (heading: number): [number, number] => [
    Math.cos(heading) * shift[0] - Math.sin(heading) * shift[1],
    Math.sin(heading) * shift[0] + Math.cos(heading) * shift[1],
  ];
  // The base as it will stand once tilted as wanted, expressed by where it carries the board.
  const [sx, sy] = inPlan(baseNow.headingRad);
  const levelled: PlanPose = { ...baseNow, xMm: baseNow.xMm + sx, yMm: baseNow.yMm + sy };

  const { joints, base } = settle(stand, state, levelled, target.pose);
  const moves: Move[] = [];
  let at: BoardState = now;
  // An adjuster's play is named where it matters to the hand: when the move ends against the usual
  // direction.
  const play = (playMm: number | undefined, by: number) => (playMm && by < 0 ? { playMm } : {});
  const push = (move: MoveAct, after: Partial<BoardState>): void => {
    at = { ...at, ...after };
    moves.push({ ...move, after: at });
  };

  let standing = levelled;
  const roll = {
    away: base.xMm - levelled.xMm,
    left: base.yMm - levelled.yMm,
    turn: wrapAngle(base.headingRad - levelled.headingRad),
  };
  if (Math.hypot(roll.away, roll.left) >= least.mm || Math.abs(roll.turn) >= least.rad) {
    standing = base;
    const [tx, ty] = inPlan(base.headingRad);
    const board = boardAt(stand, base, state);
    const pose = { xMm: board.xMm - tx, yMm: board.yMm - ty, headingRad: board.headingRad };
    push({ kind: "roll", awayMm: roll.away, leftMm: roll.left, turnRad: roll.turn }, { pose });
  }
  if (tilted) {
    const feet = stand.feet.slice(1).map((f, i) => ({
      foot: i + 1,
      raiseMm:
        (to.a - from.a) * (f.xMm - stand.feet[0]!.xMm) +
        (to.b - from.b) * (f.yMm - stand.feet[0]!.yMm),
    }));
    const worth = feet.filter((f) => Math.abs(f.raiseMm) >= 0.05);
    worth.forEach((f, k) => {
      const last = k === worth.length - 1;
      const done = last
        ? {
            pose: boardAt(stand, standing, state),
            heightMm: now.heightMm + shift[2],
            pitchRad,
            rollRad,
          }
        : {};
      push(
        { kind: "level", ...f, turns: f.raiseMm / stand.footMmPerTurn, ...(last ? { last } : {}) },
        done,
      );
    });
  }

  const value = [...state.joints];
  const inOrder = [...stand.joints.keys()].sort(
    (i, j) => Number(stand.joints[i]!.kind !== "yaw") - Number(stand.joints[j]!.kind !== "yaw"),
  );
  for (const i of inOrder) {
    const joint = stand.joints[i]!;
    const by = joints[i]! - value[i]!;
    if (Math.abs(by) < (joint.kind === "yaw" ? least.rad : least.mm)) continue;
    const before = boardAt(stand, standing, { joints: value });
    value[i] = joints[i]!;
    const pose = boardAt(stand, standing, { joints: value });
    if (joint.kind === "yaw") {
      // The vehicle-left end is at body (0, -half): body x of its travel is -(-half) * turn, and
      // body x is toward the car.
      push(
        {
          kind: "yaw",
          joint: i,
          turnRad: by,
          leftEndMm: -stand.beamHalfMm * Math.sin(by),
          ...play(joint.playMm, by),
        },
        { pose },
      );
    } else {
      push(
        {
          kind: "slide",
          joint: i,
          axis: joint.axis,
          byMm: by,
          awayMm: pose.xMm - before.xMm,
          leftMm: pose.yMm - before.yMm,
          ...play(joint.playMm, by),
        },
        { pose },
      );
    }
  }

  const up = target.heightMm - at.heightMm;
  if (Math.abs(up) >= least.mm)
    push(
      {
        kind: "crank",
        upMm: up,
        turns: up / stand.crank.mmPerTurn,
        ...play(stand.crank.playMm, up),
      },
      { heightMm: target.heightMm },
    );
  return moves;
}

/** Puts another booster under the mast, or takes it off; everything else stays where it is. */
export function boosterMove(stand: Stand, now: BoardState, booster: string | null): Move {
  const upMm = withBooster(stand, booster).scaleOffsetMm - stand.scaleOffsetMm;
  return { kind: "booster", booster, upMm, after: { ...now, heightMm: now.heightMm + upMm } };
}

type MoveAct = Move extends infer M ? (M extends Move ? Omit<M, "after"> : never) : never;

/**
 * Joint values and base pose that put the board on the target, rolling the base only where travel
 * runs out.
 */
function settle(
  stand: Stand,
  state: StandState,
  levelled: PlanPose,
  target: PlanPose,
): { joints: number[]; base: PlanPose } {
  const joints = [...state.joints];
  let base = levelled;
  const boardNow = (): PlanPose => boardAt(stand, base, { joints });

  const turn = wrapAngle(target.headingRad - boardNow().headingRad);
  const yaw = stand.joints.findIndex((j) => j.kind === "yaw");
  const yawJoint = stand.joints[yaw];
  if (yawJoint?.kind === "yaw" && Math.abs(joints[yaw]! + turn) <= yawJoint.limitRad)
    joints[yaw]! += turn;
  else base = { ...base, headingRad: base.headingRad + turn };

  const slides = stand.joints.flatMap((j, i) =>
    j.kind === "slide" ? [{ i, limit: j.limitMm }] : [],
  );
  const from = boardNow();
  const error = [target.xMm - from.xMm, target.yMm - from.yMm] as const;
  const directions = slides.map(({ i }) => {
    const nudged = boardAt(stand, base, { joints: joints.map((v, k) => (k === i ? v + 1 : v)) });
    return [nudged.xMm - from.xMm, nudged.yMm - from.yMm] as const;
  });
  const travel = solveSlides(directions, error);
  const fits = slides.every(({ i, limit }, k) => Math.abs(joints[i]! + travel[k]!) <= limit);
  if (fits) slides.forEach(({ i }, k) => (joints[i]! += travel[k]!));
  else for (const { i, limit } of slides) if (Math.abs(joints[i]!) > 0.8 * limit) joints[i] = 0;

  const board = boardNow();
  base = {
    ...base,
    xMm: base.xMm + target.xMm - board.xMm,
    yMm: base.yMm + target.yMm - board.yMm,
  };
  return { joints, base };
}

/** Travel of each slide that removes the error as far as the slides can. */
function solveSlides(
  directions: (readonly [number, number])[],
  error: readonly [number, number],
): number[] {
  const [p, q] = directions;
  if (!p) return [];
  if (!q) return [p[0] * error[0] + p[1] * error[1]];
  const det = p[0] * q[1] - p[1] * q[0];
  return [(error[0] * q[1] - error[1] * q[0]) / det, (p[0] * error[1] - p[1] * error[0]) / det];
}
