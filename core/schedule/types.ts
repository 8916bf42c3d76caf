import { normalCdf } from "@/core/math/distributions";

/**
 * A shop's day as it is planned. All times are minutes since midnight at the shop; what has begun is
 * where it is, everything else is to be placed.
 */

/** One thing that is done to a vehicle without being broken off. */
export type DayTask = {
  id: string;
  kind: "bay" | "cure" | "road" | "desk" | "van";
  /** Minutes it is expected to take, and the standard deviation of their logarithm. */
  minutes: number;
  spread: number;
  /** How many times as long it takes whom; as long as expected where nothing is said. */
  pace: Readonly<Record<string, number>>;
  /**
   * Tasks of one job with the same number follow each other in one bay, which the vehicle takes up from
   * the first to the end of the last, whether somebody works at it or not; null outside of any bay.
   */
  stay: number | null;
  /** Bays that serve; the same for all of a stay. */
  bays: readonly string[];
  /** For each person it takes those who may: nobody for what only takes time. */
  people: readonly (readonly string[])[];
  /**
   * Stands, boards, scan tools, the van: each exists once. For everything it takes those that serve; any
   * one of them does.
   */
  things: readonly (readonly string[])[];
  /** When it may run, from and to; null at any time. */
  windows: readonly (readonly [number, number])[] | null;
  /** What has begun stays where it is. */
  begun: {
    startMin: number;
    bay: string | null;
    people: readonly string[];
    things: readonly string[];
  } | null;
  /** When it was over; null while it is not. */
  doneMin: number | null;
  /** What somebody has set by hand. */
  pin: { startMin?: number; bay?: string; person?: string } | null;
};

/** A vehicle, and what is done to it one after another. */
export type DayJob = {
  id: string;
  name: string;
  arriveMin: number;
  /** When it was promised; null where nothing was. */
  promiseMin: number | null;
  /**
   * The bay its vehicle stands in now, begun or not: nothing else is done there before it has left. Nothing
   * where it stands in none, or nobody said.
   */
  standsIn?: string | undefined;
  tasks: readonly DayTask[];
};

export type DayPerson = {
  id: string;
  name: string;
  fromMin: number;
  toMin: number;
  /** Nothing is done in them. */
  breaks: readonly (readonly [number, number])[];
};

export type Day = {
  nowMin: number;
  jobs: readonly DayJob[];
  people: readonly DayPerson[];
  bays: readonly { id: string; name: string }[];
};

/** Where a task was placed. */
export type Placed = {
  job: string;
  task: string;
  startMin: number;
  endMin: number;
  bay: string | null;
  people: readonly string[];
  things: readonly string[];
};

/** What is to be as small as can be: first the lateness, then the rest together. */
export type Cost = { lateMin: number; waitMin: number; overMin: number };

export type Plan = {
  /** In the order in which they were placed: one that follows another on anything comes after it. */
  placed: readonly Placed[];
  cost: Cost;
  /** No plan is less late in all, minutes. */
  boundMin: number;
  /** Whether no plan is better at all. */
  exact: boolean;
};

/** Minutes a task takes those who do it: as long as the slowest of them. */
export const minutesFor = (t: DayTask, people: readonly string[]): number =>
  people.length === 0
    ? t.minutes
    : Math.round(t.minutes * Math.max(...people.map((p) => t.pace[p] ?? 1)));

/**
 * Minutes something takes in all that has gone on for so many already: the mean of a normal logarithm
 * beyond them, m Phi(s - z) / Phi(-z) with z = (ln gone - mu) / s. What should long be over goes on for a
 * while yet.
 */
export function minutesGiven(minutes: number, spread: number, goneMin: number): number {
  if (goneMin <= 0 || spread <= 0) return Math.max(minutes, goneMin);
  const mu = Math.log(minutes) - (spread * spread) / 2;
  const z = (Math.log(goneMin) - mu) / spread;
  const beyond = normalCdf(-z);
  // So far beyond all that is usual, it goes on by a twentieth of what it has taken.
  if (beyond < 1e-6) return goneMin * 1.05;
  return Math.max(goneMin, (minutes * normalCdf(spread - z)) / beyond);
}

/** Overtime counts double against waiting: it is paid, and somebody goes home late. */
const OVER_WEIGHT = 2;
/** A minute of lateness outweighs a day of waiting of everybody. */
const LATE_WEIGHT = 1e5;

/** One figure of a cost, for comparing. */
export const weigh = (c: Cost): number =>
  LATE_WEIGHT * c.lateMin + c.waitMin + OVER_WEIGHT * c.overMin;

/** A day that cannot be planned. The message says what lacks, `job` whose it is where it is one's. */
export class DayError extends RangeError {
  override readonly name = "DayError";
  constructor(
    message: string,
    readonly job: string | null = null,
  ) {
    super(message);
  }
}
