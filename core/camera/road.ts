import { boardInVehicle } from "./board";
import type { BoardError, Setting } from "./setting";

/**
 * How the computer believes its camera aimed, against how it is, radians: yaw to the left, pitch
 * nose down, roll right side down.
 */
export type Turn = { yaw: number; pitch: number; roll: number };

/**
 * What the computer would learn from a board that does not stand where it believes: it turns its
 * idea of the camera until the directions agree (least squares over the board's points).
 *
 * A direction in the camera's own frame ahead, left, up is carried into the vehicle's by roll, then
 * pitch, then yaw. At bearing a = left / ahead and elevation e = up / ahead, a further small turn
 * moves it by
 *   da = yaw (1 + a^2) - pitch a e - roll e,    de = yaw a e - pitch (1 + e^2) + roll a,
 * which are the rows of a Gauss-Newton step on (believed minus turned). A board left of its place
 * is taken for a camera aimed too far right: yaw is minus the bearing of the error.
 */
export const learnedTurn = (setting: Setting, error: BoardError): Turn => learner(setting)(error);

/** {@link learnedTurn} for one setting, asked many times: what is believed is worked out once. */
export function learner(setting: Setting): (error: BoardError) => Turn {
  const right: BoardError = {
    alongMm: 0,
    acrossMm: 0,
    heightMm: 0,
    twistRad: 0,
    pitchRad: 0,
    rollRad: 0,
  };
  const points = boardInVehicle(setting, right);
  const count = points.length / 3;
  /** Bearing and elevation of each point as believed. */
  const believed = Float64Array.from(
    { length: 2 * count },
    (_, i) => points[3 * (i >> 1) + 1 + (i & 1)]! / points[3 * (i >> 1)]!,
  );
  const seen = new Float64Array(points.length);
  return (error) => turnOf(believed, boardInVehicle(setting, error, seen), count);
}

/** Gauss-Newton on three angles. */
function turnOf(believed: Float64Array, seen: Float64Array, count: number): Turn {
  let [yaw, pitch, roll] = [0, 0, 0];
  for (let round = 0; round < 3; round++) {
    const [cy, sy, cp, sp, cr, sr] = [
      Math.cos(yaw),
      Math.sin(yaw),
      Math.cos(pitch),
      Math.sin(pitch),
      Math.cos(roll),
      Math.sin(roll),
    ];
    // Normal equations of three unknowns, written out: no allocation inside the Monte Carlo.
    let [n00, n01, n02, n11, n12, n22, g0, g1, g2] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
    for (let i = 0; i < count; i++) {
      // The seen point carried into the vehicle by the present idea of the camera. Plain constants:
      // this is the inner loop.
      const x = seen[3 * i]!;
      const y = seen[3 * i + 1]!;
      const z = seen[3 * i + 2]!;
      const y1 = cr * y - sr * z;
      const z1 = sr * y + cr * z;
      const x2 = cp * x + sp * z1;
      const x3 = cy * x2 - sy * y1;
      const a = (sy * x2 + cy * y1) / x3;
      const e = (cp * z1 - sp * x) / x3;
      const ra = believed[2 * i]! - a;
      const re = believed[2 * i + 1]! - e;
      const ay = 1 + a * a;
      const ap = -a * e;
      const ar = -e;
      const ey = a * e;
      const ep = -(1 + e * e);
      const er = a;
      n00 += ay * ay + ey * ey;
      n01 += ay * ap + ey * ep;
      n02 += ay * ar + ey * er;
      n11 += ap * ap + ep * ep;
      n12 += ap * ar + ep * er;
      n22 += ar * ar + er * er;
      g0 += ay * ra + ey * re;
      g1 += ap * ra + ep * re;
      g2 += ar * ra + er * re;
    }
    // Cramer's rule on the symmetric 3x3; a board with extent never makes it singular.
    const [c00, c01, c02] = [n11 * n22 - n12 * n12, n02 * n12 - n01 * n22, n01 * n12 - n02 * n11];
    const det = n00 * c00 + n01 * c01 + n02 * c02;
    const [c11, c12, c22] = [n00 * n22 - n02 * n02, n01 * n02 - n00 * n12, n00 * n11 - n01 * n01];
    const dYaw = (c00 * g0 + c01 * g1 + c02 * g2) / det;
    const dPitch = (c01 * g0 + c11 * g1 + c12 * g2) / det;
    const dRoll = (c02 * g0 + c12 * g1 + c22 * g2) / det;
    [yaw, pitch, roll] = [yaw + dYaw, pitch + dPitch, roll + dRoll];
    // Convergence is quadratic on so small a residual: what a further round would change is the
    // square of this.
    if (Math.abs(dYaw) + Math.abs(dPitch) + Math.abs(dRoll) < 1e-6) break;
  }
  return { yaw, pitch, roll };
}

/**
 * How far to the side a lane line is believed of where it is, at a distance on the flat road, mm;
 * left positive. What is straight ahead of a camera that believes itself aimed `yaw` to the left is
 * taken to lie there: tan(yaw) times the distance.
 */
export const laneOffsetMm = (turn: Turn, distanceMm: number): number =>
  Math.tan(turn.yaw) * distanceMm;

/**
 * How much farther a point of the road is believed than it is, mm. From height h a point at
 * distance D lies atan(h / D) below the horizon; a camera that believes itself `pitch` further down
 * takes it for one atan(h / D) + pitch below. Infinite where that reaches the horizon.
 */
export function rangeErrorMm(turn: Turn, cameraHeightMm: number, distanceMm: number): number {
  const depression = Math.atan2(cameraHeightMm, distanceMm) + turn.pitch;
  return depression <= 1e-9 ? Infinity : cameraHeightMm / Math.tan(depression) - distanceMm;
}
