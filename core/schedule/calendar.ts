import type { DayPerson } from "./types";

/** Pieces of time that are taken, in order and apart from each other. */
export type Taken = [from: number, to: number][];

/** Takes a piece of time up. */
export function take(taken: Taken, from: number, to: number): void {
  if (to <= from) return;
  let i = taken.length;
  while (i > 0 && taken[i - 1]![0] > from) i--;
  taken.splice(i, 0, [from, to]);
}

/** The first time from `at` on at which `minutes` are free in it. */
export function freeFrom(taken: Taken, at: number, minutes: number): number {
  let t = at;
  for (const [from, to] of taken) {
    if (to <= t) continue;
    if (from >= t + minutes) break;
    t = to;
  }
  return t;
}

/** The first time from `at` on that lies with all its minutes in one window; never is Infinity. */
export function windowFrom(
  windows: readonly (readonly [number, number])[] | null,
  at: number,
  minutes: number,
): number {
  if (!windows) return at;
  let best = Infinity;
  for (const [from, to] of windows) {
    const t = Math.max(at, from);
    if (t + minutes <= to) best = Math.min(best, t);
  }
  return best;
}

/** When a person is there for so many minutes on end; after hours is overtime, not impossible. */
export function personFrom(p: DayPerson, at: number, minutes: number): number {
  let t = Math.max(at, p.fromMin);
  for (const [from, to] of p.breaks) if (t < to && t + minutes > from) t = to;
  return t;
}

/** Minutes of a piece of work that lie after a person's hours. */
export const overtime = (p: DayPerson, from: number, to: number): number =>
  Math.max(0, to - Math.max(from, p.toMin));
