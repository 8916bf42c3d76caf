import { fitLinear } from "@/core/math/fit";

/** Where the supply is going: volts per minute, and the minutes until it is too low. */
export type BatteryTrend = { voltsPerMinute: number; sigma: number; minutesLeft: number | null };

/**
 * A straight line through logged supply volts, and when it meets the floor.
 *
 * @param log time in seconds and volts, at least three
 * @param floorVolts below this the routine refuses
 * @returns minutes left from the last entry; null while the supply does not surely fall (slope
 *   within 2 sigma of 0)
 */
export function batteryTrend(
  log: readonly { atS: number; volts: number }[],
  floorVolts: number,
): BatteryTrend | null {
  if (log.length < 3) return null;
  const start = log[0]!.atS;
  const last = log.at(-1)!;
  if (last.atS - start < 5) return null;
  // A cheap meter's noise; the slope's uncertainty follows from it.
  const fit = fitLinear(
    log.map((p) => [1, (p.atS - start) / 60]),
    log.map((p) => p.volts),
    log.map(() => 0.04),
  );
  const [slope, sigma] = [fit.x[1]!, Math.sqrt(fit.covariance[1]![1]!)];
  const now = fit.x[0]! + (slope * (last.atS - start)) / 60;
  const falls = slope < -2 * sigma;
  return {
    voltsPerMinute: slope,
    sigma,
    minutesLeft: falls ? Math.max(0, (floorVolts - now) / slope) : null,
  };
}
