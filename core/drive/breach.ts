import type { DriveCondition, DriveConditionKind } from "./rules";
import { SPEED_UNITS } from "./speed-units";
import type { DriveSample, LineSeen } from "./sample";

/** Slower than this a vehicle stands, m/s. */
export const STANDS_MPS = 0.5;

/** Why a moment does not count: a condition that is breached, or of which nothing is known. */
export type Breach = { kind: DriveConditionKind; known: boolean };

/** Lets a boundary that was typed in other units hold: a speed of exactly 40 mph is inside "to 40 mph". */
const NEAR = 1e-9;

const lineHolds = (needs: "solid" | "broken" | "either" | null, seen: LineSeen): boolean =>
  needs === null || (needs === "either" ? seen !== "none" : seen === needs);

/**
 * Whether one condition holds at a moment; null where that is not known.
 *
 * @param recent speeds of the last while with their times, the moment's own last: for steadiness
 */
export function holds(
  c: DriveCondition,
  s: DriveSample,
  recent: readonly { atMs: number; mps: number }[],
): boolean | null {
  switch (c.kind) {
    case "speed": {
      if (s.speedMps === null) return null;
      const v = s.speedMps / SPEED_UNITS[c.unit];
      return v >= c.min - NEAR && v <= c.max + NEAR;
    }
    case "steadiness": {
      if (s.speedMps === null) return null;
      const from = s.atMs - c.overS * 1000;
      let [low, high] = [s.speedMps, s.speedMps];
      for (const r of recent) {
        if (r.atMs < from) continue;
        low = Math.min(low, r.mps);
        high = Math.max(high, r.mps);
      }
      return (high - low) / SPEED_UNITS[c.unit] <= c.within + NEAR;
    }
    case "lines":
      return s.lines && lineHolds(c.left, s.lines.left) && lineHolds(c.right, s.lines.right);
    case "curve":
      return s.radiusM === null ? null : s.radiusM === "straight" || s.radiusM >= c.minRadiusM;
    case "gap":
      return s.gapM === null ? null : s.gapM === "nobody" || s.gapM >= c.minM;
    case "light":
      if (s.light === null) return null;
      return s.light === "day" || (s.light === "dusk" && c.needs === "day-or-dusk");
    case "weather":
      return s.weather && !c.without.some((w) => s.weather!.includes(w));
    case "sun":
      return s.sunOffDeg === null ? null : s.sunOffDeg > c.coneDeg;
    case "rolling":
      return s.speedMps === null ? null : s.speedMps >= STANDS_MPS;
    case "key":
      return s.keyOn;
  }
}
