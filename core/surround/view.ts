import { apply, type Pose } from "@/core/camera";
import { centreOf, type FloorPoint } from "./mount";
import { CORNERS, SIDES, type CornerId, type SideId } from "./names";

/** The ray does not meet the floor before the camera: it looks at or above the horizon. */
export class NoFloorError extends Error {
  override readonly name = "NoFloorError";
}

/**
 * A camera as it sits and as the unit believes it. `lensShare`: how much wider than the unit believes
 * the lens draws an angle off its axis, as a share of it; nothing for the lens it should have.
 */
export type Seeing = { truly: Pose; believed: Pose; lensShare?: number };

/**
 * Where the stitched picture shows a floor point that one camera sees.
 *
 * The unit takes the pixel for a ray of the camera as it believes it mounted, and draws it where that
 * ray meets the floor. With the lens known, pixel and ray are one and the same, so that only the two
 * poses count: the point in the true camera's axes is carried back by the believed pose and followed
 * to z = 0. That is a homography of the floor (Hartley & Zisserman 2004, 13.1): a camera that sits
 * otherwise than believed shifts, turns and shears the picture, and never bends a line. A line that
 * bends speaks of the lens.
 *
 * @returns vehicle axes, mm
 * @throws NoFloorError where the believed ray does not come down
 */
export function shownAt(
  { truly, believed, lensShare = 0 }: Seeing,
  [x, y]: FloorPoint,
): [number, number] {
  const u = wider(apply(truly, [x, y, 0]), lensShare);
  const { r } = believed;
  const [dx, dy, dz] = [
    r[0]! * u[0] + r[3]! * u[1] + r[6]! * u[2],
    r[1]! * u[0] + r[4]! * u[1] + r[7]! * u[2],
    r[2]! * u[0] + r[5]! * u[1] + r[8]! * u[2],
  ];
  const [cx, cy, cz] = centreOf(believed);
  const far = -cz / dz;
  if (!(far > 0) || !Number.isFinite(far))
    throw new NoFloorError("The ray does not come down to the floor.");
  return [cx + far * dx, cy + far * dy];
}

/** A ray in camera axes with its angle off the axis drawn wider by a share of it. */
function wider(u: [number, number, number], share: number): [number, number, number] {
  if (share === 0) return u;
  const side = Math.hypot(u[0], u[1]);
  const theta = Math.atan2(side, u[2]) * (1 + share);
  const k = Math.sin(theta) / side;
  return [u[0] * k, u[1] * k, Math.cos(theta)];
}

/** What of a car matters to the picture round it: its outline as a rectangle, mm. */
export type Outline = { frontMm: number; rearMm: number; leftMm: number; rightMm: number };

export const camerasAt = (corner: CornerId): { end: SideId; side: SideId } => {
  const [end, side] = corner.split("-") as ["front" | "rear", "left" | "right"];
  return { end, side };
};

/** Where a seam is looked at: this far out from the corner of the car, both ways, mm. */
const OUT_MM = 900;

/** The place of a seam where steps are read off: on the diagonal out of the car's corner. */
export function seamPoint(car: Outline, corner: CornerId): [number, number] {
  const { end, side } = camerasAt(corner);
  return [
    end === "front" ? car.frontMm + OUT_MM : car.rearMm - OUT_MM,
    side === "left" ? car.leftMm + OUT_MM : car.rightMm - OUT_MM,
  ];
}

/** Which camera's picture is drawn at a place: seams run out of the corners at 45 degrees. */
export function cameraFor(car: Outline, [x, y]: FloorPoint): SideId {
  const ahead = Math.max(x - car.frontMm, car.rearMm - x);
  const beside = Math.max(y - car.leftMm, car.rightMm - y);
  if (ahead > beside) return x > (car.frontMm + car.rearMm) / 2 ? "front" : "rear";
  return y > (car.leftMm + car.rightMm) / 2 ? "left" : "right";
}

/**
 * How far the side camera's part of the picture lies from the end camera's at a seam, mm: forward,
 * and to vehicle left. A line along the car breaks by the second, one across it by the first.
 */
export type Step = { alongMm: number; acrossMm: number };
export type Steps = Record<CornerId, Step>;

export type Rig = Record<SideId, Seeing>;

/** The step of one and the same floor point at a seam, as the two cameras beside it show it. */
export function stepAt(rig: Rig, car: Outline, corner: CornerId): Step {
  const { end, side } = camerasAt(corner);
  const at = seamPoint(car, corner);
  const [a, b] = [rig[end], rig[side]].map((c) => shownAt(c, at));
  return { alongMm: b![0] - a![0], acrossMm: b![1] - a![1] };
}

export const stepsOf = (rig: Rig, car: Outline): Steps =>
  Object.fromEntries(CORNERS.map((c) => [c, stepAt(rig, car, c)])) as Steps;

/**
 * How much a straight floor line bends inside one camera's part, mm: the middle of it off the chord
 * between its ends. The line runs before the camera, 600 mm out from the car, from corner to corner.
 * Nothing, whatever the camera's pose; something with a lens that is not the one believed.
 */
export function bendOf(rig: Rig, car: Outline, side: SideId): number {
  const beside = side === "left" ? car.leftMm + 600 : car.rightMm - 600;
  const before = side === "front" ? car.frontMm + 600 : car.rearMm - 600;
  const ends: [FloorPoint, FloorPoint] =
    side === "left" || side === "right"
      ? [
          [car.frontMm, beside],
          [car.rearMm, beside],
        ]
      : [
          [before, car.leftMm],
          [before, car.rightMm],
        ];
  const middle: FloorPoint = [(ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2];
  const [a, m, b] = [ends[0], middle, ends[1]].map((p) => shownAt(rig[side], p));
  const [ex, ey] = [b![0] - a![0], b![1] - a![1]];
  return (ex * (m![1] - a![1]) - ey * (m![0] - a![0])) / Math.hypot(ex, ey);
}

/** Every camera as it should be: what the unit believes is so. */
export const rightRig = (poses: Record<SideId, Pose>): Rig =>
  Object.fromEntries(SIDES.map((s) => [s, { truly: poses[s], believed: poses[s] }])) as Rig;
