/**
 * A tow vehicle with a trailer as a single track with two bodies: wheels roll without slip, the
 * trailer's axle and the tow vehicle's rear axle each follow their own heading (the kinematic
 * tractor-trailer of robotics texts, for instance LaValle 2006, 13.1.2.4, with a hitch behind the
 * axle). Slow and on level floor that is what tyres do, to a few per cent of the angle.
 */

/** What of the two counts: mm. `behindMm` is how far the hitch lies behind the rear axle. */
export type Train = { wheelbaseMm: number; behindMm: number; hitchToAxleMm: number };

/** Straighter than this a pull is straight, 1/mm: a circle of ten kilometres. */
const STRAIGHT = 1e-7;

/**
 * The articulation after a pull forward with the wheels held: the trailer's heading minus the tow
 * vehicle's, positive when the trailer points to the left of it.
 *
 * By distance s the angle changes with
 *   dg/ds = -sin g / D - k (1 + (c / D) cos g),     k = tan(steer) / L.
 * With t = tan(g / 2) that is a Riccati equation of constant coefficients,
 *   dt/ds = -(k (D - c) t^2 + 2 t + k (D + c)) / (2 D),
 * solved by its two roots: no step is integrated.
 *
 * @param steerRad the front wheels, to the left positive, held the whole way
 * @param distanceMm forward
 */
export function articulationAfter(
  { wheelbaseMm: l, behindMm: c, hitchToAxleMm: d }: Train,
  articulationRad: number,
  steerRad: number,
  distanceMm: number,
): number {
  const t0 = Math.tan(articulationRad / 2);
  const k = Math.tan(steerRad) / l;
  if (Math.abs(k) < STRAIGHT) return 2 * Math.atan(t0 * Math.exp(-distanceMm / d));
  // dt/ds = -(a t^2 + 2 t + b) / (2 d).
  const [a, b] = [k * (d - c), k * (d + c)];
  const disc = 1 - a * b;
  if (Math.abs(a) < 1e-12) {
    // Hitch as far behind as the trailer is long: the equation is linear.
    const rest = -b / 2;
    return 2 * Math.atan(rest + (t0 - rest) * Math.exp(-distanceMm / d));
  }
  const s = distanceMm / (2 * d);
  const u0 = a * t0 + 1;
  if (disc > 0) {
    // u = a t + 1 obeys du/ds = -(u^2 - disc) / (2 d): u = r (u0 + r tanh) / (r + u0 tanh).
    const r = Math.sqrt(disc);
    const th = Math.tanh(r * s);
    return 2 * Math.atan(((r * (u0 + r * th)) / (r + u0 * th) - 1) / a);
  }
  if (disc === 0) return 2 * Math.atan((u0 / (1 + u0 * s) - 1) / a);
  // Turned more sharply than any angle can hold: the trailer folds in, by the tangent instead.
  const r = Math.sqrt(-disc);
  const tn = Math.tan(r * s);
  return 2 * Math.atan(((r * (u0 - r * tn)) / (r + u0 * tn) - 1) / a);
}

/** How far the tow vehicle itself turns on the way, to the left positive. */
export const turnAfter = (
  { wheelbaseMm }: Pick<Train, "wheelbaseMm">,
  steerRad: number,
  distanceMm: number,
): number => (distanceMm * Math.tan(steerRad)) / wheelbaseMm;
