import { gaussian, randomFrom, seedFrom, type Random } from "@/core/math/random";
import { degToRad } from "@/core/units";
import { lookAt, type Look } from "@/devices/vehicle/forward-camera";
import type { Trouble } from "@/devices/vehicle/trouble";
import {
  CAUSES,
  HABITUAL,
  HIDDEN,
  isOfBoard,
  rateOf,
  type Cause,
  type CauseAnswer,
  type CauseEvidence,
  type Looked,
} from "@/core/guide/causes";
import { BOARD_QUANTITIES, type BoardQuantity } from "@/core/guide/effects";
import { foretellAim } from "@/core/guide/foretell";

/**
 * A world that refuses: one cause is drawn, the vehicle's own camera looks, and what it answers is
 * ranked. Beside core's ranking stands Bayes' rule worked out with the vehicle's own pictures, which
 * share no formula with it.
 */
const RANGE = 3400;
const ABOVE = 40;
const WIDTH = 900;
const EYE = { xMm: 0, yMm: 0, zMm: 1205, turn: { yaw: 0, pitch: 0, roll: 0 } };
const CAMERA = foretellAim(null, []);
const USUAL: Record<BoardQuantity, number> = {
  along: 4,
  side: 3,
  height: 3,
  twist: degToRad(0.2),
  lean: degToRad(0.25),
  level: degToRad(0.2),
};

type Sizes = Record<BoardQuantity, number>;
const sizes = (of: (q: BoardQuantity) => number): Sizes =>
  Object.fromEntries(BOARD_QUANTITIES.map((q) => [q, of(q)])) as Sizes;

/** The vehicle's own look at a board that is out by so much. */
const looks = (out: Sizes, seat: Look["seat"], trouble: Trouble, seed: string, noisePx?: number) =>
  lookAt({
    ...(noisePx === undefined ? {} : { noisePx }),
    eye: EYE,
    seat,
    widthMm: WIDTH,
    board: {
      pose: { xMm: RANGE + out.along, yMm: out.side, headingRad: Math.PI + out.twist },
      heightMm: EYE.zMm + ABOVE + out.height,
      pitchRad: out.lean,
      rollRad: out.level,
    },
    believed: {
      pose: { xMm: RANGE, yMm: 0, headingRad: Math.PI },
      heightMm: EYE.zMm + ABOVE,
      pitchRad: 0,
      rollRad: 0,
    },
    trouble,
    seed,
  });

const troubleOf = (cause: Cause, size: number): Trouble =>
  cause === "clutter" || cause === "glare"
    ? { [cause]: true }
    : cause === "load"
      ? { loadRad: size }
      : cause === "print"
        ? { print: 1 + size }
        : {};

export type Failure = { cause: Cause; evidence: CauseEvidence; answer: CauseAnswer };

function answerOf(r: ReturnType<typeof lookAt>): CauseAnswer {
  const found = [r.learnedYawDeg, r.learnedPitchDeg, r.learnedRollDeg];
  return {
    code: r.refused!,
    turn: found.includes(undefined)
      ? null
      : (found.map((deg) => degToRad(deg!)) as [number, number, number]),
    qualityPercent: r.qualityPercent,
    size: r.sizePercent === undefined ? null : r.sizePercent / 100,
  };
}

const drawn = <T extends string>(random: Random, weights: Record<T, number>): T => {
  const list = Object.entries(weights) as [T, number][];
  let at = random() * list.reduce((s, [, w]) => s + w, 0);
  for (const [id, w] of list) if ((at -= w) < 0) return id;
  return list.at(-1)![0];
};

/** The n-th car that its vehicle refuses. */
export function failure(n: number): Failure {
  for (let k = 0; ; k++) {
    const seed = `refused/${n}/${k}`;
    const random = randomFrom(seedFrom(seed));
    const proved = random() < 0.6;
    const look = (): Looked => drawn(random, { looked: 6, "not-looked": 3, known: 1 });
    const looked = { print: look(), clutter: look(), glare: look(), load: look() };
    const cause = drawn(
      random,
      Object.fromEntries(CAUSES.map((c) => [c, rateOf(c, { looked, proved })])) as Record<
        Cause,
        number
      >,
    );
    const size = HABITUAL[cause].size * gaussian(random);
    const out = sizes(() => 0);
    const board = Object.fromEntries(
      BOARD_QUANTITIES.map((q) => {
        const sigma = USUAL[q] * (proved ? 0.4 : 1);
        const usual = USUAL[q] * 1.2;
        const hidden = random() < HIDDEN[proved ? "proved" : "unproved"];
        const mean = usual * gaussian(random);
        const off = sigma * gaussian(random);
        if (cause !== q || hidden) {
          out[q] = mean + off + (cause === q ? size : 0);
          return [q, { mean, sigma, usual }];
        }
        out[q] = size;
        return [q, { mean: size + off, sigma, usual }];
      }),
    ) as CauseEvidence["board"];
    const turned = (axis: number): number =>
      Math.sqrt(CAMERA.covariance[axis]![axis]!) * gaussian(random) +
      (cause === "seat" ? HABITUAL.seat.size * gaussian(random) : 0);
    const seat = { yaw: turned(0), pitch: turned(1), roll: turned(2) };
    const r = looks(out, seat, troubleOf(cause, size), seed);
    if (r.passed) continue;
    const geometry = { rangeMm: RANGE, aboveMm: ABOVE, widthMm: WIDTH };
    return {
      cause,
      evidence: { board, proved, looked, camera: CAMERA, geometry },
      answer: answerOf(r),
    };
  }
}

const normal = (x: number, s: number): number =>
  Math.exp(-0.5 * (x / s) ** 2) / (s * Math.sqrt(2 * Math.PI));

/** How much likelier a figure is by one spread than by another, also far outside of both. */
const likelier = (x: number, a: number, b: number): number =>
  (b / a) * Math.exp(Math.min(600, 0.5 * x * x * (1 / (b * b) - 1 / (a * a))));

/** What the vehicle shows of a board and a trouble: its answer with the camera straight. */
/** What noise adds to the misfit of fifteen points, px: 0.12 in u and in v, less three turns. */
const NOISE = 0.12 * Math.sqrt(2 * (27 / 30));
type Shown = { turn: number[]; rms: number; size: number };
function shown(out: Sizes, trouble: Trouble, seed: string): Shown | null {
  // Without noise of its own; what that would add to the misfit stands in `near`.
  const plain = !trouble.clutter && !trouble.glare;
  const r = looks(out, { yaw: 0, pitch: 0, roll: 0 }, trouble, seed, plain ? 0 : undefined);
  if (r.learnedYawDeg === undefined) return null;
  return {
    turn: [r.learnedYawDeg, r.learnedPitchDeg!, r.learnedRollDeg!].map(degToRad),
    rms: plain ? Math.hypot((100 - r.qualityPercent) / 22, NOISE) : (100 - r.qualityPercent) / 22,
    size: r.sizePercent! / 100,
  };
}

/** The chance of an answer of which this is the middle, with everything a camera adds. */
function near(a: CauseAnswer, s: Shown, wide: { rms: number; size: number }, seat: number): number {
  const rms = (100 - a.qualityPercent) / 22;
  const full = 100 / 22 - 1e-9;
  let p = rms < full ? normal(rms - s.rms, wide.rms) : s.rms < full ? 0 : 1;
  for (let i = 0; i < 3; i++)
    p *= normal(a.turn![i]! - s.turn[i]!, Math.hypot(Math.sqrt(CAMERA.covariance[i]![i]!), seat));
  return p * normal(a.size! - s.size, wide.size);
}

const LOST: Partial<Record<Cause, number>> = { clutter: 0.25, glare: 0.4, print: 0.2 };
const FINE = 24;

/** Bayes' rule with the vehicle's own pictures: the share of each cause. */
export function byTheVehicle({ evidence: e, answer: a }: Failure, n: number): Map<Cause, number> {
  const random = randomFrom(seedFrom(`bayes/${n}`));
  // What nobody has proved may be out by more.
  const DRAWS = e.proved ? 5 : 14;
  const draws = Array.from({ length: DRAWS }, () =>
    sizes((q) => e.board[q].mean + e.board[q].sigma * gaussian(random)),
  );
  const fine = { rms: 0.026, size: 2e-4 };
  const weight = (cause: Cause): number => {
    const lost = LOST[cause] ?? 0;
    const rate = rateOf(cause, e);
    if (!a.turn) {
      if (lost === 0) return 0;
      return rate * lost;
    }
    if (cause === "clutter" || cause === "glare") {
      const many = 400;
      let sum = 0;
      let seen = 0;
      for (let k = 0; k < many; k++) {
        const s = shown(draws[k % DRAWS]!, troubleOf(cause, 1), `bayes/${n}/${cause}/${k}`);
        if (!s) continue;
        seen++;
        sum += near(a, s, { rms: 0.15, size: 1e-3 }, 0);
      }
      return rate * (1 - lost) * (sum / Math.max(1, seen));
    }
    if (cause === "seat")
      return (
        (rate *
          draws.reduce(
            (s, d, k) => s + near(a, shown(d, {}, `b/${n}/${k}`)!, fine, HABITUAL.seat.size),
            0,
          )) /
        DRAWS
      );
    const size = HABITUAL[cause].size;
    /** The sum over its sizes, interpolated between pictures. */
    const over = (
      middle: number,
      sigma: number,
      at: (d: Sizes, s: number) => [Sizes, Trouble],
    ): number => {
      // The picture of another print changes fastest with its size.
      const [KNOTS, finer] = cause === "print" ? [161, 3 * FINE] : [33, FINE];
      let sum = 0;
      for (const d of draws) {
        const knots = Array.from({ length: KNOTS }, (_, k) => {
          const s = middle + sigma * (-4 + (8 * k) / (KNOTS - 1));
          const [out, trouble] = at(d, s);
          for (let j = 0; ; j++) {
            const found = shown(out, trouble, `bayes/${n}/${cause}/${j}`);
            if (found) return found;
          }
        });
        let weights = 0;
        let part = 0;
        for (let k = 0; k + 1 < KNOTS; k++)
          for (let f = 0; f < finer; f++) {
            const t = f / finer;
            const z = -4 + (8 * (k + t)) / (KNOTS - 1);
            const mix = (x: number, y: number): number => x * (1 - t) + y * t;
            const [x, y] = [knots[k]!, knots[k + 1]!];
            const s = {
              turn: x.turn.map((v, i) => mix(v, y.turn[i]!)),
              rms: mix(x.rms, y.rms),
              size: mix(x.size, y.size),
            };
            const w = Math.exp(-0.5 * z * z);
            weights += w;
            part += w * near(a, s, fine, 0);
          }
        sum += part / weights;
      }
      return sum / DRAWS;
    };
    if (!isOfBoard(cause))
      return rate * (1 - lost) * over(0, size, (d, s) => [d, troubleOf(cause, s)]);
    const { mean, sigma, usual } = e.board[cause];
    const total = Math.hypot(size, sigma);
    const back = (size / total) ** 2;
    const hidden = HIDDEN[e.proved ? "proved" : "unproved"];
    const seen =
      over(mean * back, (sigma * size) / total, (d, s) => [{ ...d, [cause]: s }, {}]) *
      likelier(mean, total, usual);
    const unseen = over(0, size, (d, s) => [{ ...d, [cause]: d[cause] + s }, {}]);
    return rate * ((1 - hidden) * seen + hidden * unseen);
  };
  const all = CAUSES.map((c) => [c, weight(c)] as const);
  const sum = all.reduce((s, [, w]) => s + w, 0);
  // An answer that lies beyond every picture it was given tells nothing: then all are alike.
  return new Map(all.map(([c, w]) => [c, sum > 0 ? w / sum : 1 / all.length]));
}
