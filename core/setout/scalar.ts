import { DETECTABLE, type ObservationResult } from "@/core/survey";

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
      smallestDetectable: (DETECTABLE * r.sigma) / root,
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

/** One such number while its history is walked: what was known before the readings that stand. */
export type ScalarTrack = {
  prior: { value: number; variance: number };
  /** What is known of it when nothing is: the variance before any reading. */
  loosest: number;
  readings: { id: string; value: number; sigma: number }[];
  /** It was set to its figure with an eye on its own scale, and not disturbed since. */
  watched: boolean;
  /** It is as the last job proved it, and was not disturbed since. */
  kept?: boolean;
};

export const newTrack = (value: number, sigma: number): ScalarTrack => ({
  prior: { value, variance: sigma * sigma },
  loosest: sigma * sigma,
  readings: [],
  watched: false,
});

export const trackNow = (t: ScalarTrack): ScalarEstimate => estimateScalar(t.prior, t.readings);

/**
 * The number is set to a figure while its own scale is watched: what was known of it before says
 * nothing any more.
 *
 * @returns the readings that stop counting
 */
export function setTrack(t: ScalarTrack, value: number, sigma: number): string[] {
  const gone = t.readings.map((r) => r.id);
  t.prior = { value, variance: sigma * sigma };
  t.readings = [];
  t.watched = true;
  return gone;
}

/** The number is as the last job proved it. */
export function keepTrack(
  t: ScalarTrack,
  { value, sigma }: { value: number; sigma: number },
): void {
  t.prior = { value, variance: sigma * sigma };
  t.kept = true;
}

/**
 * The number is disturbed: what was known becomes the prior of what follows, shifted and widened. In
 * one dimension this is all that a smoother could say of the present.
 *
 * @returns the readings that stop counting; none where nothing was disturbed
 */
export function widenTrack(t: ScalarTrack, sigma: number, shift: number): string[] {
  if (sigma === 0 && shift === 0) return [];
  const now = trackNow(t);
  t.watched = false;
  t.kept = false;
  // Readings that contradict each other hand on their value but none of their confidence.
  const variance = now.suspect ? t.loosest : now.variance;
  t.prior = { value: now.value + shift, variance: variance + sigma * sigma };
  const gone = t.readings.map((r) => r.id);
  t.readings = [];
  return gone;
}
