/** What follows from the figures of a readiness item. */
export type Judgement = {
  /** null while something that is needed was not read. */
  ok: boolean | null;
  headline: string;
  /** What is to be done about it, as one sentence to whoever does it; where there is more than "put right". */
  act?: string;
  lines: { name: string; value: string; wanted: string; ok: boolean }[];
};

/**
 * What was found at the moment a measurement was written, kept with it: where judging takes more than
 * a page should load to show one line.
 */
export type Found = { ok: boolean; headline: string };
