import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import type { RoutineResult } from "@/core/run";

/**
 * A radar behind the grille: it hears the echo of a corner of metal, takes its bearing in two planes,
 * and believes that it stands where the sheet puts it. What is left over is how it is misaligned.
 */
export type Echo = {
  /** The corner as it truly stands before the radar: ahead, to the left, up, mm. */
  at: readonly [number, number, number];
  /** The same where the radar expects it. */
  expected: readonly [number, number, number];
  /** How far its mouth is turned and leaned away from the radar, rad. */
  turnedRad: number;
  leanedRad: number;
};

const DEG = 180 / Math.PI;
/** A corner sends its echo back within this of its axis, and loses half of it here, rad. */
const HALF_ECHO_RAD = 0.3;
/** What a radar can put right by itself, and what it takes for another thing altogether. */
const LIMITS = { correctsDeg: 3, gateMm: 250 };
/** How well it takes a bearing. */
const BEARING_DEG = 0.04;

const bearings = ([x, y, z]: readonly [number, number, number]): [number, number] => [
  Math.atan2(y, x) * DEG,
  Math.asin(z / Math.sqrt(x * x + y * y + z * z)) * DEG,
];

/**
 * What the radar answers.
 *
 * @param seatDeg how the repair left its bracket: turned to the left, and up
 * @param limits its own against a usual unit's: below 1 stricter, above 1 laxer
 */
export function alignRadar(
  echoes: readonly Echo[],
  seatDeg: { yaw: number; pitch: number },
  seed: string,
  limits = 1,
): RoutineResult {
  const refused = (qualityPercent: number, reason: string): RoutineResult => ({
    passed: false,
    qualityPercent,
    reason,
  });
  const echo = echoes[0];
  if (!echo) return refused(0, "No echo: no reflector stands where the radar looks.");
  const random = randomFrom(seedFrom(`${seed}/radar`));
  const off = echo.at.map((v, i) => v - echo.expected[i]!);
  if (Math.hypot(...off) > LIMITS.gateMm * limits)
    return refused(0, "The echo does not come from where the reflector should stand.");
  const axis = Math.hypot(echo.turnedRad, echo.leanedRad);
  const strength = Math.exp(-Math.LN2 * (axis / HALF_ECHO_RAD) ** 2);
  const quality = Math.max(0, Math.min(99, 96 * strength + gaussian(random)));
  if (strength < 0.5)
    return refused(quality, "The echo is weak: the reflector looks past the radar.");
  const [seen, book] = [bearings(echo.at), bearings(echo.expected)];
  // Seen from a radar that is turned to the left, what stands ahead lies to its right.
  const measured = [
    book[0]! - (seen[0]! - seatDeg.yaw) + BEARING_DEG * gaussian(random),
    book[1]! - (seen[1]! - seatDeg.pitch) + BEARING_DEG * gaussian(random),
  ] as const;
  if (Math.max(...measured.map(Math.abs)) > LIMITS.correctsDeg * limits)
    return {
      ...refused(
        quality,
        "It is misaligned by more than it can put right itself: look at its bracket first.",
      ),
      learnedYawDeg: measured[0],
      learnedPitchDeg: measured[1],
    };
  return {
    passed: true,
    qualityPercent: quality,
    learnedYawDeg: measured[0],
    learnedPitchDeg: measured[1],
    reason: null,
  };
}

/** How the repair left the radar's bracket, degrees. */
export function seatAfter(seed: string): { yaw: number; pitch: number } {
  const random = randomFrom(seedFrom(`${seed}/radar-seat`));
  return { yaw: 0.7 * gaussian(random), pitch: 0.5 * gaussian(random) };
}
