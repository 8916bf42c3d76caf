import { choleskyInPlace, choleskyInverse, choleskySolve } from "@/core/math/linear";

/**
 * A bias that no job shows by itself: what all jobs of one vehicle model, one stand or one fitter have
 * in common. A mixed model: each figure is the shop's mean, a part of its model, a part of its stand, a
 * part of its fitter, and its own chance; the parts of each kind have a spread of their own, found from
 * the figures (Henderson's equations; spreads by expectation and maximisation, McLachlan and Krishnan).
 */
export const FACTORS = ["model", "stand", "fitter"] as const;
export type Factor = (typeof FACTORS)[number];
export type Figure = { value: number } & Record<Factor, string>;

export type Part = {
  factor: Factor;
  id: string;
  jobs: number;
  /** How far its jobs lie beside those of the others of its kind, and how well that is known. */
  off: number;
  sigma: number;
  /** Another part that it can hardly be told from: they nearly always go together. */
  withOther: { factor: Factor; id: string } | null;
};

export type Parts = { mean: number; chance: number; spread: Record<Factor, number>; parts: Part[] };

const ROUNDS = 60;
/** Correlated more than this, two parts are not told apart. */
const APART = 0.85;

/**
 * @returns null of fewer figures than levels, or fewer than eight
 */
export function partsOf(figures: readonly Figure[]): Parts | null {
  const levels = FACTORS.flatMap((factor) =>
    [...new Set(figures.map((f) => f[factor]))].sort().map((id) => ({ factor, id })),
  );
  const n = figures.length;
  const order = 1 + levels.length;
  if (n < 8 || n <= FACTORS.length + 1) return null;
  const at = new Map(levels.map((l, i) => [`${l.factor}/${l.id}`, i + 1]));
  const rows = figures.map((f) => [0, ...FACTORS.map((k) => at.get(`${k}/${f[k]}`)!)]);
  // X'X and X'y, once.
  const base = new Float64Array(order * order);
  const right = new Float64Array(order);
  rows.forEach((row, r) => {
    for (const i of row) {
      right[i]! += figures[r]!.value;
      for (const j of row) base[i * order + j]! += 1;
    }
  });
  const variance = figures.reduce((s, f) => s + f.value ** 2, 0) / n - (right[0]! / n) ** 2;
  if (!(variance > 0)) return null;
  let chance = variance / 2;
  const spread: Record<Factor, number> = {
    model: variance / 6,
    stand: variance / 6,
    fitter: variance / 6,
  };
  let solution = new Float64Array(order);
  let inverse = new Float64Array(order * order);
  for (let round = 0; round < ROUNDS; round++) {
    const a = base.slice();
    levels.forEach((l, i) => (a[(i + 1) * order + i + 1]! += chance / spread[l.factor]));
    if (choleskyInPlace(a, order, 1e-12) >= 0) return null;
    solution = right.slice();
    choleskySolve(a, order, solution);
    inverse = choleskyInverse(a, order) as Float64Array<ArrayBuffer>;
    // Maximisation: each spread from its parts and from how little they are known.
    let fitted = 0;
    for (const factor of FACTORS) {
      const own = levels.flatMap((l, i) => (l.factor === factor ? [i + 1] : []));
      const squares = own.reduce((s, i) => s + solution[i]! ** 2, 0);
      const trace = own.reduce((s, i) => s + inverse[i * order + i]!, 0);
      spread[factor] = Math.max(1e-9 * variance, (squares + chance * trace) / own.length);
    }
    for (let i = 0; i < order; i++) fitted += solution[i]! * right[i]!;
    const total = figures.reduce((s, f) => s + f.value ** 2, 0);
    chance = Math.max(1e-9 * variance, (total - fitted) / (n - 1));
  }
  /** One against the mean of its kind's others: what all have in common is the shop's, not theirs. */
  const beside = (i: number, factor: Factor): { off: number; sigma: number } => {
    const others = levels.flatMap((l, k) => (l.factor === factor && k + 1 !== i ? [k + 1] : []));
    if (others.length === 0) return { off: 0, sigma: Math.sqrt(chance) };
    const weights = [[i, 1], ...others.map((k) => [k, -1 / others.length])] as [number, number][];
    const square = weights.reduce(
      (s, [a, x]) => s + weights.reduce((t, [b, y]) => t + x * y * inverse[a * order + b]!, 0),
      0,
    );
    return {
      off: weights.reduce((s, [a, x]) => s + x * solution[a]!, 0),
      sigma: Math.sqrt(chance * square),
    };
  };
  const parts = levels.map(({ factor, id }, k): Part => {
    const i = k + 1;
    // What is left of its prior spread is what the figures did not tell; how two of them go together
    // shows in their common covariance.
    let other: Part["withOther"] = null;
    let most = APART;
    levels.forEach((l, m) => {
      if (l.factor === factor) return;
      const both = figures.filter((f) => f[factor] === id && f[l.factor] === l.id).length;
      const either = figures.filter((f) => f[factor] === id || f[l.factor] === l.id).length;
      if (both / either <= most) return;
      most = both / either;
      other = { factor: levels[m]!.factor, id: levels[m]!.id };
    });
    return {
      factor,
      id,
      jobs: figures.filter((f) => f[factor] === id).length,
      ...beside(i, factor),
      withOther: other,
    };
  });
  return {
    mean: solution[0]!,
    chance: Math.sqrt(chance),
    spread: {
      model: Math.sqrt(spread.model),
      stand: Math.sqrt(spread.stand),
      fitter: Math.sqrt(spread.fitter),
    },
    parts,
  };
}

/** A part whose jobs lie beside the shop's beyond chance: three sigma. */
export const isOff = ({ off, sigma }: Pick<Part, "off" | "sigma">): boolean =>
  Math.abs(off) > 3 * sigma;
