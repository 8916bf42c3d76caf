import { gaussian, randomFrom } from "@/core/math/random";
import {
  CORNERS,
  SIDES,
  weighCauses,
  type Cause,
  type Causes,
  type KnownMat,
  type Surround,
} from "@/core/surround";
import { surroundMounts, type Vehicle } from "@/core/vehicle";
import { VEHICLES } from "@/demo/data/vehicles";
import { layDown, shoved } from "@/devices/bench/mat-sim";
import type { bookEyes } from "@/devices/vehicle/cabin-view";
import {
  eyesOf,
  knocked,
  learnView,
  trueSteps,
  type CabinView,
} from "@/devices/vehicle/cabin-view";

/** Mishaps of a surround view in the world's own terms, for whoever asks the core what was behind them. */

export const DEG = Math.PI / 180;
export const TARN: Vehicle = VEHICLES.find((v) => v.id === "brannoch-tarn")!;
export const CAR = {
  frontMm: TARN.wheelbaseMm + TARN.frontOverhangMm,
  rearMm: TARN.wheelbaseMm + TARN.frontOverhangMm - TARN.lengthMm,
  leftMm: TARN.widthMm / 2,
  rightMm: -TARN.widthMm / 2,
};
export const SURROUND: Surround = { car: CAR, cameras: surroundMounts(TARN).mounts };
const FORM = { aheadMm: 1300, lengthMm: 5600, widthMm: 900 };
const SIGMA = { alongMm: 12, acrossMm: 12, headingRad: 0.3 * DEG };
const mat = (id: string, sign: 1 | -1): KnownMat => ({
  id,
  wanted: { xMm: TARN.wheelbaseMm, yMm: sign * 1500, headingRad: 0 },
  form: FORM,
  sigma: SIGMA,
});
export const MATS = [mat("left", 1), mat("right", -1)];
const shape = (side: 1 | -1) => ({ ...FORM, side });

export type Knock = (eyes: ReturnType<typeof bookEyes>) => ReturnType<typeof bookEyes>;

/** The same in the world's own terms: brackets as they come, mats shoved, the unit has learned. */
export function world(
  off: Partial<Record<string, [number, number, number]>>,
  seed: string,
  knock: Knock = (eyes) => eyes,
): CabinView {
  const mats = MATS.map((m) => {
    const wanted = layDown(m.wanted.xMm, m.wanted.yMm, 0);
    const body = shoved(wanted, ...(off[m.id] ?? [0, 0, 0]));
    return { body, wanted, shape: shape(m.id === "left" ? 1 : -1) };
  });
  const eyes = eyesOf(TARN, seed);
  const view = learnView(TARN, eyes, mats, seed);
  const now = knock(eyes);
  return {
    ...view,
    eyes: Object.fromEntries(
      SIDES.map((s) => [s, { truly: now[s], believed: view.eyes[s].believed }]),
    ) as CabinView["eyes"],
  };
}

/** One thing that went wrong, in the world's own terms, and the steps it makes. */
function mishap(cause: Cause, at: number, seed: string): Record<string, [number, number]> {
  const by = (part: string): number => ("part" in cause && cause.part === part ? at : 0);
  if (cause.kind === "mat")
    return trueSteps(world({ [cause.matId]: [by("along"), by("across"), by("heading")] }, seed));
  if (cause.kind !== "camera") return trueSteps(world({}, seed));
  const { side } = cause;
  return trueSteps(
    world({}, seed, (e) => ({
      ...e,
      [side]: knocked(e[side], by("left"), by("down"), by("roll")),
    })),
  );
}

/** All steps of a picture as somebody reads them. */
const steps = (s: Record<string, [number, number]>, noise: () => number) =>
  CORNERS.map((corner) => ({
    corner,
    alongMm: s[corner]![0] + noise(),
    acrossMm: s[corner]![1] + noise(),
  }));

/** How often the likeliest group held the truth, and what came true of chances as they were stated. */
export function reliability(causes: Causes, count: number, seed: number) {
  const random = randomFrom(seed);
  const possible = causes.played.filter((p) => p.cause.kind !== "lens" && p.sigma > 0);
  const weight = possible.reduce((s, p) => s + p.before, 0);
  const bins = Array.from({ length: 5 }, () => ({ said: 0, came: 0, n: 0 }));
  let [first, fitted, n] = [0, 0, 0];
  while (n < count) {
    let pick = random() * weight;
    const truth = possible.find((p) => (pick -= p.before) < 0) ?? possible.at(-1)!;
    const seen = steps(
      mishap(truth.cause, truth.sigma * gaussian(random), `case ${random()}`),
      () => 3 * gaussian(random),
    );
    // Nobody asks after a picture that looks right.
    if (Math.max(...seen.flatMap((s) => [Math.abs(s.alongMm), Math.abs(s.acrossMm)])) < 12)
      continue;
    n++;
    const { groups, fits } = weighCauses(causes, { steps: seen, bent: [], straight: [...SIDES] });
    if (fits) fitted++;
    const same = (c: Cause): boolean => JSON.stringify(c) === JSON.stringify(truth.cause);
    if (groups[0]!.causes.some((c) => same(c.cause))) first++;
    for (const g of groups) {
      const bin = bins[Math.min(4, Math.floor(g.chance * 5))]!;
      bin.n++;
      bin.said += g.chance;
      if (g.causes.some((c) => same(c.cause))) bin.came++;
    }
  }
  return { first: first / n, fitted: fitted / n, bins };
}
