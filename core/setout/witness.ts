import { choleskyInPlace } from "@/core/math/linear";
import { chiSquareUpperTail } from "@/core/math/distributions";
import { gaussian, randomFrom } from "@/core/math/random";
import { predictedReadings, type Candidate } from "./next";
import type { Slot } from "./slot";
import type { SetOutSolution } from "./solve";
import { TOUCHES } from "./touch";

/**
 * Readings taken once more after the vehicle has learned, before anything is touched: they bear
 * witness that the board stood while it looked.
 */
export type WitnessPlan = {
  slots: Slot[];
  /** How many of the knocks a stand suffers they would show, as a share. */
  share: number;
  seconds: number;
};

/** What witness readings say. */
export type Witnessed = {
  /** Chance that readings of a board nobody knocked differ by as much, or more. */
  p: number;
  /** They go with where it was proved: a board that was knocked would hardly show that. */
  stood: boolean;
  /** The share of knocks that these readings would have shown. */
  share: number;
};

/** So many knocks are to be found. */
const WANTED = 0.95;
/** A board that nobody touched is doubted as rarely as this. */
const FALSE_ALARM = 0.01;
/** Upper 1 % points of chi-square with one to four degrees of freedom. */
const LIMITS = [6.634897, 9.21034, 11.344867, 13.276704];
const DRAWS = 1000;

/** A reading as a knock shows in it: how it hangs on what is known, and on each part of a knock. */
type Line = { slot: Slot; seconds: number; g: Float64Array | null; sigma: number; knock: number[] };

/** Standard deviations of a knock's parts: x, y, heading, height, lean, level. */
const KNOCK = ((w) => [w.planMm, w.planMm, w.headingRad, w.heightMm, w.tiltRad, w.tiltRad])(
  TOUCHES.knocked.widening,
);

function lineOf(s: SetOutSolution, c: Pick<Candidate, "slot" | "play">): Line {
  const { index } = s.adjustment!.joint;
  const { gradient: g, sigma, seat, seconds } = c.play;
  const at = (row: number | undefined): number => (g && row !== undefined ? g[row]! : 0);
  const body = index[s.body]!;
  const lean = (part: "pitch" | "roll"): number | undefined => index[s.leans[part] ?? ""];
  return {
    slot: c.slot,
    seconds,
    g,
    // A seat that is known is in the gradient; one that is not is as wide as it may be.
    sigma: c.slot.seat && !index[s.seats[c.slot.seat.id] ?? ""] ? Math.hypot(sigma, seat) : sigma,
    knock: [
      at(body),
      at(body + 1),
      at(body + 2),
      c.slot.observes.in === "height" ? 1 : 0,
      at(lean("pitch")),
      at(lean("roll")),
    ].map((v, i) => v * KNOCK[i]!),
  };
}

/** Covariance of what readings would differ by from what is expected, were nothing touched. */
function unsure(s: SetOutSolution, lines: readonly Line[]): number[][] {
  const { covariance, order } = s.adjustment!.joint;
  const carried = lines.map(({ g }) => {
    const out = new Float64Array(order);
    if (g)
      for (let k = 0; k < order; k++)
        if (g[k] !== 0)
          for (let i = 0; i < order; i++) out[i]! += covariance[k * order + i]! * g[k]!;
    return out;
  });
  return lines.map((a, i) =>
    lines.map((b, j) => {
      let v = i === j ? a.sigma ** 2 : 0;
      if (a.g && b.g) for (let k = 0; k < order; k++) v += a.g[k]! * carried[j]![k]!;
      if (a.slot.observes.in === "height" && b.slot.observes.in === "height")
        v += s.scalars.height.variance;
      return v;
    }),
  );
}

/** L^-1 v with L the lower Cholesky factor of a small covariance. */
function whitener(covariance: number[][]): (v: readonly number[]) => number[] {
  const n = covariance.length;
  const l = Float64Array.from(covariance.flat());
  if (choleskyInPlace(l, n, 0) >= 0)
    throw new RangeError("The covariance of the readings is not positive.");
  return (v) => {
    const out: number[] = [];
    for (let i = 0; i < n; i++) {
      let sum = v[i]!;
      for (let k = 0; k < i; k++) sum -= l[i * n + k]! * out[k]!;
      out.push(sum / l[i * n + i]!);
    }
    return out;
  };
}

/** The same knocks for every set of readings, so that sets are compared fairly. */
function drawn(): { knock: number[][]; noise: number[][] } {
  const random = randomFrom(41);
  const list = (n: number): number[] => Array.from({ length: n }, () => gaussian(random));
  return {
    knock: Array.from({ length: DRAWS }, () => list(KNOCK.length)),
    noise: Array.from({ length: DRAWS }, () => list(LIMITS.length)),
  };
}

/** The share of knocks that readings together would show. */
function shareFound(
  s: SetOutSolution,
  lines: readonly Line[],
  { knock, noise }: ReturnType<typeof drawn>,
): number {
  const white = whitener(unsure(s, lines));
  const n = lines.length;
  // Each part of a knock, as the whitened readings see it.
  const seen = KNOCK.map((_, part) => white(lines.map((l) => l.knock[part]!)));
  let found = 0;
  for (let d = 0; d < DRAWS; d++) {
    let square = 0;
    for (let i = 0; i < n; i++) {
      let y = noise[d]![i]!;
      for (let part = 0; part < KNOCK.length; part++) y += seen[part]![i]! * knock[d]![part]!;
      square += y * y;
    }
    if (square > LIMITS[n - 1]!) found++;
  }
  return found / DRAWS;
}

/**
 * The fewest readings that would show nineteen of twenty knocks; of as many the quickest. Where four
 * do not, the best four, with the share they do show. Null while nothing is known.
 *
 * @param candidates readings that could be taken now
 */
export function witnessPlan(
  s: SetOutSolution,
  candidates: readonly Pick<Candidate, "slot" | "play" | "anew">[],
): WitnessPlan | null {
  if (!s.adjustment) return null;
  const lines = candidates
    // A laser that sits where the board hangs would take the board off.
    .filter((c) => !c.anew && !(s.laserOff && c.slot.instrument === "laser"))
    .map((c) => lineOf(s, c))
    .filter((l) => l.knock.some((v) => v !== 0));
  if (lines.length === 0) return null;
  const draws = drawn();
  type Told = { lines: Line[]; share: number } | null;
  let best: Told = null as Told;
  for (let size = 1; size <= LIMITS.length; size++) {
    const sets: Line[][] =
      size <= 2
        ? lines.flatMap((a, i) => (size === 1 ? [[a]] : lines.slice(i + 1).map((b) => [a, b])))
        : lines.filter((l) => !best!.lines.includes(l)).map((l) => [...best!.lines, l]);
    const told = sets.map((of) => ({ lines: of, share: shareFound(s, of, draws) }));
    const seconds = (of: readonly Line[]): number => of.reduce((sum, l) => sum + l.seconds, 0);
    const enough = told.filter((t) => t.share >= WANTED);
    if (enough.length > 0) {
      best = enough.reduce((a, b) => (seconds(b.lines) < seconds(a.lines) ? b : a));
      break;
    }
    const most: Told = told.reduce<Told>((a, b) => (a && a.share >= b.share ? a : b), best);
    if (most === best) break;
    best = most;
  }
  return (
    best && {
      slots: best.lines.map((l) => l.slot),
      share: best.share,
      seconds: best.lines.reduce((sum, l) => sum + l.seconds, 0),
    }
  );
}

/**
 * Holds readings taken afterwards against where the board was proved to stand.
 *
 * @param s as it was known when the vehicle looked
 * @param readings what was shown since, one of each slot; those of unknown slots are left out
 * @returns null where none of them says anything
 */
export function bearWitness(
  s: SetOutSolution,
  candidates: readonly Pick<Candidate, "slot" | "play" | "anew">[],
  readings: readonly { slotId: string; shown: number; sigma: number }[],
): Witnessed | null {
  if (!s.adjustment) return null;
  const expected = predictedReadings(s);
  const taken = readings.flatMap((r) => {
    const c = candidates.find((x) => x.slot.id === r.slotId && !x.anew);
    if (!c) return [];
    const off = c.slot.toModel(r.shown) - c.slot.toModel(expected.get(r.slotId)!);
    return [{ line: { ...lineOf(s, c), sigma: r.sigma }, off }];
  });
  if (taken.length === 0) return null;
  const share = shareFound(
    s,
    taken.slice(0, LIMITS.length).map((t) => t.line),
    drawn(),
  );
  const y = whitener(
    unsure(
      s,
      taken.map((t) => t.line),
    ),
  )(taken.map((t) => t.off));
  const p = chiSquareUpperTail(
    y.reduce((sum, v) => sum + v * v, 0),
    y.length,
  );
  return { p, stood: p >= FALSE_ALARM, share };
}
