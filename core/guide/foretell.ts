import { chiSquareUpperTail } from "@/core/math/distributions";
import { invertSpd } from "@/core/math/linear";
import { degToRad } from "@/core/units";
import type { GlassSeat } from "@/core/vehicle";

/**
 * What a camera is going to learn of itself, before it looks: how its repair left it, and what a
 * board that stands beside its place makes its unit believe. Turns about vehicle axes, rad: yaw to
 * the left, pitch nose down, roll to the right, each positive.
 */
export const AIM_AXES = ["yaw", "pitch", "roll"] as const;
export type AimAxis = (typeof AIM_AXES)[number];

type Three = [number, number, number];
export type ForetoldAim = { mean: Three; covariance: [Three, Three, Three] };

/** How a windshield sits after a careful repair, of which nothing was measured, standard deviations. */
const GLASS: Three = [degToRad(0.15), degToRad(0.15), degToRad(0.1)];
/** How a camera sits against its glass: bracket, clips and the camera's own make. */
const ON_ITS_GLASS: Three = [degToRad(0.32), degToRad(0.26), degToRad(0.17)];
/** What a unit adds by itself from one look to the next. */
const A_LOOK = degToRad(0.03);
/** A board whose level nobody read hangs as straight as a stand on castors stands. */
export const UNREAD_ROLL = degToRad(0.2);

/** What a look at one board makes a unit believe beside the truth: mean and sigma by axis, rad. */
export type BoardBias = { mean: Three; sigma: Three };

/**
 * Of a board that stands beside its place: seen farther left, the unit takes its camera for turned
 * right; seen higher, for turned down; a board that is turned looks like a camera turned the other way.
 *
 * @param rangeMm from camera to board
 * @param left how far it stands to the left of its place as the camera sees it, mm
 * @param up how far above its place, mm
 * @param roll how far it is turned in its plane, rad, as its level is read (`BoardState.rollRad`)
 */
export function boardBias(
  rangeMm: number,
  left: { mm: number; sigma: number },
  up: { mm: number; sigma: number },
  roll: { rad: number; sigma: number },
): BoardBias {
  return {
    mean: [-left.mm / rangeMm, up.mm / rangeMm, -roll.rad],
    sigma: [left.sigma / rangeMm, up.sigma / rangeMm, roll.sigma],
  };
}

type Known = { value: number; sigma: number };
/**
 * How the body stands off its book: nose up and left side up, rad, and how much higher the camera
 * sits, mm, each positive.
 */
export type BodyStance = { pitchRad: Known; rollRad: Known; riseMm: Known };

/** Of a body whose heights nobody measured: as cars in order stand. */
export const UNREAD_STANCE: BodyStance = {
  pitchRad: { value: 0, sigma: degToRad(0.06) },
  rollRad: { value: 0, sigma: degToRad(0.05) },
  riseMm: { value: 0, sigma: 4 },
};

/**
 * Of a body that stands off its book: its camera goes with it, and the unit takes that for the camera's
 * own turn. That the camera's rise goes with the pitch is neglected: a tenth of it.
 *
 * @param rangeMm from camera to board
 * @param headingRad where the camera looks, from straight ahead to the left
 */
export function stanceBias(
  rangeMm: number,
  headingRad: number,
  { pitchRad: p, rollRad: r, riseMm }: BodyStance,
): BoardBias {
  const [c, s] = [Math.cos(headingRad), Math.sin(headingRad)];
  return {
    mean: [0, -(c * p.value + s * r.value) - riseMm.value / rangeMm, c * r.value - s * p.value],
    sigma: [
      0,
      Math.hypot(c * p.sigma, s * r.sigma, riseMm.sigma / rangeMm),
      Math.hypot(c * r.sigma, s * p.sigma),
    ],
  };
}

/** One linear observation of the aim, folded in: the scalar step of a Kalman filter. */
function observe(
  { mean, covariance: p }: ForetoldAim,
  h: Three,
  z: number,
  sigma: number,
): ForetoldAim {
  const ph = p.map((row) => row[0] * h[0] + row[1] * h[1] + row[2] * h[2]) as Three;
  const s = ph[0] * h[0] + ph[1] * h[1] + ph[2] * h[2] + sigma * sigma;
  const residual = z - (mean[0] * h[0] + mean[1] * h[1] + mean[2] * h[2]);
  return {
    mean: mean.map((m, i) => m + (ph[i]! / s) * residual) as Three,
    covariance: p.map((row, i) => row.map((v, j) => v - (ph[i]! * ph[j]!) / s)) as [
      Three,
      Three,
      Three,
    ],
  };
}

/**
 * The aim a unit is going to learn.
 *
 * Seating depths show two of the three turns of a glass: its slope b along, which is pitch, and its
 * slope a across, of which -a sin(rake) is yaw and a cos(rake) roll. A turn in its own plane they do
 * not show; that stays as the repair may have left it.
 *
 * @param seat of the glass the camera hangs on; null where nobody measured it, or it hangs elsewhere
 * @param boards that it looks at; a unit takes the mean of what it sees
 * @param body what the stance of its vehicle adds, whatever it looks at
 */
export function foretellAim(
  seat: { seat: GlassSeat; rakeRad: number } | null,
  boards: readonly BoardBias[],
  body?: BoardBias,
): ForetoldAim {
  const [y, p, r] = GLASS.map((s) => s * s) as Three;
  let aim: ForetoldAim = {
    mean: [0, 0, 0],
    covariance: [
      [y, 0, 0],
      [0, p, 0],
      [0, 0, r],
    ],
  };
  if (seat) {
    const { pitchRad, yawRad, rollRad } = seat.seat;
    const [sin, cos] = [Math.sin(seat.rakeRad), Math.cos(seat.rakeRad)];
    aim = observe(aim, [0, 1, 0], pitchRad.value, pitchRad.sigma);
    // Yaw and roll of the seat are one slope: so are their uncertainties.
    const across = rollRad.value * cos - yawRad.value * sin;
    const sigma = rollRad.sigma * cos + yawRad.sigma * sin;
    aim = observe(aim, [-sin, 0, cos], across, sigma);
  }
  const n = Math.max(1, boards.length);
  return {
    mean: aim.mean.map(
      (m, i) => m + (body?.mean[i] ?? 0) + boards.reduce((s, b) => s + b.mean[i]!, 0) / n,
    ) as Three,
    covariance: aim.covariance.map((row, i) =>
      row.map((v, j) =>
        i === j
          ? v +
            ON_ITS_GLASS[i]! ** 2 +
            A_LOOK ** 2 +
            (body?.sigma[i] ?? 0) ** 2 +
            boards.reduce((s, b) => s + b.sigma[i]! ** 2, 0) / n
          : v,
      ),
    ) as ForetoldAim["covariance"],
  };
}

/** How a learned aim lies against what was foretold of it. */
export type AimFit = {
  /** Learned less foretold, in standard uncertainties, by axis. */
  w: Three;
  /** How many cars in a hundred, all else in order, lie at least so far off: chi-square of three. */
  p: number;
};

/** @param learned rad, by axis */
export function fitOfAim(learned: Three, { mean, covariance }: ForetoldAim): AimFit {
  const d = learned.map((v, i) => v - mean[i]!) as Three;
  const inverse = invertSpd(covariance)!;
  const square = d.reduce(
    (s, v, i) => s + v * d.reduce((t, u, j) => t + inverse[i]![j]! * u, 0),
    0,
  );
  return {
    w: d.map((v, i) => v / Math.sqrt(covariance[i]![i]!)) as Three,
    p: chiSquareUpperTail(square, 3),
  };
}
