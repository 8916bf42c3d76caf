import type { PointShift, SurveyNuisance } from "@/core/survey";
import { degToRad } from "@/core/units";
import type { Instrument } from "./instrument";

/**
 * What several readings have in common beyond the noise of each: unknowns of the estimate, with what
 * is known of them beforehand. A repeat shares them and is no witness against them.
 */

/** A good tape, warm or cold, is right to three tenths of a millimetre in a metre. */
const SCALE_SIGMA = 3e-4;

/** Instruments whose figures are lengths along a tape. */
const TAPED: readonly Instrument["kind"][] = ["tape", "plumb"];

/**
 * The name of the scale that readings with an instrument of this kind share; null where none.
 *
 * @param instrument which of the kind, where several are in use: each has a scale of its own
 */
export const scaleOf = (kind: Instrument["kind"], instrument?: string): string | null =>
  TAPED.includes(kind) ? `scale of the tape${instrument ? ` ${instrument}` : ""}` : null;

export const scaleCause = (id: string): SurveyNuisance => ({
  id,
  value: 0,
  unit: "ratio",
  sigma: SCALE_SIGMA,
});

/** How far a rear wheel points beside what is known of its toe: a printout, or how cars are made. */
export const TOE_LEFT = "toe of the rear left wheel";
export const TOE_RIGHT = "toe of the rear right wheel";
export const TOE_SIGMA = degToRad(0.1);
/**
 * What a printout itself claims. It is believed so far only where nothing in the kit could tell: a board
 * that is called set then names it as taken for granted.
 */
export const PRINTED_TOE_SIGMA = degToRad(0.03);
/** The same where the rig saw the car roll in this very job. */
export const ROLLED_TOE_SIGMA = degToRad(0.02);

/** What is read with these says something of where a rear wheel points. */
const BY_THE_WHEEL: ReadonlySet<Instrument["kind"]> = new Set(["wheel-laser", "mirror"]);
export const seesToe = (kind: Instrument["kind"]): boolean => BY_THE_WHEEL.has(kind);

/** A printout may be older than the axle's last kerb: it can be grossly off like any reading. */
export const toeCause = (id: string, sigma: number): SurveyNuisance => ({
  id,
  value: 0,
  unit: "rad",
  sigma,
});

/** What a thrust line turns with: half of what the right wheel's toe is more, less the left one's. */
export const TURNS_WITH_TOE: readonly (readonly [cause: string, weight: number])[] = [
  [TOE_LEFT, -0.5],
  [TOE_RIGHT, 0.5],
];

/** Something clamped or hung that readings go through: it sits where it was seated. */
export type Seat = {
  id: string;
  /** What is to be seated anew, for the one act. */
  name: string;
  /** How far one seating may sit from another, in the reading's own millimetres, or for each `per`. */
  sigmaMm: number;
  /**
   * Metres of throw by which the reading goes with it, where several readings through one seat have
   * throws of their own: then `sigmaMm` is for one metre.
   */
  per?: number;
};

/** How much a reading is uncertain by its seat, mm. */
export const seatSigma = (seat: Seat): number => seat.sigmaMm * (seat.per ?? 1);

/** One seating: the cause that all readings through it share. */
export const seatCause = (id: string, sigmaMm: number): SurveyNuisance => ({
  id,
  value: 0,
  unit: "mm",
  sigma: sigmaMm,
  maySlip: true,
});

/** The lean of a carrier between two disturbances of it, by its name in the network. */
export const leanCause = (carrier: string, part: "pitch" | "roll", segment: number): string =>
  `${part} of ${carrier}#${segment}`;

/**
 * How a point goes with its carrier's lean, seen from the board's own place on the floor. With the
 * top away from the car by `pitch` and its vehicle-left end high by `roll`, what hangs `underMm`
 * under the board's centre stands nearer to the car and farther to vehicle left than it.
 */
export const leanOf = (underMm: number, pitch: string, roll: string): PointShift[] => [
  { cause: pitch, xMm: underMm, yMm: 0 },
  { cause: roll, xMm: 0, yMm: -underMm },
];
