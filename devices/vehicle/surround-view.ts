import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import type { RoutineResult } from "@/core/run";
import { marksOn, type MatBody, type MatShape } from "../bench/mat-sim";

/**
 * The unit behind the surround view. Its cameras see the marks of the mats on the floor, and it
 * expects them where the sheet puts them about the wheels. It refuses what lies too far off, what is
 * turned, and a pair that does not agree with itself. How it joins its pictures is another matter.
 */

/** One mat as it lies, and where the unit expects its marks. */
export type SeenMat = { name: string; body: MatBody; shape: MatShape; wanted: MatBody };

/** What a camera makes of a mark on the floor, mm. */
const MARK_NOISE = 2.5;
/** Beyond these it will not join its pictures: mm, mm, and mm along the length of a mat. */
const LIMITS = { alongMm: 45, acrossMm: 60, turnMm: 70, rmsMm: 14 };

/**
 * What the unit concludes from one look at the mats.
 *
 * @param least how many of them its cameras must find
 * @param limits its own against a usual unit's: below 1 stricter, above 1 laxer
 */
export function learnSurroundView(
  mats: readonly SeenMat[],
  seed: string,
  least = 2,
  limits = 1,
): RoutineResult {
  const random = randomFrom(seedFrom(`${seed}/surround`));
  const looks = mats.map(({ name, body, shape, wanted }) => {
    const seen = marksOn(body, shape);
    const off = marksOn(wanted, shape).map((w, i) => [
      seen[i]![0] - w[0] + MARK_NOISE * gaussian(random),
      seen[i]![1] - w[1] + MARK_NOISE * gaussian(random),
    ]);
    const mean = (list: readonly number[][], k: number): number =>
      list.reduce((sum, o) => sum + o[k]!, 0) / list.length;
    const along = mean(off, 0);
    const across = mean(off, 1);
    // Marks come front pair, cross line, rear pair.
    const turn = mean(off.slice(0, 2), 1) - mean(off.slice(4), 1);
    const rms = Math.sqrt(
      off.reduce((sum, o) => sum + (o[0]! - along) ** 2 + (o[1]! - across) ** 2, 0) / off.length,
    );
    return { name, along, across, turn, rms };
  });
  const sum = looks.reduce((s, l) => s + l.rms, 0) / Math.max(1, looks.length);
  const reason =
    looks.map((l) => refusal(l, limits)).find((r) => r !== null) ??
    (mats.length < least ? few(least) : null);
  return { passed: reason === null, qualityPercent: Math.max(0, 100 - 2.2 * sum), reason };
}

const few = (least: number): string =>
  least === 1
    ? "The unit finds no mat where it looks."
    : "The unit finds one mat only: it looks for two.";

function refusal(
  l: { name: string; along: number; across: number; turn: number; rms: number },
  limits: number,
): string | null {
  const mm = (v: number): string => `${Math.abs(v).toFixed(0)} mm`;
  if (Math.abs(l.along) > LIMITS.alongMm * limits)
    return `${l.name}: lies ${mm(l.along)} too far ${l.along > 0 ? "forward" : "back"}.`;
  if (Math.abs(l.across) > LIMITS.acrossMm * limits)
    return `${l.name}: lies ${mm(l.across)} too far to vehicle ${l.across > 0 ? "left" : "right"}.`;
  if (Math.abs(l.turn) > LIMITS.turnMm * limits)
    return `${l.name}: is turned, ${mm(l.turn)} over its length.`;
  return l.rms > LIMITS.rmsMm * limits
    ? `${l.name}: its pattern does not look as it should.`
    : null;
}
