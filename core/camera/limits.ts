import { degToRad } from "@/core/units";
import { learner, rangeErrorMm, type Turn } from "./road";
import type { BoardError, Setting } from "./setting";

/**
 * What a board in the wrong place may do on the road at most, {@link EFFECT_AT_MM} ahead: how far to
 * the side a lane line is believed of where it is, and how wrong a distance, mm.
 */
export type RoadEffect = { laneMm: number; rangeMm: number };

/** How far ahead an effect on the road is stated. */
export const EFFECT_AT_MM = 60_000;

/** How far each part of a board's pose may be off, each side: mm and rad. */
export type PoseLimits = Record<keyof BoardError, number>;

/** A board may be no farther off than this, however little the camera would mind. */
export const WIDEST: PoseLimits = {
  alongMm: 30,
  acrossMm: 30,
  heightMm: 20,
  twistRad: degToRad(1),
  pitchRad: degToRad(1),
  rollRad: degToRad(1),
};
const PARTS = Object.keys(WIDEST) as (keyof BoardError)[];
const RIGHT = Object.fromEntries(PARTS.map((p) => [p, 0])) as BoardError;

/**
 * The bearing at which a point of the road straight ahead is believed, rad, left positive. From
 * height h at distance D it lies h / D below the horizon: a camera that believes itself rolled
 * carries it aside by that share of its roll, beside what its yaw does.
 */
const bearing = (turn: Turn, heightMm: number): number =>
  turn.yaw + Math.atan((Math.sin(turn.roll) * heightMm) / EFFECT_AT_MM);

/** Half the step of a gain, as a share of the widest limit. */
const STEP = 0.1;

/**
 * How the bearing of the road ahead and the camera's pitch answer to each part of the board's error,
 * made absolute: radians for one of its unit. By central differences, about a board that stands right.
 */
function answers(setting: Setting): Answer[] {
  const learn = learner(setting);
  const height = setting.camera.zMm;
  return PARTS.map((p) => {
    const h = STEP * WIDEST[p];
    const [plus, minus] = [learn({ ...RIGHT, [p]: h }), learn({ ...RIGHT, [p]: -h })];
    return {
      side: Math.abs(bearing(plus, height) - bearing(minus, height)) / (2 * h),
      pitch: Math.abs(plus.pitch - minus.pitch) / (2 * h),
    };
  });
}

type Answer = { side: number; pitch: number };

/** How often a budget may still be made larger; from there on only smaller, which ends. */
const GROWING = 30;

/** What a box spends of a budget in its worst corner, to first order, rad. */
const total = (gains: readonly Answer[], box: readonly number[], of: keyof Answer): number =>
  box.reduce((s, v, i) => s + v * gains[i]![of], 0);

/** The smallest lambda >= 0 at which a falling function comes down to its budget. */
function whereFits(spent: (lambda: number) => number, budget: number): number {
  if (spent(0) <= budget) return 0;
  let [low, high] = [0, 1];
  while (spent(high) > budget) high *= 2;
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (spent(mid) > budget) low = mid;
    else high = mid;
  }
  return high;
}

/**
 * The box of largest volume, sum of log t, under sum a_i t_i <= A and sum b_i t_i <= B with t below
 * what is allowed at most. At the optimum t_i = min(most_i, 1 / (l a_i + m b_i)) with multipliers
 * l, m >= 0, each zero unless its sum is spent (Karush-Kuhn-Tucker). The dual is convex in the two,
 * so that one is found for the other in turn.
 */
function largestBox(gains: readonly Answer[], side: number, pitch: number): number[] {
  const box = (l: number, m: number): number[] =>
    gains.map((g, i) => Math.min(WIDEST[PARTS[i]!], 1 / (l * g.side + m * g.pitch)));
  let [l, m] = [0, 0];
  for (let round = 0; round < 40; round++) {
    const held = m;
    l = whereFits((x) => total(gains, box(x, held), "side"), side);
    const along = l;
    m = whereFits((x) => total(gains, box(along, x), "pitch"), pitch);
    if (Math.abs(m - held) <= 1e-9 * m) break;
  }
  return box(l, m);
}

/** The worst a board anywhere inside its limits does; it does so in a corner of them. */
export function worstEffect(setting: Setting, limits: PoseLimits): RoadEffect {
  const learn = learner(setting);
  const worst = { laneMm: 0, rangeMm: 0 };
  for (let corner = 0; corner < 2 ** PARTS.length; corner++) {
    const off = Object.fromEntries(
      PARTS.map((p, i) => [p, corner & (1 << i) ? limits[p] : -limits[p]]),
    ) as BoardError;
    const turn = learn(off);
    const lane = Math.abs(Math.tan(bearing(turn, setting.camera.zMm))) * EFFECT_AT_MM;
    const range = Math.abs(rangeErrorMm(turn, setting.camera.zMm, EFFECT_AT_MM));
    worst.laneMm = Math.max(worst.laneMm, lane);
    worst.rangeMm = Math.max(worst.rangeMm, range);
  }
  return worst;
}

/**
 * The widest limits of a board's pose that keep an effect on the road: a board anywhere inside all
 * of them at once does no more than that. Of all boxes that do, the one of the largest volume,
 * which gives every part that matters an equal share of what is allowed.
 *
 * @param setting camera and board as the sheet wants them, mm, vehicle axes
 * @throws RangeError for an effect that is none
 */
export function limitsFor(setting: Setting, effect: RoadEffect): PoseLimits {
  if (!(effect.laneMm > 0 && effect.rangeMm > 0))
    throw new RangeError("An effect on the road is a lane offset and a range error above zero.");
  const gains = answers(setting);
  const height = setting.camera.zMm;
  const side = Math.atan2(effect.laneMm, EFFECT_AT_MM);
  // A point believed too far is the worse one: the horizon is near on that side.
  const pitch =
    Math.atan2(height, EFFECT_AT_MM) - Math.atan2(height, EFFECT_AT_MM + effect.rangeMm);
  const share: Answer = { side: 1, pitch: 1 };
  for (let round = 0; ; round++) {
    const budget: Answer = { side: side * share.side, pitch: pitch * share.pitch };
    const box = largestBox(gains, budget.side, budget.pitch);
    const limits = Object.fromEntries(PARTS.map((p, i) => [p, box[i]!])) as PoseLimits;
    const worst = worstEffect(setting, limits);
    const used: Answer = {
      side: worst.laneMm / effect.laneMm,
      pitch: worst.rangeMm / effect.rangeMm,
    };
    // In a corner the parts bend each other's effect: a budget is made smaller where that does too
    // much, and larger where it is spent and something of the effect is left over.
    let done = true;
    for (const kind of ["side", "pitch"] as const) {
      const spent = total(gains, box, kind) > 0.999_999 * budget[kind];
      const idle = round < GROWING && spent && used[kind] < 0.999;
      if (used[kind] <= 1 && !idle) continue;
      share[kind] *= 0.9995 / used[kind];
      done = false;
    }
    if (done) return limits;
  }
}
