import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import type { RoutineResult } from "@/core/run";

/**
 * A camera on its arm, as a thing: a lens in space, turned by a motor in steps, and a display that shows
 * what it truly sees. Written apart from core/mirror, by turning points instead of axes.
 */
type Point = readonly [x: number, y: number, z: number];

export type ArmCamera = {
  side: "left" | "right";
  at: Point;
  /** How it truly looks: turned from straight back to vehicle left, and down, rad. */
  turn: number;
  down: number;
};

const about = (axis: 1 | 2, [x, y, z]: Point, rad: number): Point => {
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  return axis === 2 ? [c * x - s * y, s * x + c * y, z] : [c * x + s * z, y, c * z - s * x];
};

/** How the repair left an arm's camera: where its seat truly is, and how it looks. */
export function mountedAfter(
  seed: string,
  side: "left" | "right",
  at: Point,
  wanted: { turn: number; down: number },
): ArmCamera {
  const random = randomFrom(seedFrom(`${seed}/arm/${side}`));
  const off = (size: number): number => (random() < 0.5 ? -1 : 1) * size * (0.6 + 0.8 * random());
  return {
    side,
    at: [at[0] + 3 * gaussian(random), at[1] + 3 * gaussian(random), at[2] + 3 * gaussian(random)],
    turn: wanted.turn + off(0.026),
    down: wanted.down + off(0.017),
  };
}

/** A motor's step is not quite what its sheet says, and a reversal loses part of one. */
export function turnedBy(
  camera: ArmCamera,
  steps: readonly { pan: number; tilt: number }[],
  stepRad: { pan: number; tilt: number },
  seed: string,
): ArmCamera {
  const random = randomFrom(seedFrom(`${seed}/motor/${camera.side}`));
  const gain = { pan: 1 + 0.04 * gaussian(random), tilt: 1 + 0.04 * gaussian(random) };
  // Outward is to vehicle left on the left arm, to vehicle right on the other: seen from above, the
  // camera that looks back turns the other way round than its vehicle does.
  const sense = camera.side === "left" ? -1 : 1;
  let [turn, down] = [camera.turn, camera.down];
  const last = { pan: 0, tilt: 0 };
  const lost = (now: number, before: number): number =>
    now * before < 0 ? Math.min(Math.abs(now), 0.4) * Math.sign(now) : 0;
  for (const { pan, tilt } of steps) {
    turn += sense * (pan - lost(pan, last.pan)) * stepRad.pan * gain.pan;
    down -= (tilt - lost(tilt, last.tilt)) * stepRad.tilt * gain.tilt;
    if (pan !== 0) last.pan = pan;
    if (tilt !== 0) last.tilt = tilt;
  }
  return { ...camera, turn, down };
}

/** Where a point of the bay stands on its display, divisions right and up; null out of its sight. */
export function onDisplay(
  { at, turn, down }: ArmCamera,
  point: Point,
  division: number,
): { right: number; up: number } | null {
  const from: Point = [point[0] - at[0], point[1] - at[1], point[2] - at[2]];
  // The bay is turned until the camera looks straight along its own +x, level.
  const straight = about(2, from, -(Math.PI + turn));
  const [depth, left, up] = about(1, straight, -down);
  if (depth <= 0) return null;
  const one = depth * Math.tan(division);
  return { right: left / one, up: up / one };
}

/** How far its own picture of the mark may be from where it believes the mark to be, divisions. */
const REFUSES_AT = 3;

/** The unit stores the aim of both cameras: it looks for the marks where its own tables have them. */
export function storeAims(
  off: readonly { side: string; right: number; up: number; within: number }[],
  seed: string,
  limits = 1,
): RoutineResult {
  const random = randomFrom(seedFrom(`${seed}/store`));
  const worst = off
    .map((o) => ({ ...o, size: Math.max(Math.abs(o.right), Math.abs(o.up)) / o.within }))
    .sort((a, b) => b.size - a.size)[0];
  if (!worst)
    return {
      passed: false,
      qualityPercent: 0,
      reason: "No picture: the vehicle does not find the cameras on its arms.",
    };
  const qualityPercent = Math.round(
    Math.max(0, Math.min(99, 97 - 12 * worst.size + gaussian(random))),
  );
  return worst.size > REFUSES_AT * limits
    ? {
        passed: false,
        qualityPercent,
        reason: `The camera on vehicle ${worst.side} looks beside its mark: aim it again.`,
      }
    : { passed: true, qualityPercent, reason: null };
}

/** What a display in the cabin shows, in divisions of its scale from its middle. */
export type CabinDisplay = {
  side: "left" | "right";
  /** The arms of each cross on the floor. */
  crosses: { id: string; name: string; strokes: [Spot, Spot][] }[];
  /** Lines on the ground: along the body, and through the hubs. */
  lines: { id: "flank" | "hubs"; spots: Spot[] }[];
  /** How high above the middle the horizon stands. */
  horizonUp: number;
};
export type Spot = { right: number; up: number };
