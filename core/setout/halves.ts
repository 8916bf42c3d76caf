import { choleskyInPlace, choleskyInverse, invertSpd } from "@/core/math/linear";
import { chiSquareUpperTail } from "@/core/math/distributions";
import { predictReadings, type Reading } from "@/core/survey";
import type { SetOutSolution } from "./solve";

/**
 * What two halves of the readings, taken apart, say of one board: how far they differ, and how far
 * they may. Who doubts one half has the other.
 */
export type Halves = {
  /** Readings of each half, by slot, repeats together: what they go through they share. */
  of: [string[], string[]];
  /** Distance of the two places in the plan, and the standard deviation along it, mm. */
  mm: number;
  sigmaMm: number;
  /** Difference of the two headings, and its standard deviation, rad. */
  turnRad: number;
  sigmaRad: number;
  /** Chance that halves of one truth differ by as much, or more. */
  p: number;
};

/** {@link splitHalves} with what was read by the names people know. */
export function namedHalves(s: SetOutSolution): Halves | null {
  const halves = splitHalves(s);
  const named = (ids: string[]): string[] =>
    ids.map((id) => s.slots.find((x) => x.id === id)?.name ?? id);
  return halves && { ...halves, of: [named(halves.of[0]), named(halves.of[1])] };
}

/** More groups than this are not split in every possible way: the last ones stay together. */
const MOST_GROUPS = 11;

type Group = { slotIds: string[]; info: Float64Array; score: Float64Array };

/**
 * Splits the readings of now into the two halves that tell most, each of which fixes the board by
 * itself, and compares them.
 *
 * With W the information of what both share (the book's priors, how causes and lean are known), N the
 * information of a half and s its score at the estimate of all, x = x0 - P_A s_B with P_A =
 * (W + N_A)^-1. The difference of the two has the covariance P_A + P_B - P_A W P_B - P_B W P_A:
 * what they share cancels as far as both lean on it.
 *
 * @returns null where no two halves both fix the board within its limits
 */
export function splitHalves(s: SetOutSolution): Halves | null {
  const { adjustment: a, aim, network } = s;
  if (!a || !aim) return null;
  const { covariance, order } = a.joint;
  // Lean and level are read once or twice, of the stand as it is: both halves lean on them.
  const inPlan = new Set(s.slots.filter((x) => x.observes.in === "plan").map((x) => x.id));
  const own = new Map(s.readings.filter((r) => inPlan.has(r.slotId)).map((r) => [r.id, r]));
  const readings = network.observations.filter(
    (o): o is Reading => own.has(o.id) && o.kind !== "coincide" && o.kind !== "carried",
  );
  const whole = invertSpd(square(covariance, order));
  if (!whole) return null;
  // What lies before the last disturbance is of neither half, and of nothing they share.
  const shared = Float64Array.from(whole.flat());
  const before = new Float64Array(order);
  const groups = new Map<string, Group>();
  const residuals = new Map(a.residuals.map((r) => [r.id, r.residual]));
  predictReadings(network, a, readings).forEach(({ gradient: g }, i) => {
    const { id, sigma } = readings[i]!;
    const weight = 1 / sigma ** 2;
    const { slotId, state } = own.get(id)!;
    const group =
      state !== "counts"
        ? null
        : (groups.get(slotId) ?? {
            slotIds: [slotId],
            info: new Float64Array(order * order),
            score: new Float64Array(order),
          });
    if (group) groups.set(slotId, group);
    const score = group?.score ?? before;
    for (let k = 0; k < order; k++) {
      if (g[k] === 0) continue;
      score[k]! += g[k]! * weight * -residuals.get(id)!;
      for (let j = 0; j < order; j++) {
        const n = g[k]! * g[j]! * weight;
        shared[k * order + j]! -= n;
        if (group) group.info[k * order + j]! += n;
      }
    }
  });
  const list = merged([...groups.values()]);
  if (list.length < 2) return null;
  const halves = limitsOf(s);
  let best: { worst: number; halves: Halves } | null = null;
  // The first group is always in the first half: each split is looked at once.
  for (let mask = 0; mask < 2 ** (list.length - 1) - 1; mask++) {
    const inFirst = (k: number): boolean => k === 0 || (mask & (1 << (k - 1))) !== 0;
    const [first, second] = [list.filter((_, k) => inFirst(k)), list.filter((_, k) => !inFirst(k))];
    const found = compare(s, shared, before, first, second, halves);
    if (found && (!best || found.worst < best.worst)) best = found;
  }
  return best?.halves ?? null;
}

/** The limits of the three parts of the plan; a part that nothing limits is not asked about. */
function limitsOf(s: SetOutSolution): number[] {
  const half = (id: string): number =>
    s.plane!.quantities.find((q) => q.id === id)?.half ?? Infinity;
  return [half("along"), half("across"), half("twist")];
}

function merged(groups: Group[]): Group[] {
  const [kept, rest] = [groups.slice(0, MOST_GROUPS), groups.slice(MOST_GROUPS)];
  const last = kept.at(-1);
  for (const g of rest) {
    last!.slotIds.push(...g.slotIds);
    g.info.forEach((v, k) => (last!.info[k]! += v));
    g.score.forEach((v, k) => (last!.score[k]! += v));
  }
  return kept;
}

function compare(
  s: SetOutSolution,
  shared: Float64Array,
  before: Float64Array,
  first: readonly Group[],
  second: readonly Group[],
  limits: readonly number[],
): { worst: number; halves: Halves } | null {
  const { order, covariance } = s.adjustment!.joint;
  const jacobian = s.aim!.jacobian;
  // Millimetres, radians and scales are brought to one size by what is known of each.
  const scale = Float64Array.from({ length: order }, (_, i) =>
    Math.sqrt(covariance[i * order + i]!),
  );
  const half = (groups: readonly Group[]) => {
    const info = Float64Array.from(shared);
    const score = new Float64Array(order);
    for (const g of groups) {
      for (let k = 0; k < info.length; k++) info[k]! += g.info[k]!;
      for (let k = 0; k < order; k++) score[k]! += g.score[k]!;
    }
    const p = inverted(info, scale);
    return p && { p, score, slotIds: groups.flatMap((g) => g.slotIds) };
  };
  const [a, b] = [half(first), half(second)];
  if (!a || !b) return null;
  const rows = jacobian.map((j) => [flat(a.p, order, j), flat(b.p, order, j)] as const);
  // Each half fixes the board by itself: within its limits, two standard deviations out of three.
  const fixes = rows.every(([pa, pb], i) =>
    [pa, pb].every((p) => Math.sqrt(dot(jacobian[i]!, p)) <= limits[i]!),
  );
  if (!fixes) return null;
  const off = (other: Float64Array): Float64Array => other.map((v, k) => v + before[k]!);
  const [offA, offB] = [off(b.score), off(a.score)];
  const difference = rows.map(([pa, pb]) => dot(pb, offB) - dot(pa, offA));
  const spread = rows.map(([ai, bi], i) =>
    rows.map(([aj, bj]) => {
      const [wa, wb] = [flat(shared, order, bj), flat(shared, order, aj)];
      return dot(jacobian[i]!, aj) + dot(jacobian[i]!, bj) - dot(ai, wa) - dot(bi, wb);
    }),
  );
  const [dx, dy, turn] = difference as [number, number, number];
  const mm = Math.hypot(dx, dy);
  const [ux, uy] = mm > 0 ? [dx / mm, dy / mm] : [1, 0];
  const along = ux * ux * spread[0]![0]! + 2 * ux * uy * spread[0]![1]! + uy * uy * spread[1]![1]!;
  const inverse = invertSpd(spread);
  if (!inverse) return null;
  const square2 = difference.reduce((sum, v, i) => sum + v * dot(inverse[i]!, difference), 0);
  const worst = Math.max(
    ...spread.map((row, i) => (limits[i] === Infinity ? 0 : Math.sqrt(row[i]!) / limits[i]!)),
  );
  return {
    worst,
    halves: {
      of: [a.slotIds, b.slotIds],
      mm,
      sigmaMm: Math.sqrt(along),
      turnRad: turn,
      sigmaRad: Math.sqrt(spread[2]![2]!),
      p: chiSquareUpperTail(square2, 3),
    },
  };
}

const square = (m: Float64Array, n: number): number[][] =>
  Array.from({ length: n }, (_, i) => Array.from(m.subarray(i * n, (i + 1) * n)));
const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) if (a[i] !== 0) sum += a[i]! * b[i]!;
  return sum;
};
/** Inverse of an information matrix, worked in unknowns of one size; null where it is none. */
function inverted(info: Float64Array, scale: Float64Array): Float64Array | null {
  const n = scale.length;
  const m = info.map((v, k) => v * scale[Math.floor(k / n)]! * scale[k % n]!);
  if (choleskyInPlace(m, n, 1e-12) >= 0) return null;
  const inverse = choleskyInverse(m, n);
  return inverse.map((v, k) => v * scale[Math.floor(k / n)]! * scale[k % n]!);
}
const flat = (m: Float64Array, n: number, v: Float64Array): Float64Array =>
  Float64Array.from({ length: n }, (_, i) => dot(v, m.subarray(i * n, (i + 1) * n)));
