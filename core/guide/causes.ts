import { normalCdfFast } from "@/core/math/distributions";
import { invertSpd } from "@/core/math/linear";
import { degToRad } from "@/core/units";
import type { RefusalCode } from "@/core/run";
import {
  BOARD_QUANTITIES,
  lookGeometry,
  type BoardQuantity,
  type Effect,
  type LookGeometry,
} from "./effects";

/**
 * Why a camera refused its board, ranked by what this job knows.
 *
 * Each possible cause is a hypothesis under which something has a size nobody expected: the board is
 * turned, load tips the vehicle, something like the target stands behind it. Under each one the answer
 * (learned turns, misfit, size) and the readings of the set-out have a probability; times how often
 * such a cause comes, that is its share (Bayes' rule). A board's fault may be seen by the readings or
 * hidden from them: both are weighed.
 */
export const CAUSES = [...BOARD_QUANTITIES, "print", "seat", "load", "clutter", "glare"] as const;
export type Cause = (typeof CAUSES)[number];

/** Whether somebody looked for a cause before the vehicle did. */
export type Looked = "looked" | "not-looked" | "known";

export type CauseEvidence = {
  /**
   * How the board stands by the readings: actual less wanted (mm, rad), how well that is known, and
   * how far off a board in order is found to stand.
   */
  board: Record<BoardQuantity, { mean: number; sigma: number; usual: number }>;
  /** Whether it was proved in place: then what is wrong with it hides from its readings. */
  proved: boolean;
  /** What was looked for: the code of the print, the floor behind it, light, load. */
  looked: Record<"print" | "clutter" | "glare" | "load", Looked>;
  /** How the camera sits by what was measured of its glass: mean and covariance, rad. */
  camera: { mean: number[]; covariance: number[][] };
  geometry: { rangeMm: number; aboveMm: number; widthMm: number };
};

/** The answer: learned turns in rad where it gives them. */
export type CauseAnswer = {
  code: RefusalCode | null;
  turn: [number, number, number] | null;
  qualityPercent: number;
  /** As a share; where it is told. */
  size: number | null;
};

/**
 * How a unit's picture is: the noise of a point, how quality falls with misfit, how often it finds
 * nothing. Of the stand-in that ships with the product; a unit of another make has its own.
 */
export type UnitHabits = {
  focalPx: number;
  noisePx: number;
  qualityPerPx: number;
  lost: Record<"clutter" | "glare" | "print" | "else", number>;
  clutter: { least: number; most: number; strayPx: number };
  glare: { least: number; most: number };
};
const STAND_IN: UnitHabits = {
  focalPx: 1250,
  noisePx: 0.12,
  qualityPerPx: 22,
  lost: { clutter: 0.25, glare: 0.4, print: 0.2, else: 0.0005 },
  clutter: { least: 2, most: 6, strayPx: 7 },
  glare: { least: 5, most: 22 },
};

/** How often each comes in a hundred refusals where nobody looked, and its size (mm, rad, share). */
export const HABITUAL: Record<Cause, { rate: number; size: number }> = {
  along: { rate: 8, size: 45 },
  side: { rate: 6, size: 70 },
  height: { rate: 6, size: 70 },
  twist: { rate: 16, size: degToRad(4) },
  lean: { rate: 6, size: degToRad(4) },
  level: { rate: 4, size: degToRad(1.2) },
  print: { rate: 8, size: 0.08 },
  seat: { rate: 8, size: degToRad(1.1) },
  load: { rate: 6, size: degToRad(1.5) },
  clutter: { rate: 20, size: 1 },
  glare: { rate: 12, size: 1 },
};
/** What a look does to such a rate: one that found nothing, none, one that knew of it and went on. */
export const LOOKED: Record<Looked, number> = { looked: 0.12, "not-looked": 1, known: 4 };
/** How often a board that was proved, and one that was not, hides its fault from the readings. */
export const HIDDEN = { proved: 0.9, unproved: 0.15 };
/** What proving leaves of the rate at which a board's place is the cause. */
export const PROVED_RATE = 0.35;

export type RankedCause = { cause: Cause; share: number };

/** How often a cause comes before the vehicle answers, by what was looked at. */
export function rateOf(cause: Cause, e: Pick<CauseEvidence, "looked" | "proved">): number {
  const { rate } = HABITUAL[cause];
  if (cause in e.looked) return rate * LOOKED[e.looked[cause as keyof typeof e.looked]];
  return isOfBoard(cause) && e.proved ? rate * PROVED_RATE : rate;
}

export const isOfBoard = (cause: Cause): cause is BoardQuantity =>
  (BOARD_QUANTITIES as readonly string[]).includes(cause);

const normal = (x: number, sigma: number): number =>
  Math.exp(-0.5 * (x / sigma) ** 2) / (sigma * Math.sqrt(2 * Math.PI));

/** So many that a size is told apart as finely as a camera tells it. */
const NODES = 801;

/** Nodes of a Gaussian on an even grid, with their weights. */
function nodes(mean: number, sigma: number, many: number): { at: number; weight: number }[] {
  const list = Array.from({ length: many }, (_, i) => {
    const t = -4 + (8 * i) / (many - 1);
    return { at: mean + sigma * t, weight: Math.exp(-t * t * 0.5) };
  });
  const sum = list.reduce((s, n) => s + n.weight, 0);
  return list.map((n) => ({ ...n, weight: n.weight / sum }));
}

/**
 * The causes of a refusal, likeliest first; their shares sum to 1.
 *
 * @param unit how the vehicle's unit is known to answer
 */
export function rankCauses(
  evidence: CauseEvidence,
  answer: CauseAnswer,
  unit: UnitHabits = STAND_IN,
): RankedCause[] {
  const { rangeMm, aboveMm, widthMm } = evidence.geometry;
  const look = lookGeometry(rangeMm, aboveMm, widthMm);
  const weighed = CAUSES.map((cause) => ({
    cause,
    weight: rateOf(cause, evidence) * likelihood(cause, evidence, answer, look, unit),
  }));
  const all = weighed.reduce((s, w) => s + w.weight, 0);
  return weighed
    .map(({ cause, weight }) => ({ cause, share: all > 0 ? weight / all : 1 / CAUSES.length }))
    .sort((a, b) => b.share - a.share);
}

/** The probability of answer and readings under one cause, up to a factor common to all. */
function likelihood(
  cause: Cause,
  e: CauseEvidence,
  answer: CauseAnswer,
  look: LookGeometry,
  unit: UnitHabits,
): number {
  const lost =
    unit.lost[cause === "clutter" || cause === "glare" || cause === "print" ? cause : "else"];
  const { turn, size } = answer;
  if (!turn) return lost * sizesOf(cause, e).reduce((s, n) => s + n.weight, 0);
  const rms = Math.max(0, 100 - answer.qualityPercent) / unit.qualityPerPx;
  // Its own size is summed over below: it is not weighed a second time.
  const outBy = outOf(cause, look);
  const expects = expectation(isOfBoard(cause) ? without(e, cause) : e, look, unit);
  const seen = { turn, rms, atLeast: answer.qualityPercent <= 0, size };
  const spread = (variance: number, rmsChance: number): number =>
    expects(seen, {}, variance, rmsChance);
  if (cause === "clutter") return (1 - lost) * clutter(seen, look, unit, spread);
  if (cause === "glare") return (1 - lost) * glare(seen, look, unit, spread);
  return (
    (1 - lost) *
    sizesOf(cause, e).reduce((sum, { at, weight }) => sum + weight * expects(seen, outBy(at)), 0)
  );
}

const without = (e: CauseEvidence, q: BoardQuantity): CauseEvidence => ({
  ...e,
  board: { ...e.board, [q]: { ...e.board[q], sigma: 0 } },
});

/**
 * Which sizes a cause may have, weighed by how well the readings go with them. Of a board's fault the
 * readings that see it have chosen the sizes themselves; hidden from them it may have any.
 */
function sizesOf(cause: Cause, e: CauseEvidence): { at: number; weight: number }[] {
  const { size } = HABITUAL[cause];
  if (!isOfBoard(cause)) {
    if (cause === "load" || cause === "print") return nodes(0, size, NODES);
    return [{ at: 1, weight: 1 }];
  }
  const { mean, sigma, usual } = e.board[cause];
  const hidden = HIDDEN[e.proved ? "proved" : "unproved"];
  // The readings of all other quantities are what they are under every cause: only this one's tells.
  const asUsual = normal(mean, usual);
  const total = Math.hypot(size, sigma);
  const seenWeight = asUsual > 0 ? normal(mean, total) / asUsual : 1e12;
  const back = (size / total) ** 2;
  return [
    ...nodes(mean * back, sigma * (size / total), 41).map((n) => ({
      at: n.at - mean,
      weight: n.weight * (1 - hidden) * Math.min(1e12, seenWeight),
    })),
    ...nodes(0, size, NODES).map((n) => ({ ...n, weight: n.weight * hidden })),
  ];
}

type Seen = {
  turn: [number, number, number];
  /** Misfit of the picture, px; `atLeast` where it may be any more. */
  rms: number;
  atLeast: boolean;
  size: number | null;
};
/** What is out beside what the readings say: seen by the camera, of the vehicle, of the camera's seat. */
type Out = { effect?: Effect; loadRad?: number; seat?: boolean };

/** What a cause of some size puts out. Effects change smoothly: they are asked for at knots only. */
function outOf(cause: Cause, look: LookGeometry): (size: number) => Out {
  if (cause === "load") return (loadRad) => ({ loadRad });
  if (cause === "seat") return () => ({ seat: true });
  if (!isOfBoard(cause) && cause !== "print") return () => ({});
  const step = HABITUAL[cause].size / 8;
  const knots = new Map<number, Effect>();
  const knot = (k: number): Effect => {
    const had = knots.get(k) ?? look.effectAt(cause, k * step);
    knots.set(k, had);
    return had;
  };
  return (size) => {
    const k = Math.floor(size / step);
    const [a, b, t] = [knot(k), knot(k + 1), size / step - k];
    const mix = (x: number, y: number): number => x + (y - x) * t;
    return {
      effect: {
        turn: a.turn.map((v, i) => mix(v, b.turn[i]!)) as Effect["turn"],
        size: mix(a.size, b.size),
        left: a.left.map((v, i) => mix(v, b.left[i]!)),
      },
    };
  };
}

/**
 * How probable an answer is, given what is out by how much beside what the readings say.
 *
 * @returns density; `pixelVariance` of disturbed points, px^2, with the chance of their misfit, take
 *   the place of the unit's own noise
 */
function expectation(
  e: CauseEvidence,
  look: LookGeometry,
  unit: UnitHabits,
): (seen: Seen, out: Out, pixelVariance?: number, rmsChance?: number) => number {
  const f = unit.focalPx;
  const known = BOARD_QUANTITIES.map((q) => ({ ...e.board[q], effect: look.effects[q] }));
  const base = e.camera.mean.map(
    (m, i) => m + known.reduce((s, k) => s + k.effect.turn[i]! * k.mean, 0),
  );
  const own = e.camera.covariance.map((row, i) =>
    row.map(
      (v, j) =>
        v + known.reduce((s, k) => s + k.effect.turn[i]! * k.effect.turn[j]! * k.sigma ** 2, 0),
    ),
  );
  const leftMean = Array.from({ length: 2 * look.points }, (_, i) =>
    known.reduce((s, k) => s + k.effect.left[i]! * k.mean, 0),
  );
  const points = look.points;
  // Three of the picture's numbers went into the turns.
  const free = (2 * points - 3) / (2 * points);
  const noise = 2 * unit.noisePx ** 2 * free;
  const sizeMean = known.reduce((s, k) => s + k.effect.size * k.mean, 0);
  const sizeVariance = known.reduce((s, k) => s + (k.effect.size * k.sigma) ** 2, 0);
  // Most nodes of a sum ask for the same one.
  const kept = new Map<string, (d: number[]) => number>();
  const turnsLike = (seat: number, pixelVariance: number): ((d: number[]) => number) => {
    const key = `${seat}/${pixelVariance}`;
    const had = kept.get(key);
    if (had) return had;
    const made = gaussian3(
      own.map((row, i) =>
        row.map(
          (v, j) => v + (look.turnCofactor[i]![j]! * pixelVariance) / f ** 2 + (i === j ? seat : 0),
        ),
      ),
    );
    kept.set(key, made);
    return made;
  };
  return (seen, out, pixelVariance = unit.noisePx ** 2, rmsChance) => {
    const mean = base.map(
      (m, i) => m + (out.effect?.turn[i] ?? 0) + (i === 1 ? (out.loadRad ?? 0) : 0),
    );
    const turns = turnsLike(out.seat ? HABITUAL.seat.size ** 2 : 0, pixelVariance);
    let chance = turns(seen.turn.map((t, i) => t - mean[i]!));
    if (seen.size !== null) {
      const sigma = Math.sqrt(sizeVariance + (look.sizeCofactor * pixelVariance) / f ** 2 + 1e-8);
      const at = sizeMean + (out.effect?.size ?? 0);
      chance *= normal(seen.size - at, sigma);
    }
    if (rmsChance !== undefined) return chance * rmsChance;
    // What is out of the question already needs no misfit.
    if (chance < 1e-20) return 0;
    const left = out.effect ? leftMean.map((v, i) => v + out.effect!.left[i]!) : leftMean;
    const systematic = (f * f * left.reduce((s, v) => s + v * v, 0)) / points;
    const expected = Math.sqrt(noise + systematic);
    // Noise of the misfit itself, and what the readings leave open of it.
    const open = known.reduce((s, k) => {
      const along = left.reduce((t, v, i) => t + v * k.effect.left[i]!, 0);
      return s + ((f * f * along * k.sigma) / points / expected) ** 2;
    }, 0);
    const sigma = Math.sqrt(noise / (2 * (2 * points - 3)) + open + 1e-4);
    // A quality of nothing says only that the picture is at least so ill.
    return (
      chance *
      (seen.atLeast
        ? 1 - normalCdfFast((seen.rms - expected) / sigma)
        : normal(seen.rms - expected, sigma))
    );
  };
}

/** Density of a Gaussian of three about nothing. */
function gaussian3(covariance: number[][]): (d: number[]) => number {
  const inverse = invertSpd(covariance)!;
  const [[a, b, c], [, e, f], [, , i]] = covariance as [number[], number[], number[]];
  const det = a! * (e! * i! - f! * f!) - b! * (b! * i! - f! * c!) + c! * (b! * f! - e! * c!);
  const scale = 1 / Math.sqrt((2 * Math.PI) ** 3 * det);
  return (d) => {
    let square = 0;
    for (let k = 0; k < 3; k++)
      for (let l = 0; l < 3; l++) square += d[k]! * inverse[k]![l]! * d[l]!;
    return scale * Math.exp(-0.5 * square);
  };
}

/** Density of a chi-square of `2k` degrees at x. */
function chiSquareEven(x: number, k: number): number {
  let factorial = 1;
  for (let i = 2; i < k; i++) factorial *= i;
  return x <= 0 ? 0 : ((x / 2) ** (k - 1) * Math.exp(-x / 2)) / (2 * factorial);
}

type Spread = (pixelVariance: number, rmsChance: number) => number;
type Misfit = Pick<Seen, "rms" | "atLeast">;

/** Some points are drawn away by what stands behind: their strays add up to the misfit. */
function clutter(m: Misfit, look: LookGeometry, unit: UnitHabits, spread: Spread): number {
  const { least, most, strayPx } = unit.clutter;
  const { points } = look;
  const free = (2 * points - 3) / (2 * points);
  const own = 2 * unit.noisePx ** 2 * free;
  const at = (rms: number): number => {
    const total = ((rms ** 2 - own) * points) / free;
    if (total <= 0) return 0;
    // Spread evenly over the picture, on the average over which points they are.
    const variance = total / (2 * points) + unit.noisePx ** 2;
    let sum = 0;
    for (let many = least; many <= most; many++)
      sum +=
        (chiSquareEven(total / strayPx ** 2, many) / strayPx ** 2) * ((2 * rms * points) / free);
    return spread(variance, sum / (most - least + 1));
  };
  return beyond(m, at, 0.15);
}

/** Every point is found so much worse, nobody knows how much. */
function glare(m: Misfit, look: LookGeometry, unit: UnitHabits, spread: Spread): number {
  const dof = 2 * look.points - 3;
  const { least, most } = unit.glare;
  const STEPS = 60;
  const at = (rms: number): number => {
    let sum = 0;
    for (let k = 0; k < STEPS; k++) {
      const sigma = unit.noisePx * (least + ((most - least) * (k + 0.5)) / STEPS);
      // The root of a mean square over many numbers is nearly normal (Fisher).
      const middle = sigma * Math.sqrt((2 * dof - 1) / (2 * look.points));
      sum += spread(sigma ** 2, normal(rms - middle, sigma / Math.sqrt(2 * look.points)));
    }
    return sum / STEPS;
  };
  return beyond(m, at, 0.15);
}

/** A density at a misfit, or its sum over all that are at least so large. */
function beyond({ rms, atLeast }: Misfit, at: (rms: number) => number, step: number): number {
  if (!atLeast) return at(rms);
  let sum = 0;
  for (let k = 0; k < 60; k++) sum += at(rms + (k + 0.5) * step) * step;
  return sum;
}
