import { wrapAngle } from "@/core/math/linear";

/**
 * A camera that takes a mirror's place, on its arm, as its display in the cabin shows it.
 *
 * Vehicle axes (ISO 8855): x forward, y left, z up. The camera is turned by a pan about the vertical
 * and by a tilt about its own level axis; its picture hangs level. The display shows it as a mirror
 * would: what lies toward vehicle right stands to the right.
 *
 * Divisions of the display's scale are equal on the glass of a straight projection: the first one
 * stands for `divisionRad`, the n-th for atan(n tan(divisionRad)).
 */
export type Place = { xMm: number; yMm: number; zMm: number };

/** Where the optical axis points: heading counter-clockwise from ahead, and how far below level. */
export type Aim = { headingRad: number; downRad: number };

/** A point of the display, in divisions from its middle. */
export type Shown = { right: number; up: number };

/** No aim of the camera shows the point there: it stands above or below all it can see. */
export class AimError extends Error {
  override readonly name = "AimError";
}

/** The direction from one place to another, not of unit length. */
const toward = (from: Place, to: Place): [number, number, number] => [
  to.xMm - from.xMm,
  to.yMm - from.yMm,
  to.zMm - from.zMm,
];

/**
 * Where a point stands on the display.
 *
 * With f the optical axis, l the camera's own left, u its up:
 *   f = (cos d cos h, cos d sin h, -sin d), l = (-sin h, cos h, 0), u = (sin d cos h, sin d sin h, cos d).
 * A mirror's picture has the camera's left on its right.
 *
 * @returns null for a point behind the camera
 */
export function shownAt(
  camera: Place,
  { headingRad, downRad }: Aim,
  point: Place,
  divisionRad: number,
): Shown | null {
  const [x, y, z] = toward(camera, point);
  const [ch, sh] = [Math.cos(headingRad), Math.sin(headingRad)];
  const [cd, sd] = [Math.cos(downRad), Math.sin(downRad)];
  const ahead = cd * (ch * x + sh * y) - sd * z;
  if (ahead <= 0) return null;
  const unit = ahead * Math.tan(divisionRad);
  return { right: (-sh * x + ch * y) / unit, up: (sd * (ch * x + sh * y) + cd * z) / unit };
}

/**
 * The aim that shows a point at a place of the display: the inverse of {@link shownAt}, in closed form.
 *
 * The ray of the display's place, (1, a, b) along (f, l, u) with a = right tan, b = up tan, rises by
 *   b cos d - sin d = s sqrt(1 + a^2 + b^2), s the sine of the point's own rise,
 * which is hypot(1, b) cos(d + p) with p = atan2(1, b). Its heading lies beside the axis by
 * atan2(a, cos d + b sin d).
 *
 * @throws AimError where the point rises or falls more than any ray through that place
 */
export function aimShowing(camera: Place, point: Place, at: Shown, divisionRad: number): Aim {
  const [x, y, z] = toward(camera, point);
  const t = Math.tan(divisionRad);
  const [a, b] = [at.right * t, at.up * t];
  const sine = z / Math.hypot(x, y, z);
  const cosine = (sine * Math.hypot(1, a, b)) / Math.hypot(1, b);
  if (!(Math.abs(cosine) <= 1))
    throw new AimError(
      "No way of aiming shows the mark there: check the camera’s height and the reading.",
    );
  const downRad = Math.acos(cosine) - Math.atan2(1, b);
  const beside = Math.atan2(a, Math.cos(downRad) + b * Math.sin(downRad));
  return { headingRad: wrapAngle(Math.atan2(y, x) - beside), downRad };
}
