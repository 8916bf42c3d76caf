import { chiSquareUpperTail, normalCdf } from "@/core/math/distributions";
import { choleskyInPlace } from "@/core/math/linear";
import {
  learnedPose,
  marksOf,
  seesPlace,
  stepped,
  type MatForm,
  type MatPose,
  type Sighting,
} from "./learn";
import { poseOf, turnedBy, type Mount } from "./mount";
import { CORNERS, SIDES, type CornerId, type SideId } from "./names";
import {
  bendOf,
  camerasAt,
  NoFloorError,
  rightRig,
  seamPoint,
  shownAt,
  stepsOf,
  type Outline,
  type Rig,
  type Steps,
} from "./view";

/** A vehicle's surround view: its body in plan and where its four cameras are mounted. */
export type Surround = { car: Outline; cameras: Record<SideId, Mount> };

/** A mat as the sheet wants it to lie, and how surely it lay there when the unit looked. */
export type KnownMat = {
  id: string;
  wanted: MatPose;
  form: MatForm;
  /** Standard uncertainties: along, across, heading. */
  sigma: { alongMm: number; acrossMm: number; headingRad: number };
};

/** What can have made a step, each with one magnitude. */
export type Cause =
  | { kind: "none" }
  | { kind: "camera"; side: SideId; part: "left" | "down" | "roll" }
  | { kind: "lens"; side: SideId }
  | { kind: "mat"; matId: string; part: "along" | "across" | "heading" };

/** What somebody saw in the stitched picture. */
export type SeamReading = {
  /** The step at a corner as far as it was read, mm; see `Step`. */
  corner: CornerId;
  alongMm?: number;
  acrossMm?: number;
};
export type Seen = {
  steps: readonly SeamReading[];
  /** Cameras in whose part straight lines are bent, and those in whose part they were found straight. */
  bent: readonly SideId[];
  straight: readonly SideId[];
};

/** How far cameras and lenses are thought to go wrong, as standard deviations of their magnitude. */
const SPREAD = { turnRad: 0.6 * (Math.PI / 180), lensShare: 0.02 } as const;

/**
 * How likely each kind is before anything is seen; shares within a kind are even. A unit that has
 * just learned from mats that were proved is wrong more often by a camera that was touched since, or
 * sat loose, than by the mats.
 */
const BEFORE = { none: 0.1, camera: 0.5, lens: 0.05, mat: 0.35 } as const;

/** A line counts as bent from about here on, and how surely an eye tells, mm. */
const BEND = { fromMm: 6, eyeMm: 2 } as const;

/** Magnitudes tried of a cause, in its standard deviations. */
const GRID = Array.from({ length: 49 }, (_, i) => -4 + i / 6);

/** One cause at one magnitude, and the picture it makes. */
type Picture = { at: number; steps: Steps; bends: Partial<Record<SideId, number>> };
type Played = { cause: Cause; sigma: number; before: number; pictures: Picture[] };

/** Every cause of a vehicle and its mats, played through: worked out once, asked often. */
export type Causes = {
  played: Played[];
  /** Covariance of all steps as read, along and across at each of the corners in turn, mm^2. */
  noise: number[][];
};

const NO_BENDS = {};

/**
 * Plays every cause through at many magnitudes, exactly: cameras are turned, lenses exchanged, mats
 * shoved before the unit learns.
 *
 * @param noiseMm standard uncertainty of a step read off the picture
 */
export function playCauses(
  { car, cameras }: Surround,
  mats: readonly KnownMat[],
  noiseMm = 3,
): Causes {
  const poses = Object.fromEntries(SIDES.map((s) => [s, poseOf(cameras[s])])) as Record<
    SideId,
    ReturnType<typeof poseOf>
  >;
  const good = rightRig(poses);
  const all: { cause: Cause; sigma: number; rig: (at: number) => Rig }[] = [
    { cause: { kind: "none" }, sigma: 0, rig: () => good },
    ...SIDES.flatMap((side) =>
      (["left", "down", "roll"] as const).map((part) => ({
        cause: { kind: "camera" as const, side, part },
        sigma: SPREAD.turnRad,
        rig: (at: number): Rig => ({
          ...good,
          [side]: {
            truly: turnedBy(poses[side], { [`${part}Rad`]: at }),
            believed: poses[side],
          },
        }),
      })),
    ),
    ...SIDES.map((side) => ({
      cause: { kind: "lens" as const, side },
      sigma: SPREAD.lensShare,
      rig: (at: number): Rig => ({ ...good, [side]: { ...good[side], lensShare: at } }),
    })),
    ...mats.flatMap((mat) =>
      (["along", "across", "heading"] as const).map((part) => ({
        cause: { kind: "mat" as const, matId: mat.id, part },
        sigma: part === "heading" ? mat.sigma.headingRad : mat.sigma[`${part}Mm`],
        rig: (at: number): Rig =>
          learnedRig({ car, cameras }, mats, {
            [mat.id]: {
              xMm: part === "along" ? at : 0,
              yMm: part === "across" ? at : 0,
              headingRad: part === "heading" ? at : 0,
            },
          }),
      })),
    ),
  ];
  const kinds = all.map((c) => c.cause.kind);
  const share = (kind: Cause["kind"]): number =>
    BEFORE[kind] / kinds.filter((k) => k === kind).length;
  const whole = [...new Set(kinds)].reduce((sum, k) => sum + BEFORE[k], 0);
  return {
    noise: noiseOf({ car, cameras }, mats, noiseMm),
    played: all.map(({ cause, sigma, rig }) => ({
      cause,
      sigma,
      before: share(cause.kind) / whole,
      pictures: (sigma === 0 ? [0] : GRID).flatMap((z) => {
        const picture = pictureOf(rig(z * sigma), car, cause);
        return picture ? [{ at: z * sigma, ...picture }] : [];
      }),
    })),
  };
}

/**
 * What steps scatter by when nothing is wrong: the eye at the picture, and what the noise of its own
 * marks leaves the unit, which both seams of a camera share.
 */
function noiseOf(
  { car, cameras }: Surround,
  mats: readonly KnownMat[],
  noiseMm: number,
): number[][] {
  const count = 2 * CORNERS.length;
  const noise = Array.from({ length: count }, (_, i) =>
    Array.from({ length: count }, (_, j) => (i === j ? noiseMm ** 2 : 0)),
  );
  const marks = mats.flatMap((m) => marksOf(m.wanted, m.form));
  for (const side of SIDES) {
    const pose = poseOf(cameras[side]);
    const seen = marks.filter((m) => seesPlace(car, side, pose, m));
    if (seen.length === 0) continue;
    const { covariance } = learnedPose(
      pose,
      pose,
      seen.map((m) => ({ truly: m, wanted: m })),
    );
    // How this camera's part moves at each corner with each part of its pose, by central differences.
    const rows = CORNERS.flatMap((corner) => {
      const { end, side: beside } = camerasAt(corner);
      const sign = side === beside ? 1 : side === end ? -1 : 0;
      const at = seamPoint(car, corner);
      return [0, 1].map((axis) =>
        [0, 1, 2, 3, 4, 5].map((part) => {
          if (sign === 0) return 0;
          const h = part < 3 ? 1e-5 : 0.01;
          const [up, down] = [h, -h].map((by) => {
            const d = [0, 0, 0, 0, 0, 0];
            d[part] = by;
            return shownAt({ truly: pose, believed: stepped(pose, d) }, at)[axis]!;
          });
          return (sign * (up! - down!)) / (2 * h);
        }),
      );
    });
    for (let i = 0; i < count; i++)
      for (let j = 0; j < count; j++)
        for (let a = 0; a < 6; a++)
          for (let b = 0; b < 6; b++)
            noise[i]![j]! += rows[i]![a]! * covariance[6 * a + b]! * rows[j]![b]!;
  }
  return noise;
}

/** Only a lens bends lines. Nothing where a camera would look over the horizon. */
function pictureOf(rig: Rig, car: Outline, cause: Cause): Omit<Picture, "at"> | null {
  try {
    return {
      steps: stepsOf(rig, car),
      bends: cause.kind === "lens" ? { [cause.side]: bendOf(rig, car, cause.side) } : NO_BENDS,
    };
  } catch (e) {
    if (e instanceof NoFloorError) return null;
    throw e;
  }
}

/**
 * The rig as the unit learns it from mats that lie off their places by so much; the cameras
 * themselves sit as the maker mounts them. A camera that sees no mark stays as it was.
 */
export function learnedRig(
  { car, cameras }: Surround,
  mats: readonly Pick<KnownMat, "id" | "wanted" | "form">[],
  off: Readonly<Record<string, MatPose>>,
): Rig {
  const sightings = mats.flatMap(({ id, wanted, form }): Sighting[] => {
    const by = off[id] ?? { xMm: 0, yMm: 0, headingRad: 0 };
    const lies = {
      xMm: wanted.xMm + by.xMm,
      yMm: wanted.yMm + by.yMm,
      headingRad: wanted.headingRad + by.headingRad,
    };
    const where = marksOf(lies, form);
    return marksOf(wanted, form).map((w, i) => ({ truly: where[i]!, wanted: w }));
  });
  return Object.fromEntries(
    SIDES.map((side) => {
      const truly = poseOf(cameras[side]);
      const marks = sightings.filter((m) => seesPlace(car, side, truly, m.wanted));
      const believed = marks.length === 0 ? truly : learnedPose(truly, truly, marks).pose;
      return [side, { truly, believed }];
    }),
  ) as Rig;
}

/** A cause with how likely it is now, and how large it then is. */
export type Weighed = { cause: Cause; chance: number; at: number; sigma: number };

/** Causes that the readings do not tell apart; the first is the likeliest. */
export type CauseGroup = { chance: number; causes: Weighed[] };

/** What the seams say of their cause. */
export type Found = {
  /** The likeliest first; their chances add up to one. */
  groups: CauseGroup[];
  /** False where none of the causes by itself makes such steps: two went wrong, or one was misread. */
  fits: boolean;
};

/** Steps so far from what a cause makes come about once in so many times by noise alone. */
const ONCE_IN = 1000;

/**
 * How likely each cause is after what was seen (Bayes): the chance of the readings under a cause is
 * integrated over its magnitude, normal about nothing, by the trapezoidal rule on the magnitudes
 * played. Causes whose steps differ by less than the noise stand in one group.
 *
 * @returns the groups, and whether any of them explains the steps at all: the least square of what is
 *   left, against chi-square with a degree of freedom less than there are steps
 */
export function weighCauses(causes: Causes, seen: Seen): Found {
  const look = lookOf(causes, seen);
  const weighed = causes.played.map((p) => weigh(p, look));
  const top = Math.max(...weighed.map((w) => w.log));
  const total = weighed.reduce((sum, w) => sum + Math.exp(w.log - top), 0);
  const ranked = weighed
    .map((w) => ({ ...w, chance: Math.exp(w.log - top) / total }))
    .toSorted((a, b) => b.chance - a.chance);
  const groups: (typeof ranked)[] = [];
  for (const one of ranked) {
    const group = groups.find((g) => alike(g[0]!, one, look));
    if (group) group.push(one);
    else groups.push([one]);
  }
  const left = Math.min(...weighed.map((w) => w.left));
  return {
    fits: look.rows.length < 2 || chiSquareUpperTail(left, look.rows.length - 1) > 1 / ONCE_IN,
    groups: groups
      .map((g) => ({
        chance: g.reduce((sum, w) => sum + w.chance, 0),
        causes: g.map(({ cause, chance, at, sigma }) => ({ cause, chance, at, sigma })),
      }))
      .toSorted((a, b) => b.chance - a.chance),
  };
}

/** What was read, in the order of the noise's rows, and the factor of the noise of just these. */
type Look = {
  rows: number[];
  values: number[];
  factor: Float64Array;
  bent: readonly SideId[];
  straight: readonly SideId[];
};

const stepList = (s: Steps): number[] => CORNERS.flatMap((c) => [s[c].alongMm, s[c].acrossMm]);

function lookOf({ noise }: Causes, seen: Seen): Look {
  const read = CORNERS.flatMap((corner, i) => {
    const s = seen.steps.find((x) => x.corner === corner);
    return [s?.alongMm, s?.acrossMm].flatMap((value, k) =>
      value === undefined ? [] : [{ row: 2 * i + k, value }],
    );
  });
  const rows = read.map((r) => r.row);
  const n = rows.length;
  const factor = new Float64Array(n * n);
  rows.forEach((r, i) => rows.forEach((q, j) => (factor[i * n + j] = noise[r]![q]!)));
  choleskyInPlace(factor, n, 0);
  return {
    rows,
    values: read.map((r) => r.value),
    factor,
    bent: seen.bent,
    straight: seen.straight,
  };
}

/** Square of a difference of steps in units of the noise (Mahalanobis): |L^-1 d|^2. */
function squareOf({ factor, rows }: Look, d: readonly number[]): number {
  const n = rows.length;
  const y = new Float64Array(n);
  let sum = 0;
  for (let i = 0; i < n; i++) {
    let v = d[i]!;
    for (let k = 0; k < i; k++) v -= factor[i * n + k]! * y[k]!;
    y[i] = v / factor[i * n + i]!;
    sum += y[i]! ** 2;
  }
  return sum;
}

/** Logarithm of the chance of what was seen, were it this picture. */
function logOf(p: Picture, look: Look): number {
  let log = -leftBy(p, look) / 2;
  const bent = (side: SideId): number =>
    normalCdf((Math.abs(p.bends[side] ?? 0) - BEND.fromMm) / BEND.eyeMm);
  for (const side of look.bent) log += Math.log(Math.max(1e-6, bent(side)));
  for (const side of look.straight) log += Math.log(Math.max(1e-6, 1 - bent(side)));
  return log;
}

/** `left`: the square of what its best picture leaves unexplained. */
type Weight = Weighed & { log: number; left: number; played: Played };

const leftBy = (p: Picture, look: Look): number => {
  const all = stepList(p.steps);
  return squareOf(
    look,
    look.rows.map((r, i) => look.values[i]! - all[r]!),
  );
};

function weigh(played: Played, look: Look): Weight {
  const { cause, sigma, before, pictures } = played;
  const logs = pictures.map((p) => logOf(p, look) - (sigma > 0 ? (p.at / sigma) ** 2 / 2 : 0));
  const top = Math.max(...logs);
  const mass = logs.map((l) => Math.exp(l - top));
  const sum = mass.reduce((a, b) => a + b, 0);
  const mean = mass.reduce((s, m, i) => s + m * pictures[i]!.at, 0) / sum;
  const square = mass.reduce((s, m, i) => s + m * pictures[i]!.at ** 2, 0) / sum;
  // The step of the grid over the root of two pi makes the prior's own integral one.
  const integral = sigma > 0 ? sum * ((GRID[1]! - GRID[0]!) / Math.sqrt(2 * Math.PI)) : sum;
  return {
    cause,
    played,
    left: Math.min(...pictures.map((p) => leftBy(p, look))),
    chance: 0,
    at: mean,
    sigma: Math.sqrt(Math.max(0, square - mean * mean)),
    log: Math.log(before) + top + Math.log(integral),
  };
}

/** Two causes are told apart where their likeliest pictures differ by more than this, in noises. */
const APART = 2;

function alike(a: Weight, b: Weight, look: Look): boolean {
  const picture = (w: Weight): Picture =>
    w.played.pictures.reduce((best, p) =>
      Math.abs(p.at - w.at) < Math.abs(best.at - w.at) ? p : best,
    );
  const [p, q] = [picture(a), picture(b)];
  const [x, y] = [stepList(p.steps), stepList(q.steps)];
  const square = [...look.bent, ...look.straight].reduce(
    (s, side) => s + (((p.bends[side] ?? 0) - (q.bends[side] ?? 0)) / BEND.eyeMm) ** 2,
    squareOf(
      look,
      look.rows.map((r) => x[r]! - y[r]!),
    ),
  );
  return square < APART ** 2;
}

/** What a step at each corner would be, were the mats as they are thought to lie. */
export type StepForecast = Record<CornerId, { along: Spread; across: Spread }>;
type Spread = { meanMm: number; sigmaMm: number };

/**
 * The steps that mats would make as they lie: the errors of all mats (along, across, heading each,
 * in vehicle axes) with their joint covariance carried through what the unit learns, to first order.
 *
 * @param mean 3 a mat, in the order of `mats`: mm, mm, rad
 * @param covariance of the same
 */
export function forecastSteps(
  surround: Surround,
  mats: readonly Pick<KnownMat, "id" | "wanted" | "form">[],
  mean: readonly number[],
  covariance: readonly (readonly number[])[],
): StepForecast {
  const steps = (off: readonly number[]): Steps =>
    stepsOf(
      learnedRig(
        surround,
        mats,
        Object.fromEntries(
          mats.map((m, i) => [
            m.id,
            { xMm: off[3 * i]!, yMm: off[3 * i + 1]!, headingRad: off[3 * i + 2]! },
          ]),
        ),
      ),
      surround.car,
    );
  const middle = steps(mean);
  // Central differences: a millimetre, a tenth of a milliradian.
  const width = mean.map((_, i) => (i % 3 === 2 ? 1e-4 : 1));
  const sides = mean.map((_, i) => {
    const moved = (sign: 1 | -1): Steps =>
      steps(mean.map((m, k) => (k === i ? m + sign * width[i]! : m)));
    return [moved(1), moved(-1)] as const;
  });
  const spread = (corner: CornerId, part: "alongMm" | "acrossMm"): Spread => {
    const g = sides.map(([a, b], i) => (a[corner][part] - b[corner][part]) / (2 * width[i]!));
    const variance = g.reduce(
      (sum, gi, i) => sum + g.reduce((s, gj, j) => s + gi * covariance[i]![j]! * gj, 0),
      0,
    );
    return { meanMm: middle[corner][part], sigmaMm: Math.sqrt(Math.max(0, variance)) };
  };
  return Object.fromEntries(
    CORNERS.map((c) => [c, { along: spread(c, "alongMm"), across: spread(c, "acrossMm") }]),
  ) as StepForecast;
}
