import { wrapAngle } from "@/core/math/linear";
import { baseFor, boardAt, withBooster, type PlanPose, type Stand, type StandState } from "./stand";

/**
 * An adjuster that is turned with an eye on an instrument: which slot, and what it is to show; where
 * it was watched live also what it showed in the end.
 */
export type Watched = { slotId: string; shown: number; ended?: number | undefined };

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
    | {
        kind: "crank";
        upMm: number;
        turns: number;
        playMm?: number | undefined;
        /** The scale is watched meanwhile: it is cranked until this slot shows this, in mm. */
        until?: Watched | undefined;
      }
    /**
     * Another booster goes under the mast, or none; `upMm`: what that does to the board's height.
     */
    | { kind: "booster"; booster: string | null; upMm: number }
    /** Every adjuster to its mark, before anything is read: moves are reckoned from there. */
    | { kind: "zero"; adjusters: Adjuster[] }
    /** Slide one board along the rail of a beam that carries several. */
    | { kind: "rail"; leftMm: number }
    /**
     * Draw a mat over the floor: the whole of it, in its own axes, or one end sideways while it turns
     * about the other, which lies at `pivotMm` of its long axis.
     */
    | {
        kind: "draw";
        end: "whole" | "front" | "rear" | "left" | "right" | "mark";
        aheadMm: number;
        leftMm: number;
        turnRad: number;
        pivotMm: number;
      }
  ) & {
    /** Where everything stands once this move is done (and those before it). */
    after: BoardState;
  };

/** What a stand is adjusted by, by name. */
export type Adjuster = "turn" | "cross" | "fore-aft";

/** All six degrees of freedom of the board, as far as the judgement knows them. */
export type BoardState = {
  pose: PlanPose;
  heightMm: number;
  /** Positive: top leans away from the car. */
  pitchRad: number;
  /** Positive: vehicle-left end high. */
  rollRad: number;
};

/** The adjusters of a stand, in their order. */
export const adjustersOf = ({ joints }: Pick<Stand, "joints">): Adjuster[] =>
  joints.map((j) => (j.kind === "yaw" ? "turn" : j.axis));

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
  const wanted = { ...target, pitchRad, rollRad };
  const tilt = tiltChange(stand, state, now, wanted, least);
  const baseNow = baseFor(stand, now.pose, state);
  // The base as it will stand once tilted as wanted, expressed by where it carries the board.
  const levelled = shifted(baseNow, tilt.shift, baseNow.headingRad);
  const { joints, base } = settle(stand, state, levelled, target.pose);
  const rolled = rollBetween(levelled, base, least);
  const standing = rolled ? base : levelled;

  const moves: Move[] = [];
  let at = now;
  const push = (steps: readonly Step[]): void => {
    for (const { move, after } of steps) {
      at = { ...at, ...after };
      moves.push({ ...move, after: at });
    }
  };
  if (rolled) {
    // The board is not level yet: it stands short of where it will by what levelling shifts it.
    const back = tilt.shift.map((v) => -v) as Vec3;
    push([
      {
        move: rolled,
        after: { pose: shifted(boardAt(stand, base, state), back, base.headingRad) },
      },
    ]);
  }
  if (tilt.needed)
    push(
      levelSteps(stand, tilt, {
        pose: boardAt(stand, standing, state),
        heightMm: now.heightMm + tilt.shift[2],
        pitchRad,
        rollRad,
      }),
    );
  push(jointSteps(stand, standing, state.joints, joints, least));
  const up = target.heightMm - at.heightMm;
  if (Math.abs(up) >= least.mm) push([crankStep(stand, up, target.heightMm)]);
  return moves;
}

/** One move of a plan, and what it leaves changed of the board. */
type Step = { move: MoveAct; after: Partial<BoardState> };

/** The change of tilt that is wanted, and how far it shifts the board, in the base's own axes. */
type TiltChange = { needed: boolean; from: Slopes; to: Slopes; shift: Vec3 };

function tiltChange(
  stand: Stand,
  state: StandState,
  now: BoardState,
  { pitchRad, rollRad }: { pitchRad: number; rollRad: number },
  least: Least,
): TiltChange {
  const from = footSlopes(now.pitchRad, now.rollRad);
  const to = footSlopes(pitchRad, rollRad);
  const needed = Math.hypot(now.pitchRad - pitchRad, now.rollRad - rollRad) >= least.rad;
  const shift: Vec3 = needed ? levelShift(stand, state, now.heightMm, from, to) : [0, 0, 0];
  return { needed, from, to, shift };
}

/** A pose carried by a shift in axes of the given heading. */
function shifted(pose: PlanPose, [x, y]: Vec3, headingRad: number): PlanPose {
  const [c, s] = [Math.cos(headingRad), Math.sin(headingRad)];
  return { ...pose, xMm: pose.xMm + c * x - s * y, yMm: pose.yMm + s * x + c * y };
}

/** Rolling the base from one pose to another; null where it is not worth a hand. */
function rollBetween(from: PlanPose, to: PlanPose, least: Least): MoveAct | null {
  const awayMm = to.xMm - from.xMm;
  const leftMm = to.yMm - from.yMm;
  const turnRad = wrapAngle(to.headingRad - from.headingRad);
  if (Math.hypot(awayMm, leftMm) < least.mm && Math.abs(turnRad) < least.rad) return null;
  return { kind: "roll", awayMm, leftMm, turnRad };
}

/** A foot that would be turned by less than this is left alone, mm. */
const LEAST_FOOT_MM = 0.05;

/** The feet, each by what the change of the plane through their tips raises it; the first stays. */
function levelSteps(stand: Stand, { from, to }: TiltChange, done: BoardState): Step[] {
  const [first, ...others] = stand.feet;
  const feet = others
    .map((f, i) => ({
      foot: i + 1,
      raiseMm: (to.a - from.a) * (f.xMm - first!.xMm) + (to.b - from.b) * (f.yMm - first!.yMm),
    }))
    .filter((f) => Math.abs(f.raiseMm) >= LEAST_FOOT_MM);
  return feet.map((f, k): Step => {
    const last = k === feet.length - 1;
    const turns = f.raiseMm / stand.footMmPerTurn;
    return {
      move: { kind: "level", ...f, turns, ...(last ? { last } : {}) },
      after: last ? done : {},
    };
  });
}

/** An adjuster's play is named where it matters to the hand: a move against the usual direction. */
const play = (playMm: number | undefined, by: number): { playMm?: number } =>
  playMm && by < 0 ? { playMm } : {};

/** The joints from one set of values to another, turns before slides. */
function jointSteps(
  stand: Stand,
  base: PlanPose,
  from: readonly number[],
  to: readonly number[],
  least: Least,
): Step[] {
  const value = [...from];
  const turnsFirst = [...stand.joints.keys()].sort(
    (i, j) => Number(stand.joints[i]!.kind !== "yaw") - Number(stand.joints[j]!.kind !== "yaw"),
  );
  return turnsFirst.flatMap((i): Step[] => {
    const joint = stand.joints[i]!;
    const by = to[i]! - value[i]!;
    if (Math.abs(by) < (joint.kind === "yaw" ? least.rad : least.mm)) return [];
    const before = boardAt(stand, base, { joints: value });
    value[i] = to[i]!;
    const pose = boardAt(stand, base, { joints: value });
    const loose = play(joint.playMm, by);
    if (joint.kind === "yaw") {
      // The vehicle-left end is at body (0, -half): body x of its travel is -(-half) * turn, and
      // body x is toward the car.
      const leftEndMm = -stand.beamHalfMm * Math.sin(by);
      return [
        { move: { kind: "yaw", joint: i, turnRad: by, leftEndMm, ...loose }, after: { pose } },
      ];
    }
    const [awayMm, leftMm] = [pose.xMm - before.xMm, pose.yMm - before.yMm];
    const { axis } = joint;
    return [
      {
        move: { kind: "slide", joint: i, axis, byMm: by, awayMm, leftMm, ...loose },
        after: { pose },
      },
    ];
  });
}

const crankStep = (stand: Stand, upMm: number, heightMm: number): Step => ({
  move: {
    kind: "crank",
    upMm,
    turns: upMm / stand.crank.mmPerTurn,
    ...play(stand.crank.playMm, upMm),
  },
  after: { heightMm },
});

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
