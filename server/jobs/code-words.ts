import { db } from "../db/client";

/** So many are offered for one code. */
const OFFERED = 4;

/**
 * What this shop has said of codes before, the most often said first: a list that keeps itself, since
 * nobody writes one down for its own sake.
 */
export function codeWords(codes: readonly string[]): Record<string, string[]> {
  const said = db().$client.prepare(
    `SELECT body ->> '$.word' AS word
     FROM job_events
     WHERE body ->> '$.kind' = 'code-word' AND body ->> '$.code' = ?
     GROUP BY word ORDER BY count(*) DESC, max(at) DESC LIMIT ?`,
  );
  return Object.fromEntries(
    codes.map((code) => [
      code,
      (said.all(code, OFFERED) as { word: string | null }[]).flatMap((r) => r.word ?? []),
    ]),
  );
}
