import { choleskyInPlace, choleskyInverse, choleskySolve, invertSpd } from "@/core/math/linear";
import type { Levels } from "./survey";

/**
 * The floor between the spots that were read: a plane with unevenness on it, as universal kriging has it
 * (Matheron 1969; formulas as in Cressie 1993, 3.4). Unevenness is a Gaussian field whose values a
 * distance d apart agree by s2 (1 + u) exp(-u), u = sqrt(3) d / l (Matern, 3/2): smooth as trowelled
 * concrete is, and known less the farther from a spot.
 */
export type Surface = {
  /** Height at a place, from the mean of the spots, with its standard uncertainty; mm. */
  at: (xMm: number, yMm: number) => { value: number; sigma: number };
  /** The height alone. */
  heightAt: (xMm: number, yMm: number) => number;
  /** How uneven the floor is about its plane, mm, and over what distance. */
  unevenMm: number;
  overMm: number;
};

/** Unevenness and its reach that are tried, and what a floor usually has: so few spots hardly tell. */
const UNEVEN_MM = [0.5, 1, 2, 4, 8, 16];
const OVER_MM = [600, 1200, 2400, 4800];
const USUAL = { unevenMm: 2, overMm: 1500 };

const together = (d: number, unevenMm: number, overMm: number): number => {
  const u = (Math.sqrt(3) * d) / overMm;
  return unevenMm * unevenMm * (1 + u) * Math.exp(-u);
};

const plane = (xMm: number, yMm: number): number[] => [1, xMm / 1000, yMm / 1000];

type Fitted = Pick<Surface, "unevenMm" | "overMm"> & {
  factor: Float64Array;
  /** V^-1 F, by column, and (F' V^-1 F)^-1. */
  weighted: Float64Array[];
  normalInverse: number[][];
  beta: number[];
  /** V^-1 (z - F beta). */
  alpha: Float64Array;
  /** Minus the logarithm of the restricted likelihood and of what is usual. */
  cost: number;
};

function fitted(levels: Levels, unevenMm: number, overMm: number): Fitted | null {
  const { heights, covariance } = levels;
  const n = heights.length;
  const v = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      const [a, b] = [heights[i]!, heights[j]!];
      const d = Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);
      v[i * n + j] = covariance[i]![j]! + together(d, unevenMm, overMm);
    }
  if (choleskyInPlace(v, n, 1e-12) >= 0) return null;
  const f = heights.map((h) => plane(h.xMm, h.yMm));
  const solve = (b: readonly number[]): Float64Array => {
    const x = Float64Array.from(b);
    choleskySolve(v, n, x);
    return x;
  };
  const weighted = [0, 1, 2].map((k) => solve(f.map((row) => row[k]!)));
  const normal = [0, 1, 2].map((k) =>
    [0, 1, 2].map((l) => f.reduce((s, row, i) => s + row[l]! * weighted[k]![i]!, 0)),
  );
  const normalInverse = invertSpd(normal);
  if (!normalInverse) return null;
  const z = heights.map((h) => h.heightMm);
  const right = weighted.map((w) => z.reduce((s, h, i) => s + h * w[i]!, 0));
  const beta = normalInverse.map((row) => row.reduce((s, m, k) => s + m * right[k]!, 0));
  const rest = z.map((h, i) => h - f[i]!.reduce((s, x, k) => s + x * beta[k]!, 0));
  const alpha = solve(rest);
  let cost = 0.5 * rest.reduce((s, r, i) => s + r * alpha[i]!, 0);
  for (let i = 0; i < n; i++) cost += Math.log(v[i * n + i]!);
  cost += 0.5 * Math.log(determinant3(normal));
  cost += 0.5 * Math.log(unevenMm / USUAL.unevenMm) ** 2;
  cost += 0.5 * Math.log(overMm / USUAL.overMm) ** 2;
  return { unevenMm, overMm, factor: v, weighted, normalInverse, beta, alpha, cost };
}

const determinant3 = ([a, b, c]: number[][]): number =>
  a![0]! * (b![1]! * c![2]! - b![2]! * c![1]!) -
  a![1]! * (b![0]! * c![2]! - b![2]! * c![0]!) +
  a![2]! * (b![0]! * c![1]! - b![1]! * c![0]!);

/** The floor through adjusted spots; null where they lie in one line. */
export function surfaceOf(levels: Levels): Surface | null {
  const { heights } = levels;
  const n = heights.length;
  let best: Fitted | null = null;
  for (const s of UNEVEN_MM)
    for (const l of OVER_MM) {
      const is = fitted(levels, s, l);
      if (is && (!best || is.cost < best.cost)) best = is;
    }
  if (!best) return null;
  const { unevenMm, overMm, beta, alpha, weighted, normalInverse, factor } = best;
  const inverse = choleskyInverse(factor, n);
  const agree = (xMm: number, yMm: number): number[] =>
    heights.map((h) => together(Math.hypot(h.xMm - xMm, h.yMm - yMm), unevenMm, overMm));
  const heightFrom = (k: readonly number[], xMm: number, yMm: number): number =>
    plane(xMm, yMm).reduce((s, x, i) => s + x * beta[i]!, 0) +
    k.reduce((s, c, i) => s + c * alpha[i]!, 0);
  return {
    unevenMm,
    overMm,
    heightAt: (xMm, yMm) => heightFrom(agree(xMm, yMm), xMm, yMm),
    at: (xMm, yMm) => {
      const k = agree(xMm, yMm);
      let variance = unevenMm * unevenMm;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) variance -= k[i]! * inverse[i * n + j]! * k[j]!;
      const lack = plane(xMm, yMm).map(
        (x, c) => x - k.reduce((s, v, i) => s + v * weighted[c]![i]!, 0),
      );
      lack.forEach((a, i) => lack.forEach((b, j) => (variance += a * normalInverse[i]![j]! * b)));
      return { value: heightFrom(k, xMm, yMm), sigma: Math.sqrt(Math.max(0, variance)) };
    },
  };
}
