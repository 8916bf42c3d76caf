import { holds } from "./breach";
import { GAP_S, type Cause, type Loss } from "./qualify";
import type { DriveRules } from "./rules";
import type { DriveSample } from "./sample";

/** A stretch of a drive that counted, or did not and why. */
export type Stretch = {
  fromMs: number;
  toMs: number;
  /** Null where it counted. */
  cause: Cause | null;
  metres: number;
};

/**
 * A whole log looked at afterwards: stretch by stretch, with what threw away what was gathered. It goes
 * over the log as a whole, not sample by sample as {@link qualify} does, and has to come to the same.
 *
 * @param samples as they were written; where a clock was set back the newer one stands
 */
export function stretchesOf(
  rules: DriveRules,
  samples: readonly DriveSample[],
): { stretches: Stretch[]; losses: Pick<Loss, "atMs" | "kind">[]; doneMs: number | null } {
  const pieces = piecesOf(samples);
  const times: Timed[] = [];
  const thrown: (Pick<Loss, "atMs" | "kind"> & { nth: number })[] = [];
  let nth = 0;
  pieces.forEach((piece, n) => {
    const next = pieces[n + 1]?.[0];
    const end = piece.at(-1)!;
    const verdicts = rules.conditions.map((c) =>
      piece.map((s, i) => holds(c, s, speedsUpTo(piece, i))),
    );
    piece.slice(0, -1).forEach((s, i) => {
      const first = rules.conditions.findIndex((_, k) => verdicts[k]![i] !== true);
      const cause = rules.conditions[first]?.kind ?? null;
      const toMs = piece[i + 1]!.atMs;
      const metres = cause === null ? ((s.speedMps ?? 0) * (toMs - s.atMs)) / 1000 : 0;
      times.push({ fromMs: s.atMs, toMs, cause, metres, nth: nth + i });
    });
    const last = nth + piece.length - 1;
    if (next && next.atMs > end.atMs)
      times.push({ fromMs: end.atMs, toMs: next.atMs, cause: "no-log", metres: 0, nth: last });
    for (const i of piece.keys())
      rules.conditions.forEach((c, k) => {
        if (c.breach === "throws-away" && throwsOf(piece, verdicts[k]!, c.graceS).includes(i))
          thrown.push({ atMs: piece[i]!.atMs, kind: c.kind, nth: nth + i });
      });
    nth += piece.length;
  });
  return countedUp(rules, times, thrown);
}

/** The time that a sample opens, by the sample's place in the log: a clock may have been set back. */
type Timed = Stretch & { nth: number };

/** Parts of a log without a gap and without a clock that was set. */
function piecesOf(samples: readonly DriveSample[]): DriveSample[][] {
  const pieces: DriveSample[][] = [];
  for (const s of samples) {
    const piece = pieces.at(-1);
    const passed = piece ? (s.atMs - piece.at(-1)!.atMs) / 1000 : Infinity;
    if (piece && passed > 0 && passed <= GAP_S) piece.push(s);
    else pieces.push([s]);
  }
  return pieces;
}

const speedsUpTo = (piece: readonly DriveSample[], i: number): { atMs: number; mps: number }[] =>
  piece
    .slice(0, i + 1)
    .flatMap((s) => (s.speedMps === null ? [] : [{ atMs: s.atMs, mps: s.speedMps }]));

/** Where each unbroken breach has lasted as long as it is borne. */
function throwsOf(
  piece: readonly DriveSample[],
  held: readonly (boolean | null)[],
  graceS: number,
): number[] {
  const found: number[] = [];
  let start: number | null = null;
  let done = false;
  held.forEach((is, i) => {
    if (is !== false) [start, done] = [null, false];
    else {
      start ??= i;
      if (!done && (piece[i]!.atMs - piece[start]!.atMs) / 1000 >= graceS) {
        found.push(i);
        done = true;
      }
    }
  });
  return found;
}

/** Neighbours of one cause are one stretch. */
function joined(times: readonly Timed[]): Stretch[] {
  const list: Stretch[] = [];
  for (const { nth: _, ...s } of times) {
    const last = list.at(-1);
    if (last?.cause === s.cause && last.toMs === s.fromMs)
      list[list.length - 1] = { ...last, toMs: s.toMs, metres: last.metres + s.metres };
    else list.push(s);
  }
  return list;
}

/** What was lost as the log goes on, and where what counts was enough: what follows that is left out. */
function countedUp(
  { enough }: DriveRules,
  times: readonly Timed[],
  thrown: readonly (Pick<Loss, "atMs" | "kind"> & { nth: number })[],
): ReturnType<typeof stretchesOf> {
  const { seconds: needS = 0, metres: needM = 0 } = enough;
  let [seconds, metres] = [0, 0];
  const losses: Pick<Loss, "atMs" | "kind">[] = [];
  const left = [...thrown];
  const loseUpTo = (nth: number): void => {
    while (left[0] && left[0].nth <= nth) {
      const { atMs, kind } = left.shift()!;
      if (seconds > 0 || metres > 0) losses.push({ atMs, kind });
      [seconds, metres] = [0, 0];
    }
  };
  for (const [n, s] of times.entries()) {
    loseUpTo(s.nth);
    if (s.cause !== null) continue;
    const length = (s.toMs - s.fromMs) / 1000;
    const pace = s.metres / length;
    const forMetres = needM <= metres ? 0 : pace > 0 ? (needM - metres) / pace : Infinity;
    const wait = Math.max(0, needS - seconds, forMetres);
    if (wait <= length) {
      const doneMs = s.fromMs + wait * 1000;
      const last = { ...s, toMs: doneMs, metres: pace * wait };
      return { stretches: joined([...times.slice(0, n), last]), losses, doneMs };
    }
    seconds += length;
    metres += s.metres;
  }
  loseUpTo(Infinity);
  return { stretches: joined(times), losses, doneMs: null };
}
