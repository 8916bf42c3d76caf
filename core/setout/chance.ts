import { normalCdfFast, normalQuantile } from "@/core/math/distributions";

/**
 * Rank-1 lattices of a prime number of points, made component by component for product weights that
 * fall off with the dimension (Sloan & Reztsov 2002; worst-case error P2).
 */
const LATTICES = {
  /** Enough to rank readings by. */
  rank: { points: 127, generator: [1, 35, 50, 10, 30, 55, 60, 40, 47, 62, 52] },
  few: { points: 2039, generator: [1, 462] },
  some: { points: 4093, generator: [1, 1715, 1422, 1952, 1646] },
  many: {
    points: 8191,
    generator: [1, 2431, 3799, 1141, 520, 929, 2163, 2845, 2714, 1587, 2827],
  },
} as const;

/** The lattice that keeps 1e-3 in so many dimensions, as measured. */
const latticeFor = (rank: number) =>
  rank <= 3 ? LATTICES.few : rank <= 6 ? LATTICES.some : LATTICES.many;

/** Bounds that lie this close together are as good as the integral. */
const CLOSE = 4e-4;

/** At most so many quantities are asked for at once: one more than the lattices have dimensions. */
export const MOST_QUANTITIES = 12;

/**
 * What is left of a quantity's own variance, as a share, below which it hangs on the others alone.
 */
const DEPENDENT = 1e-9;

/**
 * Probability that a correlated Gaussian vector lies inside a box.
 *
 * Separation of variables (Genz 1992) with the variables ordered so that the narrowest comes first,
 * given those before it (Gibson, Glasbey & Elston 1994), on a lattice with the baker's
 * transformation. The covariance may be singular: a quantity that hangs on the others alone (the
 * spacing of two mats on their places) narrows the bounds of the last variable it hangs on (Genz &
 * Kwong 2000). Deterministic; the promised 1e-3 is checked in the tests by other ways, singular
 * cases of twelve quantities included.
 *
 * @param mean centre of the distribution, length n <= {@link MOST_QUANTITIES}
 * @param covariance n*n, positive semi-definite
 * @param lower lower limits; -Infinity where there is none
 * @param upper upper limits
 * @param precision "rank" for comparing readings with each other
 */
export function boxProbability(
  mean: readonly number[],
  covariance: readonly (readonly number[])[],
  lower: readonly number[],
  upper: readonly number[],
  precision: "judge" | "rank" = "judge",
): number {
  if (mean.length > MOST_QUANTITIES)
    throw new RangeError(`At most ${MOST_QUANTITIES} quantities are judged at once.`);
  const low = lower.map((l, i) => l - mean[i]!);
  const high = upper.map((u, i) => u - mean[i]!);
  const between = boundsOf(covariance, low, high);
  if (between.most - between.least < CLOSE) return (between.most + between.least) / 2;
  const factor = factorOf(covariance, low, high);
  if (!factor) return 0;
  const { rank, bounds } = factor;
  if (rank === 0) return 1;
  const smooth = quadrature(bounds, precision);
  if (smooth !== null) return smooth;
  const lattice = precision === "rank" ? LATTICES.rank : latticeFor(rank);
  const y = new Float64Array(rank);
  const rounds = rank === 1 ? 1 : lattice.points;
  let total = 0;
  for (let k = 0; k < rounds; k++) {
    let weight = 1;
    for (let i = 0; i < rank && weight > 0; i++) {
      let [from, to] = [-Infinity, Infinity];
      for (const { row, low, high } of bounds[i]!) {
        let shift = 0;
        for (let j = 0; j < i; j++) shift += row[j]! * y[j]!;
        const a = (low - shift) / row[i]!;
        const b = (high - shift) / row[i]!;
        from = Math.max(from, Math.min(a, b));
        to = Math.min(to, Math.max(a, b));
      }
      const d = normalCdfFast(from);
      const width = normalCdfFast(to) - d;
      weight *= Math.max(0, width);
      if (i < rank - 1) {
        const x = (((k + 0.5) * lattice.generator[i]!) / lattice.points) % 1;
        y[i] = normalQuantile(d + Math.abs(2 * x - 1) * width);
      }
    }
    total += weight;
  }
  return Math.min(1, Math.max(0, total / rounds));
}

type Rule = { at: Float64Array; weight: Float64Array };

/** Nodes in [-1, 1] and weights of the Gauss-Legendre rule, by Newton's method on the polynomial. */
function gaussLegendre(n: number): Rule {
  const at = new Float64Array(n);
  const weight = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let round = 0; round < 50; round++) {
      let [p, before] = [1, 0];
      for (let k = 1; k <= n; k++) [p, before] = [((2 * k - 1) * x * p - (k - 1) * before) / k, p];
      slope = (n * (x * p - before)) / (x * x - 1);
      const step = p / slope;
      x -= step;
      if (Math.abs(step) < 1e-15) break;
    }
    at[i] = x;
    weight[i] = 2 / ((1 - x * x) * slope * slope);
  }
  return { at, weight };
}

/** Two rules: where they agree, the finer one is right; where not, it is not smooth enough for them. */
const COARSE = gaussLegendre(8);
const FINE = gaussLegendre(13);
const AGREE = 2e-4;

/** Nothing of a normal variable that counts here lies farther out. */
const FAR = 5.5;
const DENSITY = 1 / Math.sqrt(2 * Math.PI);

/**
 * The same for up to three variables with one bound each, by iterated Gauss-Legendre quadrature of
 * the densities; the last variable in closed form. A few hundred evaluations where a lattice needs
 * thousands.
 *
 * @returns null where there are more variables, or two rules do not agree: the integrand bends too
 *   sharply
 */
function quadrature(
  bounds: readonly (readonly Bound[])[],
  precision: "judge" | "rank",
): number | null {
  const rank = bounds.length;
  if (rank > 3 || bounds.some((b) => b.length > 1)) return null;
  const at = (rule: Rule): number => iterated(bounds.map((b) => b[0]!) as OneToThree, rule);
  const coarse = at(COARSE);
  if (rank === 1 || precision === "rank") return coarse;
  const fine = at(FINE);
  return Math.abs(fine - coarse) < AGREE ? fine : null;
}

type OneToThree = [Bound, ...Bound[]];

/** The integral by one rule. Written out: this is the innermost work of every verdict. */
function iterated([first, second, third]: OneToThree, rule: Rule): number {
  const own = first.row[0]!;
  if (!second) return normalCdfFast(first.high / own) - normalCdfFast(first.low / own);
  const a = Math.max(first.low / own, -FAR);
  const half = (Math.min(first.high / own, FAR) - a) / 2;
  if (half <= 0) return 0;
  const [s0, s1] = [second.row[0]!, second.row[1]!];
  let sum = 0;
  for (let k = 0; k < rule.at.length; k++) {
    const y = a + half * (1 + rule.at[k]!);
    const from = (second.low - s0 * y) / s1;
    const to = (second.high - s0 * y) / s1;
    let inner = 0;
    if (!third) inner = normalCdfFast(to) - normalCdfFast(from);
    else {
      const b = Math.max(from, -FAR);
      const halfway = (Math.min(to, FAR) - b) / 2;
      if (halfway <= 0) continue;
      const [t0, t1, t2] = [third.row[0]! * y, third.row[1]!, third.row[2]!];
      for (let m = 0; m < rule.at.length; m++) {
        const z = b + halfway * (1 + rule.at[m]!);
        const shift = t0 + t1 * z;
        const inside =
          normalCdfFast((third.high - shift) / t2) - normalCdfFast((third.low - shift) / t2);
        inner += rule.weight[m]! * Math.exp((-z * z) / 2) * inside;
      }
      inner *= halfway * DENSITY;
    }
    sum += rule.weight[k]! * Math.exp((-y * y) / 2) * inner;
  }
  return sum * half * DENSITY;
}

/** {@link boxProbability} of a box that reaches equally far to both sides of zero. */
export const centredProbability = (
  mean: readonly number[],
  covariance: readonly (readonly number[])[],
  halfWidths: readonly number[],
  precision: "judge" | "rank" = "judge",
): number =>
  boxProbability(
    mean,
    covariance,
    halfWidths.map((h) => -h),
    halfWidths,
    precision,
  );

/**
 * What the single chances alone say of the joint one: no more than the least of them, no less than
 * one minus what all of them miss (Boole, Bonferroni 1936).
 */
function boundsOf(
  covariance: readonly (readonly number[])[],
  low: readonly number[],
  high: readonly number[],
): { least: number; most: number } {
  let [missed, most] = [0, 1];
  low.forEach((l, i) => {
    const sd = Math.sqrt(Math.max(covariance[i]![i]!, Number.MIN_VALUE));
    const p = normalCdfFast(high[i]! / sd) - normalCdfFast(l / sd);
    missed += 1 - p;
    most = Math.min(most, p);
  });
  return { least: Math.max(0, 1 - missed), most };
}

/** low <= row . y <= high; `row` ends at the variable it bounds. */
type Bound = { row: Float64Array; low: number; high: number };

/**
 * Factor of the covariance, variables scaled to unit variance and taken in the order of their
 * conditional chance, least first; each bound belongs to the last variable it hangs on.
 *
 * @returns null where something that is known exactly lies outside its limits
 */
function factorOf(
  covariance: readonly (readonly number[])[],
  low: readonly number[],
  high: readonly number[],
): { rank: number; bounds: Bound[][] } | null {
  const n = low.length;
  const sd = covariance.map((row, i) => Math.sqrt(Math.max(0, row[i]!)));
  let open: number[] = [];
  for (let i = 0; i < n; i++)
    if (sd[i]! > 0) open.push(i);
    else if (low[i]! > 0 || high[i]! < 0) return null;
  const rows = low.map(() => new Float64Array(n));
  const left = low.map(() => 1);
  const centre = low.map(() => 0);
  const bounds: Bound[][] = [];
  const scaled = (i: number): [number, number] => [low[i]! / sd[i]!, high[i]! / sd[i]!];
  /** What hangs on the variables so far alone bounds the last of them. */
  const settleDependent = (): boolean => {
    for (const i of open) {
      if (left[i]! > DEPENDENT) continue;
      const [a, b] = scaled(i);
      let last = bounds.length - 1;
      while (last >= 0 && Math.abs(rows[i]![last]!) < 1e-6) last--;
      if (last >= 0) bounds[last]!.push({ row: rows[i]!, low: a, high: b });
      else if (a > 0 || b < 0) return false;
    }
    open = open.filter((i) => left[i]! > DEPENDENT);
    return true;
  };
  while (open.length > 0) {
    const k = bounds.length;
    let [pick, least] = [open[0]!, Infinity];
    for (const i of open) {
      const [a, b] = scaled(i);
      const root = Math.sqrt(left[i]!);
      const p = normalCdfFast((b - centre[i]!) / root) - normalCdfFast((a - centre[i]!) / root);
      if (p < least) [pick, least] = [i, p];
    }
    const root = Math.sqrt(left[pick]!);
    const [a, b] = scaled(pick);
    const own = rows[pick]!;
    const expected = truncatedMean((a - centre[pick]!) / root, (b - centre[pick]!) / root);
    open = open.filter((i) => i !== pick);
    own[k] = root;
    bounds.push([{ row: own, low: a, high: b }]);
    for (const i of open) {
      let dot = covariance[i]![pick]! / (sd[i]! * sd[pick]!);
      for (let j = 0; j < k; j++) dot -= rows[i]![j]! * own[j]!;
      const entry = dot / root;
      rows[i]![k] = entry;
      left[i] = left[i]! - entry * entry;
      centre[i] = centre[i]! + entry * expected;
    }
    if (!settleDependent()) return null;
  }
  return { rank: bounds.length, bounds };
}

/** Mean of a standard normal variable between a and b. */
function truncatedMean(a: number, b: number): number {
  const density = (z: number): number => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
  const p = normalCdfFast(b) - normalCdfFast(a);
  if (p > 1e-12) return (density(a) - density(b)) / p;
  return Number.isFinite(a) && Number.isFinite(b) ? (a + b) / 2 : 0;
}
