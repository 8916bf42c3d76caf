import { degToRad } from "@/core/units";
import type { LastActId } from "./last-act-ids";
import type { PlanPose } from "./stand";

/**
 * The next car of the same model before a stand that nobody touched since the last one: where the
 * stand stands in the bay is kept, and only where the car stands is known anew.
 */

/** A number of the stand's as the last job left it, with its standard deviation. */
export type KeptNumber = { value: number; sigma: number };

/** A stand as a job left it, in the axes of that job's vehicle. */
export type Kept = {
  pose: PlanPose;
  /** mm2 and rad2: x, y, heading. */
  covariance: number[][];
  height: KeptNumber;
  pitch: KeptNumber;
  roll: KeptNumber;
  /** Its adjusters, one value for each joint. */
  adjusters: number[];
  /** Last acts that were done to it. */
  finished: LastActId[];
};

/**
 * How near a car that is driven to the same marks comes to where the last one stood: chocks and a
 * painted line, standard deviations.
 */
export const ON_MARKS = { planMm: 25, headingRad: degToRad(0.4) };
/**
 * How fast a stand goes by itself before anything was seen of it, mm an hour: log-normal, its median and
 * the spread of its logarithm.
 */
export const DRIFT_BEFORE = { medianMm: 0.25, spread: 0.9 };
/** Standard deviation of what a stand has gone by itself after a time, mm: the root of the mean square. */
export const goneMm = (hours: number): number =>
  hours * DRIFT_BEFORE.medianMm * Math.exp(DRIFT_BEFORE.spread ** 2);
/** What a drift of a millimetre leans a stand by, rad. */
const LEANS_PER_MM = 3e-4;

/**
 * What is known of it before the next car: its pose widened by where that car may stand, all of it by
 * what a stand goes in the time between.
 *
 * A car that stands d = (dx, dy) aside and turned by t sees the stand at R(-t)(p - d), so that its
 * place is off by -d - t (-y, x), and its heading by -t.
 *
 * @param goneMm how far it may have gone by itself, standard deviation
 */
export function beforeNextCar(kept: Kept, goneMm: number): Kept {
  const { xMm, yMm } = kept.pose;
  const place = ON_MARKS.planMm ** 2 + goneMm ** 2;
  const turn = ON_MARKS.headingRad ** 2;
  const arm = [yMm, -xMm, -1];
  const wider = (n: KeptNumber, by: number): KeptNumber => ({
    ...n,
    sigma: Math.hypot(n.sigma, by),
  });
  return {
    ...kept,
    covariance: kept.covariance.map((row, i) =>
      row.map((v, k) => v + turn * arm[i]! * arm[k]! + (i === k && i < 2 ? place : 0)),
    ),
    height: wider(kept.height, goneMm),
    pitch: wider(kept.pitch, goneMm * LEANS_PER_MM),
    roll: wider(kept.roll, goneMm * LEANS_PER_MM),
  };
}
