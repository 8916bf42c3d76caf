import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import type { RoutineResult } from "@/core/run";

/**
 * The unit behind a trailer's camera. It takes the trailer for straight behind the vehicle and looks
 * along it; what stands at an angle it would learn as a crooked camera, and refuses beyond a limit of
 * its own.
 */
const REFUSES_DEG = 1.2;

/** What the unit concludes from one look along the trailer. */
export function learnTrailerCamera(
  articulationRad: number | null,
  seed: string,
  limits = 1,
): RoutineResult {
  if (articulationRad === null)
    return { passed: false, qualityPercent: 0, reason: "The unit finds no trailer coupled." };
  const random = randomFrom(seedFrom(`${seed}/trailer`));
  const deg = (articulationRad * 180) / Math.PI + 0.1 * gaussian(random);
  const off = Math.abs(deg);
  return {
    passed: off <= REFUSES_DEG * limits,
    qualityPercent: Math.max(0, Math.min(99, 97 - 18 * off)),
    reason:
      off <= REFUSES_DEG * limits
        ? null
        : `The trailer does not stand straight behind the vehicle: ${off.toFixed(1)} degrees.`,
  };
}
