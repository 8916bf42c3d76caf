import { normalCdfFast } from "@/core/math/distributions";

/**
 * A control chart of exponentially weighted means (Roberts 1959; Lucas and Saccucci 1990): of a row of
 * figures that should scatter about a middle, it shows a slow drift before any single figure does.
 *
 *   z_i = lambda x_i + (1 - lambda) z_(i-1),   z_0 = the middle
 *   limits: middle +- L sigma sqrt(lambda / (2 - lambda) (1 - (1 - lambda)^(2 i)))
 */
export type Watch = {
  lambda: number;
  /** Width of the limits in standard deviations of the mean. */
  width: number;
};

/**
 * Of one figure a job: a twentieth of a degree a week on a spread of a tenth is seen within thirty
 * jobs of the stand, and a stand in order is called out less than once in five hundred.
 */
export const WATCH: Watch = { lambda: 0.1, width: 3 };

export type WatchPoint = {
  /** The weighted mean after this figure, and its limits about the middle. */
  mean: number;
  lower: number;
  upper: number;
  out: boolean;
};

/**
 * @param middle of a figure while all is in order
 * @param sigma its spread
 * @param middleSigma how well that middle is known; 0 where it is what should be
 * @param fresh from where on it begins anew: somebody has looked after what it showed
 */
export function watch(
  figures: readonly number[],
  middle: number,
  sigma: number,
  { lambda, width }: Watch = WATCH,
  { fresh, middleSigma = 0 }: { fresh?: ReadonlySet<number>; middleSigma?: number } = {},
): WatchPoint[] {
  let mean = middle;
  let from = 0;
  return figures.map((x, i) => {
    if (fresh?.has(i)) [mean, from] = [middle, i];
    mean = lambda * x + (1 - lambda) * mean;
    const share = (lambda / (2 - lambda)) * (1 - (1 - lambda) ** (2 * (i - from + 1)));
    const half = width * Math.hypot(sigma * Math.sqrt(share), middleSigma);
    return {
      mean,
      lower: middle - half,
      upper: middle + half,
      out: Math.abs(mean - middle) > half,
    };
  });
}

/** The normal spread that goes with the median of the distances from the median. */
const MAD_TO_SIGMA = 1.4826;

const median = (list: readonly number[]): number => {
  const s = list.toSorted((a, b) => a - b);
  const half = s.length >> 1;
  return s.length % 2 ? s[half]! : (s[half - 1]! + s[half]!) / 2;
};

/**
 * Spread of figures whose middle may drift: by the differences of neighbours, which a slow drift hardly
 * touches (von Neumann 1941); what lies beyond three and a half of a first, robust spread is a slip and
 * left out, and the little that this takes of a normal spread is put back.
 *
 * @returns null of fewer than eight figures
 */
export function spreadOf(figures: readonly number[]): number | null {
  if (figures.length < 8) return null;
  const steps = figures.slice(1).map((x, i) => Math.abs(x - figures[i]!));
  const rough = MAD_TO_SIGMA * median(steps);
  if (rough === 0) return null;
  const kept = steps.filter((d) => d <= SLIP * rough);
  return Math.sqrt(kept.reduce((s, d) => s + d * d, 0) / kept.length / 2 / KEPT);
}

/** Beyond so many spreads a difference is a slip. */
const SLIP = 3.5;
/** The share of its variance that a normal spread cut off there keeps: 1 - 2 c phi(c) / (2 Phi(c) - 1). */
const KEPT = 1 - (2 * SLIP * 0.00087268) / 0.99953474;

/**
 * How many figures it takes to see a mean that is off, at so many sigma, in `power` of all cases.
 *
 * @param off the mean's distance from its middle @param sigma of one figure
 */
export function figuresToSee(off: number, sigma: number, at = 3, power = 0.8): number {
  for (let n = 1; n < 100_000; n++)
    if (normalCdfFast((Math.abs(off) * Math.sqrt(n)) / sigma - at) >= power) return n;
  return Infinity;
}
