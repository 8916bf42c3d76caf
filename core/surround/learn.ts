import { apply, multiply, rotation, type Pose } from "@/core/camera";
import { choleskyInPlace, choleskyInverse, choleskySolve } from "@/core/math/linear";
import { centreOf, type FloorPoint } from "./mount";
import type { SideId } from "./names";
import type { Outline } from "./view";

/** A mat as it lies: the middle of its cross line and the way its arrow points. */
export type MatPose = { xMm: number; yMm: number; headingRad: number };
/** What is printed on it: how far its front end lies before the cross line, its length, its width. */
export type MatForm = { aheadMm: number; lengthMm: number; widthMm: number };

/** The marks of a mat as it lies: its corners and the ends of its cross line. */
export function marksOf({ xMm, yMm, headingRad }: MatPose, form: MatForm): FloorPoint[] {
  const [c, s] = [Math.cos(headingRad), Math.sin(headingRad)];
  return [form.aheadMm, 0, form.aheadMm - form.lengthMm].flatMap((ahead) =>
    [form.widthMm / 2, -form.widthMm / 2].map((left): FloorPoint => [
      xMm + c * ahead - s * left,
      yMm + s * ahead + c * left,
    ]),
  );
}

/** Farther off than this a mark is too small in the picture, mm. */
const FAR_MM = 6500;

/** Whether a camera sees a place of the floor past the car's own body, near enough to be used. */
export function seesPlace(car: Outline, side: SideId, pose: Pose, [x, y]: FloorPoint): boolean {
  const [cx, cy] = centreOf(pose);
  if (Math.hypot(x - cx, y - cy) > FAR_MM) return false;
  switch (side) {
    case "front":
      return x > car.frontMm;
    case "rear":
      return x < car.rearMm;
    case "left":
      return y > car.leftMm;
    case "right":
      return y < car.rightMm;
  }
}

/** A mark as it lies, and where the unit takes it to lie. */
export type Sighting = { truly: FloorPoint; wanted: FloorPoint };

/**
 * How far a camera may be thought to sit and look from where the maker mounts it, and how well a
 * mark's ray is seen: what holds back a pose that few marks leave loose.
 */
const SPREAD = { placeMm: 25, turnRad: 0.035, rayRad: 0.0004 } as const;

/** A bearing that a pose gives to a place: x/z and y/z would run off at the side, so rays are used. */
function ray(pose: Pose, [x, y]: FloorPoint): [number, number, number] {
  const u = apply(pose, [x, y, 0]);
  const n = Math.hypot(u[0], u[1], u[2]);
  return [u[0] / n, u[1] / n, u[2] / n];
}

/**
 * A pose turned by a small rotation in the camera's own axes, then moved in them.
 *
 * @param d rotation vector, rad, then a shift, mm
 */
export const stepped = ({ r, t }: Pose, d: ArrayLike<number>): Pose => {
  const turn = rotation([d[0]!, d[1]!, d[2]!]);
  const moved = apply({ r: turn, t: [d[3]!, d[4]!, d[5]!] }, t);
  return { r: multiply(turn, r), t: moved };
};

/**
 * The pose a unit would learn for one camera from marks that do not lie where it takes them to lie:
 * least squares of the rays over all six parts of the pose, held near the mounted one
 * (Gauss-Newton). Which unit is built so is not known to us; that a camera takes over the error of
 * the marks it sees holds of any.
 *
 * @param truly the camera as it sits; its rays to the marks are what is seen
 * @param mounted as the maker mounts it: what the unit begins with
 * @returns the pose, and the covariance that the noise of the rays leaves it: 6x6, the parts of
 *   {@link stepped}
 */
export function learnedPose(
  truly: Pose,
  mounted: Pose,
  marks: readonly Sighting[],
): { pose: Pose; covariance: Float64Array } {
  const seen = marks.map((m) => ray(truly, m.truly));
  const total = new Float64Array(6);
  const weight = 1 / SPREAD.rayRad ** 2;
  const hold = [0, 1, 2, 3, 4, 5].map((i) =>
    i < 3 ? 1 / SPREAD.turnRad ** 2 : 1 / SPREAD.placeMm ** 2,
  );
  let pose = mounted;
  let covariance: Float64Array = new Float64Array(36);
  for (let round = 0; round < 12; round++) {
    const normal = new Float64Array(36);
    const right = new Float64Array(6);
    for (let i = 0; i < 6; i++) {
      normal[7 * i] = hold[i]!;
      right[i] = -hold[i]! * total[i]!;
    }
    marks.forEach((m, k) => {
      const u = apply(pose, [m.wanted[0], m.wanted[1], 0]);
      const n = Math.hypot(u[0], u[1], u[2]);
      const e = [u[0] / n, u[1] / n, u[2] / n];
      // d(ray) = (I - e e^T)(omega x u + v) / n; its rows by unit vectors of the six parts.
      const parts = [
        [0, -u[2], u[1]],
        [u[2], 0, -u[0]],
        [-u[1], u[0], 0],
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ].map((d) => {
        const along = d[0]! * e[0]! + d[1]! * e[1]! + d[2]! * e[2]!;
        return d.map((x, j) => (x - along * e[j]!) / n);
      });
      for (let i = 0; i < 6; i++) {
        for (let j = 0; j < 3; j++) right[i]! += weight * parts[i]![j]! * (seen[k]![j]! - e[j]!);
        for (let l = 0; l <= i; l++) {
          let sum = 0;
          for (let j = 0; j < 3; j++) sum += parts[i]![j]! * parts[l]![j]!;
          normal[6 * i + l]! += weight * sum;
        }
      }
    });
    choleskyInPlace(normal, 6, 0);
    choleskySolve(normal, 6, right);
    covariance = choleskyInverse(normal, 6);
    for (let i = 0; i < 6; i++) total[i]! += right[i]!;
    pose = stepped(pose, right);
    if (Math.hypot(right[0]!, right[1]!, right[2]!) < 1e-10) break;
  }
  return { pose, covariance };
}
