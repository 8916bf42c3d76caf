/**
 * Tail probabilities and quantiles of the distributions the judgement rests on. Pure functions, no
 * tables.
 */

// Lanczos approximation, g = 7, nine terms; relative error below 1e-14 for x > 0.
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
  -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6,
  1.5056327351493116e-7,
];

function logGamma(x: number): number {
  const t = x + 6.5;
  let sum = LANCZOS[0]!;
  for (let i = 1; i < 9; i++) sum += LANCZOS[i]! / (x - 1 + i);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/**
 * Upper tail of the chi-square distribution: P(X > value).
 *
 * Regularised incomplete gamma Q(k/2, x/2) by its series below k/2 + 1 and by Lentz's continued
 * fraction above (Abramowitz & Stegun 6.5.29 and 6.5.31).
 *
 * @param value observed chi-square, >= 0
 * @param degreesOfFreedom k >= 0; with k = 0 nothing can be contradicted and the answer is 1
 */
export function chiSquareUpperTail(value: number, degreesOfFreedom: number): number {
  if (degreesOfFreedom <= 0 || value <= 0) return 1;
  const a = degreesOfFreedom / 2;
  const x = value / 2;
  const front = Math.exp(-x + a * Math.log(x) - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < 1000 && term > sum * 1e-16; n++) {
      term *= x / (a + n);
      sum += term;
    }
    return Math.max(0, 1 - sum * front);
  }
  let b = x + 1 - a;
  let c = 1e300;
  let d = 1 / b;
  let h = d;
  for (let n = 1; n < 1000; n++) {
    const an = -n * (n - a);
    b += 2;
    d = 1 / (an * d + b);
    c = b + an / c;
    const delta = d * c;
    h *= delta;
    if (Math.abs(delta - 1) < 1e-15) break;
  }
  return front * h;
}

/**
 * Standard normal distribution function, through the incomplete gamma function of one degree of
 * freedom.
 */
export function normalCdf(z: number): number {
  const tail = 0.5 * chiSquareUpperTail(z * z, 1);
  return z >= 0 ? 1 - tail : tail;
}

/**
 * Standard normal distribution function for bulk work: rational approximation of West's algorithm
 * (Hart 1968), absolute error below 1e-14, several times faster than {@link normalCdf}.
 */
export function normalCdfFast(z: number): number {
  const a = Math.abs(z);
  let tail: number;
  if (a > 37) tail = 0;
  else {
    const e = Math.exp((-a * a) / 2);
    if (a < 7.07106781186547) {
      const num =
        (((((3.52624965998911e-2 * a + 0.700383064443688) * a + 6.37396220353165) * a +
          33.912866078383) *
          a +
          112.079291497871) *
          a +
          221.213596169931) *
          a +
        220.206867912376;
      const den =
        ((((((8.83883476483184e-2 * a + 1.75566716318264) * a + 16.064177579207) * a +
          86.7807322029461) *
          a +
          296.564248779674) *
          a +
          637.333633378831) *
          a +
          793.826512519948) *
          a +
        440.413735824752;
      tail = (e * num) / den;
    } else {
      const f = a + 1 / (a + 2 / (a + 3 / (a + 4 / (a + 0.65))));
      tail = e / f / 2.506628274631;
    }
  }
  return z > 0 ? 1 - tail : tail;
}

/**
 * Quantile of the standard normal distribution (Acklam's rational approximation, one Halley step on
 * the exact distribution function; relative error near machine precision).
 *
 * @param p probability, clamped to the open interval (0, 1)
 */
export function normalQuantile(p: number): number {
  const q = Math.min(Math.max(p, 1e-300), 1 - 1e-16);
  const LOW = 0.02425;
  let z: number;
  if (q < LOW || q > 1 - LOW) {
    const r = Math.sqrt(-2 * Math.log(q < LOW ? q : 1 - q));
    z =
      (((((-7.784894002430293e-3 * r - 0.3223964580411365) * r - 2.400758277161838) * r -
        2.549732539343734) *
        r +
        4.374664141464968) *
        r +
        2.938163982698783) /
      ((((7.784695709041462e-3 * r + 0.3224671290700398) * r + 2.445134137142996) * r +
        3.754408661907416) *
        r +
        1);
    if (q > 1 - LOW) z = -z;
  } else {
    const s = q - 0.5;
    const r = s * s;
    z =
      ((((((-39.69683028665376 * r + 220.9460984245205) * r - 275.9285104469687) * r +
        138.357751867269) *
        r -
        30.66479806614716) *
        r +
        2.506628277459239) *
        s) /
      (((((-54.47609879822406 * r + 161.5858368580409) * r - 155.6989798598866) * r +
        66.80131188771972) *
        r -
        13.28068155288572) *
        r +
        1);
  }
  const e = normalCdfFast(z) - q;
  const u = e * Math.sqrt(2 * Math.PI) * Math.exp((z * z) / 2);
  return Number.isFinite(u) ? z - u / (1 + (z * u) / 2) : z;
}
