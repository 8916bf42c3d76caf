import type { ObservationResult } from "@/core/survey";

/** One number (height, pitch or roll) known from a prior and direct readings. */
export type ScalarEstimate = {
  value: number;
  variance: number;
  residuals: ObservationResult[];
  suspect: string | null;
};

/**
 * Weighted mean of a prior and direct readings, with the same statistics as the network (Baarda
 * 1968): here r_i = 1 - (1/sigma_i^2) / sum of weights.
 */
export function estimateScalar(
  prior: { value: number; variance: number },
  readings: readonly { id: string; value: number; sigma: number }[],
): ScalarEstimate {
  let weight = 1 / prior.variance;
  let sum = prior.value / prior.variance;
  for (const r of readings) {
    weight += 1 / (r.sigma * r.sigma);
    sum += r.value / (r.sigma * r.sigma);
  }
  const value = sum / weight;
  const residuals = readings.map((r): ObservationResult => {
    const residual = value - r.value;
    const redundancy = 1 - 1 / (r.sigma * r.sigma) / weight;
    const root = Math.sqrt(redundancy);
    return {
      id: r.id,
      residual,
      redundancy,
      w: residual / (r.sigma * root),
      smallestDetectable: (4.13 * r.sigma) / root,
    };
  });
  const worst = residuals.reduce<ObservationResult | null>(
    (a, b) => (!a || Math.abs(b.w) > Math.abs(a.w) ? b : a),
    null,
  );
  return {
    value,
    variance: 1 / weight,
    residuals,
    suspect: worst && Math.abs(worst.w) > 3.29 ? worst.id : null,
  };
}
