import { choleskyInPlace, choleskyInverse, choleskySolve } from "./linear";

/** A linear least-squares solution with its statistics. */
export type LinearFit = {
  /** Estimated parameters. */
  x: number[];
  /** Their covariance, from the observations' own sigmas (variance factor 1). */
  covariance: number[][];
  /** Adjusted minus observed. */
  residuals: number[];
  /** Share of each observation that the others check, 0 to 1. */
  redundancy: number[];
  /** Standardised residuals; 0 where nothing checks the observation. */
  w: number[];
  degreesOfFreedom: number;
  chiSquare: number;
};

/** The observations leave a parameter loose. */
export class LooseFitError extends Error {
  override readonly name = "LooseFitError";
}

/**
 * Weighted linear least squares l = A x + v, by Cholesky on normal equations scaled to a unit
 * diagonal.
 *
 * @param rows design rows, m of n
 * @param values observations, m
 * @param sigmas their standard uncertainties, m
 * @throws LooseFitError when a value is no number, when the columns are dependent or there are
 *   fewer observations than parameters
 */
export function fitLinear(
  rows: readonly (readonly number[])[],
  values: readonly number[],
  sigmas: readonly number[],
): LinearFit {
  const n = rows[0]?.length ?? 0;
  const wrong = values.findIndex((v, k) => !Number.isFinite(v) || !(sigmas[k]! > 0));
  if (wrong >= 0)
    throw new LooseFitError(`Measurement ${wrong + 1} is not a number, or has no uncertainty.`);
  const normal = new Float64Array(n * n);
  const right = new Float64Array(n);
  rows.forEach((row, k) => {
    const weight = 1 / (sigmas[k]! * sigmas[k]!);
    for (let i = 0; i < n; i++) {
      right[i]! += weight * row[i]! * values[k]!;
      for (let j = 0; j <= i; j++) normal[i * n + j]! += weight * row[i]! * row[j]!;
    }
  });
  const scale = Float64Array.from({ length: n }, (_, i) => 1 / Math.sqrt(normal[i * n + i]!));
  if (n === 0 || scale.some((s) => !Number.isFinite(s)))
    throw new LooseFitError("Too few measurements.");
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) normal[i * n + j]! *= scale[i]! * scale[j]!;
  if (choleskyInPlace(normal, n, 1e-10) >= 0)
    throw new LooseFitError("Too few measurements, or all of them in one line.");
  for (let i = 0; i < n; i++) right[i]! *= scale[i]!;
  choleskySolve(normal, n, right);
  const x = Array.from(right, (v, i) => v * scale[i]!);
  const inverse = choleskyInverse(normal, n);
  const covariance = x.map((_, i) => x.map((__, j) => inverse[i * n + j]! * scale[i]! * scale[j]!));

  const residuals = rows.map((row, k) => row.reduce((s, a, i) => s + a * x[i]!, 0) - values[k]!);
  const redundancy = rows.map((row, k) => {
    let q = 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) q += row[i]! * covariance[i]![j]! * row[j]!;
    return Math.min(1, Math.max(0, 1 - q / (sigmas[k]! * sigmas[k]!)));
  });
  const w = residuals.map((v, k) =>
    redundancy[k]! > 1e-9 ? v / (sigmas[k]! * Math.sqrt(redundancy[k]!)) : 0,
  );
  return {
    x,
    covariance,
    residuals,
    redundancy,
    w,
    degreesOfFreedom: rows.length - n,
    chiSquare: residuals.reduce((s, v, k) => s + (v / sigmas[k]!) ** 2, 0),
  };
}

/** Value and standard uncertainty of a linear combination of the parameters. */
export function combine(
  fit: Pick<LinearFit, "x" | "covariance">,
  by: readonly number[],
): { value: number; sigma: number } {
  const value = by.reduce((s, b, i) => s + b * fit.x[i]!, 0);
  let variance = 0;
  by.forEach((bi, i) => by.forEach((bj, j) => (variance += bi * fit.covariance[i]![j]! * bj)));
  return { value, sigma: Math.sqrt(Math.max(0, variance)) };
}
