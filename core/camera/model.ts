/**
 * Cameras as published: pinhole with Brown-Conrady distortion (Brown 1971; k1 k2 p1 p2 k3 in
 * OpenCV's order), and the fisheye of Kannala & Brandt (2006, four terms in odd powers of the
 * angle, as OpenCV's fisheye module has it).
 *
 * Camera axes: x right, y down, z forward. Pixels: u right, v down. Lengths of any unit, as long as
 * it is one.
 */
export type Vec3 = readonly [number, number, number];
export type Pixel = readonly [number, number];

export type Lens =
  | { kind: "pinhole" }
  | { kind: "brown"; k1: number; k2: number; p1: number; p2: number; k3: number }
  | { kind: "fisheye"; k1: number; k2: number; k3: number; k4: number };

export type Camera = { fx: number; fy: number; cx: number; cy: number; lens: Lens };

/** The point lies behind the camera, or so far aside that the lens has no picture of it. */
export class OutOfSightError extends Error {
  override readonly name = "OutOfSightError";
}

/**
 * Derivative of the radial mapping as a polynomial in s = r^2 (or theta^2): where it falls to
 * nothing, the picture folds.
 */
const slopeTerms = (lens: Lens): number[] =>
  lens.kind === "brown"
    ? [1, 3 * lens.k1, 5 * lens.k2, 7 * lens.k3]
    : lens.kind === "fisheye"
      ? [1, 3 * lens.k1, 5 * lens.k2, 7 * lens.k3, 9 * lens.k4]
      : [1];

const folds = new WeakMap<Lens, number>();
/**
 * The farthest that is looked for a fold: a ray 1.9 rad off the axis, or ten focal lengths aside.
 */
const FARTHEST_S = { pinhole: Infinity, brown: 100, fisheye: 1.9 * 1.9 } as const;

/**
 * How far out a lens makes a picture, as normalised radius (angle in radians for the fisheye).
 * Beyond it the polynomial turns back and shows what is farther out nearer in: no lens does that,
 * and two rays would share one pixel.
 */
function foldOf(lens: Lens): number {
  const known = folds.get(lens);
  if (known !== undefined) return known;
  const terms = slopeTerms(lens);
  const slope = (s: number): number => terms.reduceRight((sum, t) => sum * s + t, 0);
  const most = FARTHEST_S[lens.kind];
  let fold = Math.sqrt(most);
  const steps = lens.kind === "pinhole" ? 0 : 4000;
  for (let i = 1; i <= steps; i++) {
    const s = most * (i / steps) ** 2;
    if (slope(s) > 0) continue;
    // Bisection between the last good place and this one.
    let [low, high] = [most * ((i - 1) / steps) ** 2, s];
    for (let k = 0; k < 60; k++) {
      const middle = (low + high) / 2;
      if (slope(middle) > 0) low = middle;
      else high = middle;
    }
    fold = Math.sqrt(low);
    break;
  }
  folds.set(lens, fold);
  return fold;
}

/** A ray as good as square to the axis: no plane before the camera is so large. */
const FARTHEST_TANGENT = 1e9;
const BEYOND = "The point lies so far aside that this lens has no picture of it.";

/** Normalised coordinates (x/z, y/z) to the distorted ones of the lens. */
function distort(lens: Lens, x: number, y: number): [number, number] {
  switch (lens.kind) {
    case "pinhole":
      return [x, y];
    case "brown": {
      const r2 = x * x + y * y;
      const radial = 1 + r2 * (lens.k1 + r2 * (lens.k2 + r2 * lens.k3));
      return [
        x * radial + 2 * lens.p1 * x * y + lens.p2 * (r2 + 2 * x * x),
        y * radial + lens.p1 * (r2 + 2 * y * y) + 2 * lens.p2 * x * y,
      ];
    }
    case "fisheye": {
      const r = Math.hypot(x, y);
      if (r < 1e-12) return [x, y];
      const scale = bent(lens, Math.atan(r)) / r;
      return [x * scale, y * scale];
    }
  }
}

/** theta_d = theta (1 + k1 theta^2 + k2 theta^4 + k3 theta^6 + k4 theta^8). */
function bent(lens: Extract<Lens, { kind: "fisheye" }>, theta: number): number {
  const t2 = theta * theta;
  return theta * (1 + t2 * (lens.k1 + t2 * (lens.k2 + t2 * (lens.k3 + t2 * lens.k4))));
}

/**
 * Projects a point given in camera axes.
 *
 * @returns pixels
 * @throws OutOfSightError behind the camera (a fisheye sees a little past the side, a pinhole does
 *   not), or beyond the fold
 */
export function project(camera: Camera, [x, y, z]: Vec3): [number, number] {
  const { lens } = camera;
  if (lens.kind === "fisheye") {
    // By the angle itself, so that a ray square to the axis has a picture too.
    const side = Math.hypot(x, y);
    const theta = Math.atan2(side, z);
    if (!(side > 0) && !(z > 0))
      throw new OutOfSightError("The point lies in the camera itself, or behind it.");
    if (theta > 1.9) throw new OutOfSightError("The point lies behind the camera.");
    if (theta > foldOf(lens)) throw new OutOfSightError(BEYOND);
    if (side === 0) return [camera.cx, camera.cy];
    const far = bent(lens, theta);
    return [camera.fx * far * (x / side) + camera.cx, camera.fy * far * (y / side) + camera.cy];
  }
  if (!(z > 0) || !(Math.hypot(x, y) / z < FARTHEST_TANGENT))
    throw new OutOfSightError("The point lies behind the camera, or square to its axis.");
  if (lens.kind === "brown" && Math.hypot(x, y) / z > foldOf(lens))
    throw new OutOfSightError(BEYOND);
  const [u, v] = distort(lens, x / z, y / z);
  return [camera.fx * u + camera.cx, camera.fy * v + camera.cy];
}

/**
 * Where Newton's method begins: the radial part alone, inverted by bisection between the axis and
 * the fold, where it only rises. From the distorted place itself Newton can step over the fold and
 * not come back.
 */
function undistortedStart(lens: Lens, xd: number, yd: number): [number, number] {
  const rd = Math.hypot(xd, yd);
  if (lens.kind !== "brown" || rd === 0) return [xd, yd];
  const image = (r: number): number =>
    r * (1 + r * r * (lens.k1 + r * r * (lens.k2 + r * r * lens.k3)));
  let [low, high] = [0, foldOf(lens)];
  // Decentring moves a point a little farther out than the radial part alone can.
  if (image(high) < rd) return [(xd * high) / rd, (yd * high) / rd];
  for (let k = 0; k < 50; k++) {
    const middle = (low + high) / 2;
    if (image(middle) < rd) low = middle;
    else high = middle;
  }
  return [(xd * low) / rd, (yd * low) / rd];
}

/**
 * The direction a pixel looks in: a unit vector in camera axes. Inverts the lens by Newton's method
 * to 1e-13; a pixel far outside what the lens can make has no direction.
 *
 * @throws OutOfSightError when Newton finds none
 */
export function unproject(camera: Camera, [u, v]: Pixel): [number, number, number] {
  const [xd, yd] = [(u - camera.cx) / camera.fx, (v - camera.cy) / camera.fy];
  const { lens } = camera;
  if (lens.kind === "fisheye") {
    const rd = Math.hypot(xd, yd);
    if (rd < 1e-14) return [0, 0, 1];
    let theta = rd;
    for (let i = 0; i < 40; i++) {
      const t2 = theta * theta;
      const slope =
        1 + t2 * (3 * lens.k1 + t2 * (5 * lens.k2 + t2 * (7 * lens.k3 + t2 * 9 * lens.k4)));
      const step = (bent(lens, theta) - rd) / slope;
      theta -= step;
      if (Math.abs(step) < 1e-14) break;
    }
    if (!(Math.abs(bent(lens, theta) - rd) < 1e-9) || theta < 0 || theta > foldOf(lens))
      throw new OutOfSightError("No ray of this lens ends at that pixel.");
    const s = Math.sin(theta) / rd;
    return [xd * s, yd * s, Math.cos(theta)];
  }
  let [x, y] = undistortedStart(lens, xd, yd);
  for (let i = 0; i < 60; i++) {
    const [px, py] = distort(lens, x, y);
    const [ex, ey] = [px - xd, py - yd];
    if (Math.hypot(ex, ey) < 1e-14) break;
    // Jacobian of the distortion by central differences: smooth polynomials, exact to about 1e-10
    // here.
    const h = 1e-6;
    const [ax, ay] = distort(lens, x + h, y);
    const [bx, by] = distort(lens, x - h, y);
    const [cx, cy] = distort(lens, x, y + h);
    const [dx, dy] = distort(lens, x, y - h);
    const [j11, j21, j12, j22] = [
      (ax - bx) / (2 * h),
      (ay - by) / (2 * h),
      (cx - dx) / (2 * h),
      (cy - dy) / (2 * h),
    ];
    const det = j11 * j22 - j12 * j21;
    x -= (j22 * ex - j12 * ey) / det;
    y -= (j11 * ey - j21 * ex) / det;
  }
  const [px, py] = distort(lens, x, y);
  if (!(Math.hypot(px - xd, py - yd) < 1e-9) || Math.hypot(x, y) > foldOf(lens))
    throw new OutOfSightError("No ray of this lens ends at that pixel.");
  const n = Math.hypot(x, y, 1);
  return [x / n, y / n, 1 / n];
}
