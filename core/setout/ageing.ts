import { normalCdf } from "@/core/math/distributions";
import { centredProbability } from "./chance";
import type { Candidate } from "./next";
import { DRIFT_BEFORE } from "./kept";
import type { SetOutSolution } from "./solve";
import { insideChance, scalarErrors } from "./verdict";

/**
 * Proof ages: tyres settle, a column sinks, a floor creeps under a stand. How fast is learned for
 * each stand from readings that were taken again later, when nobody had touched anything.
 */

/** A reading taken again: how long after, by how much it differed, and what it may differ by anyway. */
export type DriftSight = { hours: number; mm: number; sigmaMm: number };

/**
 * What is known of a stand's rate, mm an hour: a weight for each rate of a grid. What it goes in an
 * hour is as likely to any side.
 */
export type Drift = { ratesMm: readonly number[]; weights: readonly number[]; sights: number };

const RATES = Array.from({ length: 81 }, (_, i) => 0.005 * 10 ** (i / 20));
/** What a stand goes at a metre's reach turns it by so much, rad for each mm. */
const TURN_PER_MM = 1e-3;

const density = (z: number, sigma: number): number => Math.exp(-0.5 * (z / sigma) ** 2) / sigma;

/**
 * How fast a stand drifts, from what was seen of it: the posterior of its rate by Bayes' rule on a
 * grid, each sight normal with what the reading may differ by and what the stand may have gone.
 */
export function learnDrift(sights: readonly DriftSight[]): Drift {
  const logs = RATES.map((rate) => {
    const prior = -0.5 * (Math.log(rate / DRIFT_BEFORE.medianMm) / DRIFT_BEFORE.spread) ** 2;
    return sights.reduce(
      (sum, { hours, mm, sigmaMm }) =>
        sum + Math.log(Math.max(1e-300, density(mm, Math.hypot(sigmaMm, rate * hours)))),
      prior,
    );
  });
  const top = Math.max(...logs);
  const raw = logs.map((l) => Math.exp(l - top));
  const all = raw.reduce((a, b) => a + b, 0);
  return { ratesMm: RATES, weights: raw.map((w) => w / all), sights: sights.length };
}

/** Standard deviation of what a stand has gone after a time, mm. */
export const driftedMm = ({ ratesMm, weights }: Drift, hours: number): number =>
  hours * Math.sqrt(ratesMm.reduce((sum, r, i) => sum + weights[i]! * r * r, 0));

/** How far a stand stays, to either side, with a chance, after a time, mm. */
export function driftBandMm({ ratesMm, weights }: Drift, hours: number, share = 0.8): number {
  const inside = (mm: number): number =>
    ratesMm.reduce(
      (sum, r, i) => sum + weights[i]! * (2 * normalCdf(mm / Math.max(1e-9, r * hours)) - 1),
      0,
    );
  let [low, high] = [0, 1e-3];
  while (inside(high) < share && high < 1e6) high *= 2;
  for (let n = 0; n < 60; n++) {
    const mid = (low + high) / 2;
    if (inside(mid) < share) low = mid;
    else high = mid;
  }
  return high;
}

/** What a proof is still worth, and the one reading that brings most of it back. */
export type Aged = {
  chance: number;
  restore: { slotId: string; name: string; chance: number } | null;
};

/**
 * The chance that a board stands inside its limits some time after its last reading.
 *
 * @param candidates readings that could be taken now
 */
export function aged(
  s: SetOutSolution,
  candidates: readonly Pick<Candidate, "slot" | "play" | "anew">[],
  drift: Drift,
  hours: number,
): Aged | null {
  const { adjustment: a, plane } = s;
  if (!a || !plane) return null;
  const { order, covariance, index } = a.joint;
  const gone = driftedMm(drift, hours);
  const body = index[s.body]!;
  const spread = [gone, gone, gone * TURN_PER_MM];
  const q = Float64Array.from(covariance);
  spread.forEach((sd, i) => (q[(body + i) * order + body + i]! += sd * sd));
  const times = (g: Float64Array): Float64Array => {
    const out = new Float64Array(order);
    for (let k = 0; k < order; k++)
      if (g[k] !== 0) for (let i = 0; i < order; i++) out[i]! += q[k * order + i]! * g[k]!;
    return out;
  };
  const dot = (x: Float64Array, y: Float64Array): number => x.reduce((t, v, k) => t + v * y[k]!, 0);
  const plan = plane.covariance.map((row, i) =>
    row.map((v, k) => {
      const [a, b] = [plane.jacobian[i]!, plane.jacobian[k]!];
      return spread.reduce((sum, sd, r) => sum + a[body + r]! * b[body + r]! * sd * sd, v);
    }),
  );
  const scalars = scalarErrors(s).map((x) => ({
    ...x,
    sigma: Math.hypot(x.sigma, heightOf(x.id)),
  }));
  function heightOf(id: string): number {
    return id === "height" ? gone : 0;
  }
  const errors = plane.quantities.map((x) => x.error);
  const halves = plane.quantities.map((x) => x.half);
  const chanceOf = (cov: number[][], lists: typeof scalars): number =>
    lists.reduce(
      (p, x) => p * insideChance(x.error, x.sigma, x.half),
      centredProbability(errors, cov, halves),
    );
  const chance = chanceOf(plan, scalars);
  let restore: Aged["restore"] = null;
  for (const c of candidates) {
    if (c.anew) continue;
    const { gradient: g, sigma, part } = c.play;
    let after = chance;
    if (g && part === "plan") {
      const qg = times(g);
      const per = 1 / (sigma ** 2 + dot(g, qg));
      const gain = plane.jacobian.map((row) => dot(row, qg));
      after = chanceOf(
        plan.map((row, i) => row.map((v, k) => v - gain[i]! * gain[k]! * per)),
        scalars,
      );
    } else if (part === "height")
      after = chanceOf(
        plan,
        scalars.map((x) => {
          if (x.id !== "height") return x;
          const own = s.scalars.height.variance + gone * gone;
          const left = 1 / (1 / own + 1 / sigma ** 2);
          return { ...x, sigma: Math.sqrt(x.sigma ** 2 - own + left) };
        }),
      );
    if (after > chance + 1e-4 && after > (restore?.chance ?? 0))
      restore = { slotId: c.slot.id, name: c.slot.name, chance: after };
  }
  return { chance, restore };
}
