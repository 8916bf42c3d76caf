import { normalCdf } from "@/core/math/distributions";
import { articulationAfter, type Train } from "./motion";

/** What is known of the angle between the two: rad. */
export type Articulation = { valueRad: number; sigmaRad: number };

/** One pull forward: the wheels held so, to the left positive, over this distance. */
export type Pull = { steerRad: number; distanceMm: number };

export type StraightenAdvice =
  /** In line as surely as is asked. */
  | { kind: "in-line"; chance: number }
  /** Not known well enough to say: read again, the angle looks small. */
  | { kind: "read"; chance: number }
  | { kind: "pull"; pull: Pull; thenRad: number }
  /** The floor ahead is too short for what it takes. */
  | { kind: "no-room"; needMm: number };

/** No more than this is asked of the front wheels: anybody can hold it, at walking pace. */
const STEER_MOST_RAD = (20 * Math.PI) / 180;
/** Pulls come in halves of a metre: that is what a mark on the floor can be aimed at. */
const GRAIN_MM = 500;
const LEAST_MM = 1000;
const MOST_MM = 12_000;

/** How surely the angle lies within its limit. */
export const inLineChance = ({ valueRad, sigmaRad }: Articulation, limitRad: number): number =>
  normalCdf((limitRad - valueRad) / sigmaRad) - normalCdf((-limitRad - valueRad) / sigmaRad);

/**
 * What brings a trailer into line: the shortest pull, in halves of a metre, whose steering nulls the
 * angle and is within what is asked of the wheels. The steering is found by bisection: the angle at
 * the end falls as the wheels turn to the left.
 *
 * @param roomMm free floor ahead
 * @param sure the chance at which it counts as in line
 */
export function straighten(
  train: Train,
  now: Articulation,
  limitRad: number,
  roomMm: number,
  sure = 0.99,
): StraightenAdvice {
  const chance = inLineChance(now, limitRad);
  if (chance >= sure) return { kind: "in-line", chance };
  // As it stands it is inside; only nobody knows it surely enough.
  if (Math.abs(now.valueRad) <= limitRad / 2) return { kind: "read", chance };
  for (let distanceMm = LEAST_MM; distanceMm <= MOST_MM; distanceMm += GRAIN_MM) {
    const steerRad = nulling(train, now.valueRad, distanceMm);
    if (steerRad === null) continue;
    if (distanceMm > roomMm) return { kind: "no-room", needMm: distanceMm };
    const thenRad = articulationAfter(train, now.valueRad, steerRad, distanceMm);
    return { kind: "pull", pull: { steerRad, distanceMm }, thenRad };
  }
  return { kind: "no-room", needMm: MOST_MM };
}

/** The steering that ends a pull of this length in line; null where the wheels do not turn so far. */
function nulling(train: Train, fromRad: number, distanceMm: number): number | null {
  const end = (steer: number): number => articulationAfter(train, fromRad, steer, distanceMm);
  let [low, high] = [-STEER_MOST_RAD, STEER_MOST_RAD];
  if (end(low) < 0 || end(high) > 0) return null;
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (end(middle) > 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
