/** What follows from the figures of a readiness item. */
export type Judgement = {
  /** null while something that is needed was not read. */
  ok: boolean | null;
  headline: string;
  lines: { name: string; value: string; wanted: string; ok: boolean }[];
};
