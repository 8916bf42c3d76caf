import type { EventBody, TabletEvent } from "@/core/job";

/** Who wrote a line. */
export type Author = { id: string; name: string; initials: string };

/** Why a line is not on its way: it was refused, or it waits behind a refused one. */
export type LineState =
  { kind: "waiting" } | { kind: "refused"; why: string } | { kind: "struck"; at: string };

/** Something written on this tablet that the shop has not confirmed yet. */
export type Line = {
  /** Place in the tablet's own order, over all jobs and tabs. */
  n: number;
  id: string;
  jobId: string;
  /** Null on lines of an older program, which did not note it. */
  author: Author | null;
  takenAt: string;
  /**
   * The last place of the log this tablet had seen when it was written: what it was written in
   * knowledge of.
   */
  baseSeq: number;
  /** What is sent. */
  send: TabletEvent;
  /** What it looks like meanwhile (a settlement is judged here first and by the shop again). */
  show: EventBody;
  state: LineState;
};

/** So many lines, in words. */
export const countLines = (n: number): string => (n === 1 ? "1 line" : `${n} lines`);
