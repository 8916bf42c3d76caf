import { choleskyInPlace, choleskySolve } from "@/core/math/linear";
import { OutOfSightError, project, unproject, type Camera, type Pixel, type Vec3 } from "./model";

/** Where a thing stands before a camera: x_camera = R x_own + t. R is row-major, orthonormal. */
export type Pose = { r: readonly number[]; t: Vec3 };

/** Fewer than four points, or all in one line: a plane's pose is not fixed. */
export class LoosePoseError extends Error {
  override readonly name = "LoosePoseError";
}

/** Rotation matrix of a rotation vector (axis times angle, rad), by Rodrigues' formula. */
export function rotation([x, y, z]: Vec3): number[] {
  const angle = Math.hypot(x, y, z);
  // sin(a)/a and (1 - cos(a))/a^2, with their series where the quotient would lose its digits.
  const a = angle < 1e-4 ? 1 - (angle * angle) / 6 : Math.sin(angle) / angle;
  const b = angle < 1e-4 ? 0.5 - (angle * angle) / 24 : (1 - Math.cos(angle)) / (angle * angle);
  return [
    1 - b * (y * y + z * z),
    b * x * y - a * z,
    b * x * z + a * y,
    b * x * y + a * z,
    1 - b * (x * x + z * z),
    b * y * z - a * x,
    b * x * z - a * y,
    b * y * z + a * x,
    1 - b * (x * x + y * y),
  ];
}

export const multiply = (a: readonly number[], b: readonly number[]): number[] =>
  [0, 1, 2].flatMap((i) =>
    [0, 1, 2].map((j) => a[3 * i]! * b[j]! + a[3 * i + 1]! * b[3 + j]! + a[3 * i + 2]! * b[6 + j]!),
  );

export const apply = ({ r, t }: Pose, [x, y, z]: Vec3): [number, number, number] => [
  r[0]! * x + r[1]! * y + r[2]! * z + t[0],
  r[3]! * x + r[4]! * y + r[5]! * z + t[1],
  r[6]! * x + r[7]! * y + r[8]! * z + t[2],
];

/**
 * Pose of a plane (its own z = 0) from points seen: a homography from normalised directions (direct
 * linear transform, Hartley's normalisation 1997) gives the start, Gauss-Newton on the pixels the
 * rest.
 *
 * @param points places on the plane, own axes
 * @param pixels where the camera shows them
 * @throws LoosePoseError for fewer than four points before the lens, or points in one line
 */
export function planarPose(
  camera: Camera,
  points: readonly Pixel[],
  pixels: readonly Pixel[],
): Pose {
  if (points.length < 4 || points.length !== pixels.length)
    throw new LoosePoseError("Four seen points at least are needed.");
  // A pixel that no ray of the lens ends at was not seen; one square to the axis has no place on
  // the plane before it.
  const seen = points.flatMap((point, i) => {
    const ray = rayOf(camera, pixels[i]!);
    return ray ? [{ point, pixel: pixels[i]!, ray }] : [];
  });
  const ahead = seen.filter(({ ray }) => ray[2] > 0.02);
  if (ahead.length < 4) throw new LoosePoseError("Four points at least must lie before the lens.");
  const start = fromHomography(
    ahead.map((s) => s.point),
    ahead.map(({ ray: [x, y, z] }) => [x / z, y / z] as const),
  );
  const places = seen.map(({ point: [x, y] }) => [x, y, 0] as const);
  const pixelsSeen = seen.map((s) => s.pixel);
  try {
    return refinePose(camera, places, pixelsSeen, start);
  } catch (error) {
    // At the very edge of the lens even a hair's step aside is out of sight.
    if (error instanceof OutOfSightError)
      throw new LoosePoseError("The points do not fix a pose in sight of the lens.");
    throw error;
  }
}

function rayOf(camera: Camera, pixel: Pixel): [number, number, number] | null {
  try {
    return unproject(camera, pixel);
  } catch (error) {
    if (error instanceof OutOfSightError) return null;
    throw error;
  }
}

/** Whether every point has a picture from a pose. */
function allInSight(camera: Camera, points: readonly Vec3[], pose: Pose): boolean {
  try {
    for (const p of points) project(camera, apply(pose, p));
    return true;
  } catch (error) {
    if (error instanceof OutOfSightError) return false;
    throw error;
  }
}

/** Least-squares homography with h33 = 1 between normalised sets, as a pose. */
function fromHomography(points: readonly Pixel[], rays: readonly Pixel[]): Pose {
  const centre = (set: readonly Pixel[]): { x: number; y: number; s: number } => {
    const [x, y] = [0, 1].map((k) => set.reduce((a, p) => a + p[k]!, 0) / set.length) as [
      number,
      number,
    ];
    const far = set.reduce((a, p) => a + Math.hypot(p[0] - x, p[1] - y), 0) / set.length;
    return { x, y, s: Math.SQRT2 / far };
  };
  const [a, b] = [centre(points), centre(rays)];
  const n = new Float64Array(64);
  const rhs = new Float64Array(8);
  points.forEach((p, i) => {
    const [X, Y] = [(p[0] - a.x) * a.s, (p[1] - a.y) * a.s];
    const [x, y] = [(rays[i]![0] - b.x) * b.s, (rays[i]![1] - b.y) * b.s];
    for (const [row, value] of [
      [[X, Y, 1, 0, 0, 0, -x * X, -x * Y], x],
      [[0, 0, 0, X, Y, 1, -y * X, -y * Y], y],
    ] as const)
      for (let j = 0; j < 8; j++) {
        rhs[j]! += row[j]! * value;
        for (let k = 0; k <= j; k++) n[8 * j + k]! += row[j]! * row[k]!;
      }
  });
  if (choleskyInPlace(n, 8, 1e-10) >= 0) throw new LoosePoseError("The points lie in one line.");
  choleskySolve(n, 8, rhs);
  const h = [...rhs, 1];
  // Undo both normalisations: H = B^-1 h A.
  const left = [1 / b.s, 0, b.x, 0, 1 / b.s, b.y, 0, 0, 1];
  const right = [a.s, 0, -a.s * a.x, 0, a.s, -a.s * a.y, 0, 0, 1];
  const m = multiply(multiply(left, h), right);
  const column = (k: number): [number, number, number] => [m[k]!, m[3 + k]!, m[6 + k]!];
  const [c1, c2, c3] = [column(0), column(1), column(2)];
  const scale = (Math.hypot(...c1) + Math.hypot(...c2)) / 2;
  // The plane lies before the camera.
  const sign = c3[2] < 0 ? -1 : 1;
  const unit = (v: readonly number[]): [number, number, number] => {
    const l = Math.hypot(...v);
    return [v[0]! / l, v[1]! / l, v[2]! / l];
  };
  const x = unit(c1.map((v) => sign * v));
  const y0 = c2.map((v) => sign * v);
  const along = x[0] * y0[0]! + x[1] * y0[1]! + x[2] * y0[2]!;
  const y = unit(y0.map((v, i) => v - along * x[i]!));
  const z = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]];
  return {
    r: [x[0], y[0], z[0]!, x[1], y[1], z[1]!, x[2], y[2], z[2]!],
    t: c3.map((v) => (sign * v) / scale) as [number, number, number],
  };
}

/**
 * Least-squares pose on the pixels, from a start; Gauss-Newton with a turn on the left: R <- exp(w)
 * R.
 */
export function refinePose(
  camera: Camera,
  points: readonly Vec3[],
  pixels: readonly Pixel[],
  start: Pose,
): Pose {
  let pose = start;
  if (!allInSight(camera, points, pose))
    throw new LoosePoseError("From the start not every point is in sight.");
  const size = Math.max(1e-9, Math.hypot(...start.t));
  for (let round = 0; round < 25; round++) {
    const n = new Float64Array(36);
    const g = new Float64Array(6);
    points.forEach((p, i) => {
      const x = apply(pose, p);
      const own = [x[0] - pose.t[0], x[1] - pose.t[1], x[2] - pose.t[2]] as const;
      // d(pixel)/d(x) by central differences, steps scaled to the distance; dx = w x (R p) + dt
      // carries it to the pose.
      const h = 1e-6 * size;
      const d = [0, 1, 2].map((k) => {
        const [a, b] = [[...x], [...x]] as [number[], number[]];
        a[k]! += h;
        b[k]! -= h;
        const [plus, minus] = [
          project(camera, a as unknown as Vec3),
          project(camera, b as unknown as Vec3),
        ];
        return [(plus[0] - minus[0]) / (2 * h), (plus[1] - minus[1]) / (2 * h)] as const;
      });
      const along = (dx: number, dy: number, dz: number) =>
        [
          d[0]![0] * dx + d[1]![0] * dy + d[2]![0] * dz,
          d[0]![1] * dx + d[1]![1] * dy + d[2]![1] * dz,
        ] as const;
      const row = [
        along(0, -own[2], own[1]),
        along(own[2], 0, -own[0]),
        along(-own[1], own[0], 0),
        d[0]!,
        d[1]!,
        d[2]!,
      ];
      const [u, v] = project(camera, x);
      const [du, dv] = [pixels[i]![0] - u, pixels[i]![1] - v];
      for (let j = 0; j < 6; j++) {
        g[j]! += row[j]![0] * du + row[j]![1] * dv;
        for (let k = 0; k <= j; k++)
          n[6 * j + k]! += row[j]![0] * row[k]![0] + row[j]![1] * row[k]![1];
      }
    });
    const scale = [0, 1, 2, 3, 4, 5].map((j) => 1 / Math.sqrt(n[7 * j]!));
    for (let j = 0; j < 6; j++) for (let k = 0; k <= j; k++) n[6 * j + k]! *= scale[j]! * scale[k]!;
    for (let j = 0; j < 6; j++) g[j]! *= scale[j]!;
    if (choleskyInPlace(n, 6, 1e-13) >= 0)
      throw new LoosePoseError("The points do not fix the pose.");
    choleskySolve(n, 6, g);
    const step = [...g].map((v, j) => v * scale[j]!);
    const moved = (f: number): Pose => ({
      r: multiply(rotation([f * step[0]!, f * step[1]!, f * step[2]!]), pose.r),
      t: [pose.t[0] + f * step[3]!, pose.t[1] + f * step[4]!, pose.t[2] + f * step[5]!],
    });
    // A step that puts a point behind the lens is too long.
    let fraction = 1;
    while (fraction > 1e-4 && !allInSight(camera, points, moved(fraction))) fraction /= 2;
    if (fraction <= 1e-4)
      throw new LoosePoseError("The points do not fix a pose in sight of the lens.");
    pose = moved(fraction);
    if (
      Math.hypot(step[0]!, step[1]!, step[2]!) < 1e-12 &&
      Math.hypot(step[3]!, step[4]!, step[5]!) < 1e-11 * size
    )
      break;
  }
  return pose;
}
