import { fitLinear, LooseFitError } from "@/core/math/fit";

/** A place on the floor that a rule is stood on. */
export type Spot = { xMm: number; yMm: number };

/**
 * A line laser as it stood once, and what a rule on the floor read under its line. Its line may lie
 * askew by so much to the metre; what it reads is good to so much.
 */
export type LevelSetup = {
  levelMmPerM: number;
  readMm: number;
  readings: { spot: number; mm: number }[];
};

export type LevelReading = {
  setup: number;
  spot: number;
  /** Adjusted minus read, mm. */
  residualMm: number;
  /** The residual in units of its own uncertainty; 0 where nothing checks the reading. */
  w: number;
  /** Share of the reading that others check, 0 to 1. */
  redundancy: number;
};

export type Levels = {
  /** Heights of the spots that were read, from their own mean; mm. */
  heights: (Spot & { spot: number; heightMm: number; sigmaMm: number })[];
  /** Of those heights, in their order, mm2. */
  covariance: number[][];
  readings: LevelReading[];
  /** The reading that does not agree with the others, if one stands out. */
  suspect: LevelReading | null;
};

/** The readings do not make one floor. The message says what is to be read. */
export class SurveyError extends RangeError {
  override readonly name = "SurveyError";
}

/** Largest standardised residual that chance explains, alpha 0.1 % (Baarda 1968). */
const SUSPECT_W = 3.29;

/** Set-ups that have spots in common, each named by the first of its kind. */
function joined(setups: readonly LevelSetup[]): number[] {
  const root = setups.map((_, i) => i);
  const find = (i: number): number => (root[i] === i ? i : find(root[i]!));
  const first = new Map<number, number>();
  setups.forEach(({ readings }, i) =>
    readings.forEach(({ spot }) => {
      const other = first.get(spot);
      if (other === undefined) first.set(spot, i);
      else root[find(i)] = find(other);
    }),
  );
  return setups.map((_, i) => find(i));
}

/**
 * The heights of a floor from rules read under a line laser, adjusted together: every set-up has a line
 * of its own height, askew within what the laser promises, and spots read from more than one tie them.
 *
 * Rule reading r = Z + a x + b y - h + e, with Z, a, b of the set-up and h of the spot; a and b have the
 * laser's promise as their prior.
 *
 * @throws SurveyError where less than three spots were read, or set-ups have none in common
 */
export function adjustLevels(spots: readonly Spot[], setups: readonly LevelSetup[]): Levels {
  const used = setups.filter((s) => s.readings.length > 0);
  const read = [...new Set(used.flatMap((s) => s.readings.map((r) => r.spot)))].toSorted(
    (a, b) => a - b,
  );
  if (read.length < 3)
    throw new SurveyError("Read the rule at three spots or more: two make no floor.");
  const apart = joined(used).findIndex((root, _, all) => root !== all[0]);
  if (apart >= 0)
    throw new SurveyError(
      `Laser place ${setups.indexOf(used[apart]!) + 1} has no spot in common with the first: read one of the first's spots from it as well.`,
    );
  const column = new Map(read.map((spot, i) => [spot, i]));
  const n = read.length;
  // The first spot is the datum; three columns a set-up.
  const width = n - 1 + 3 * used.length;
  const rows: number[][] = [];
  const values: number[] = [];
  const sigmas: number[] = [];
  const named: { setup: number; spot: number }[] = [];
  const put = (row: number[], value: number, sigma: number): void => {
    rows.push(row);
    values.push(value);
    sigmas.push(sigma);
  };
  used.forEach((setup, s) => {
    const own = n - 1 + 3 * s;
    for (const { spot, mm } of setup.readings) {
      const row = new Array<number>(width).fill(0);
      const at = column.get(spot)!;
      const { xMm, yMm } = spots[spot]!;
      if (at > 0) row[at - 1] = -1;
      [row[own], row[own + 1], row[own + 2]] = [1, xMm / 1000, yMm / 1000];
      put(row, mm, setup.readMm);
      named.push({ setup: setups.indexOf(setup), spot });
    }
  });
  used.forEach((setup, s) => {
    for (const k of [1, 2]) {
      const row = new Array<number>(width).fill(0);
      row[n - 1 + 3 * s + k] = 1;
      put(row, 0, setup.levelMmPerM);
    }
  });
  let fit;
  try {
    fit = fitLinear(rows, values, sigmas);
  } catch (error) {
    if (error instanceof LooseFitError)
      throw new SurveyError(`${error.message} Read more spots, or the same ones again.`);
    throw error;
  }
  const raw = [0, ...fit.x.slice(0, n - 1)];
  const own = (i: number, j: number): number =>
    i === 0 || j === 0 ? 0 : fit.covariance[i - 1]![j - 1]!;
  // Counted from their mean no single spot's slip is in all of them.
  const mean = raw.reduce((s, h) => s + h, 0) / n;
  const row = raw.map((_, i) => raw.reduce((s, __, j) => s + own(i, j), 0) / n);
  const total = row.reduce((s, v) => s + v, 0) / n;
  const covariance = raw.map((_, i) => raw.map((__, j) => own(i, j) - row[i]! - row[j]! + total));
  const readings = named.map((is, k) => ({
    ...is,
    residualMm: fit.residuals[k]!,
    w: fit.w[k]!,
    redundancy: fit.redundancy[k]!,
  }));
  const worst = readings.reduce((a, b) => (Math.abs(b.w) > Math.abs(a.w) ? b : a));
  return {
    heights: read.map((spot, i) => ({
      ...spots[spot]!,
      spot,
      heightMm: raw[i]! - mean,
      sigmaMm: Math.sqrt(Math.max(0, covariance[i]![i]!)),
    })),
    covariance,
    readings,
    suspect: Math.abs(worst.w) > SUSPECT_W ? worst : null,
  };
}
