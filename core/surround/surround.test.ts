import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { VEHICLES } from "@/demo/data/vehicles";
import { surroundMounts, type Vehicle } from "@/core/vehicle";
import {
  eyesOf,
  knocked,
  learnView,
  trueSteps,
  bookEyes,
  type CabinView,
} from "@/devices/vehicle/cabin-view";
import { layDown, shoved } from "@/devices/bench/mat-sim";
import {
  bendOf,
  CORNERS,
  forecastSteps,
  learnedRig,
  NoFloorError,
  playCauses,
  poseOf,
  rightRig,
  seamAct,
  shownAt,
  SIDES,
  stepsOf,
  turnedBy,
  weighCauses,
  type Cause,
  type KnownMat,
  type SideId,
  type Steps,
  type Surround,
} from ".";

const DEG = Math.PI / 180;
const TARN: Vehicle = VEHICLES.find((v) => v.id === "brannoch-tarn")!;
const CAR = {
  frontMm: TARN.wheelbaseMm + TARN.frontOverhangMm,
  rearMm: TARN.wheelbaseMm + TARN.frontOverhangMm - TARN.lengthMm,
  leftMm: TARN.widthMm / 2,
  rightMm: -TARN.widthMm / 2,
};
const SURROUND: Surround = { car: CAR, cameras: surroundMounts(TARN).mounts };
const POSES = Object.fromEntries(SIDES.map((s) => [s, poseOf(SURROUND.cameras[s])])) as Record<
  SideId,
  ReturnType<typeof poseOf>
>;
const FORM = { aheadMm: 1300, lengthMm: 5600, widthMm: 900 };
const SIGMA = { alongMm: 12, acrossMm: 12, headingRad: 0.3 * DEG };
const mat = (id: string, sign: 1 | -1): KnownMat => ({
  id,
  wanted: { xMm: TARN.wheelbaseMm, yMm: sign * 1500, headingRad: 0 },
  form: FORM,
  sigma: SIGMA,
});
const MATS = [mat("left", 1), mat("right", -1)];
const shape = (side: 1 | -1) => ({ ...FORM, side });

type Knock = (eyes: ReturnType<typeof bookEyes>) => ReturnType<typeof bookEyes>;

/** The same in the world's own terms: brackets as they come, mats shoved, the unit has learned. */
function world(
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

/** Cameras just where the book has them, and one that was knocked. */
function knockedWorld(knock: Knock): CabinView {
  const [eyes, now] = [bookEyes(TARN), knock(bookEyes(TARN))];
  return {
    car: CAR,
    mats: [],
    eyes: Object.fromEntries(
      SIDES.map((s) => [s, { truly: now[s], believed: eyes[s] }]),
    ) as CabinView["eyes"],
  };
}

describe("the stitched picture", () => {
  it("shows a camera's floor as the closed form has it: nose down and turned, to 1e-6 mm", () => {
    const { front } = POSES;
    const { xMm, zMm } = SURROUND.cameras.front;
    for (const turn of [-0.8, 0.1, 1.2].map((d) => d * DEG)) {
      // Straight ahead only the angle below the horizon changes: h / tan(angle).
      const down = { truly: turnedBy(front, { downRad: turn }), believed: front };
      const far = 1400;
      const [x, y] = shownAt(down, [xMm + far, 0]);
      expect(x).toBeCloseTo(xMm + zMm / Math.tan(Math.atan2(zMm, far) - turn), 6);
      expect(y).toBeCloseTo(0, 9);
      // A camera that looks straight down and turns about its axis turns the floor the other way.
      const plumb = poseOf({ ...SURROUND.cameras.front, downRad: 90 * DEG });
      const rolled = { truly: turnedBy(plumb, { rollRad: turn }), believed: plumb };
      const [px, py] = shownAt(rolled, [xMm + 700, 300]);
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      expect(px - xMm).toBeCloseTo(c * 700 - s * 300, 6);
      expect(py).toBeCloseTo(s * 700 + c * 300, 6);
    }
    const up = { truly: front, believed: turnedBy(front, { downRad: -80 * DEG }) };
    expect(() => shownAt(up, [xMm + 5000, 0])).toThrow(NoFloorError);
  });

  it("agrees with the world's own cameras wherever a camera was knocked, to 1e-6 mm", () => {
    const angle = fc.double({ min: -1.5 * DEG, max: 1.5 * DEG, noNaN: true });
    fc.assert(
      fc.property(fc.constantFrom(...SIDES), angle, angle, angle, (side, left, down, roll) => {
        const by = [
          { leftRad: left, downRad: 0, rollRad: 0 },
          { leftRad: 0, downRad: down, rollRad: 0 },
          { leftRad: 0, downRad: 0, rollRad: roll },
        ];
        for (const b of by) {
          const rig = {
            ...rightRig(POSES),
            [side]: { truly: turnedBy(POSES[side], b), believed: POSES[side] },
          };
          const eyes = knockedWorld((e) => ({
            ...e,
            [side]: knocked(e[side], b.leftRad, b.downRad, b.rollRad),
          }));
          const mine = stepsOf(rig, CAR);
          for (const [corner, [along, across]] of Object.entries(trueSteps(eyes))) {
            const step = mine[corner as keyof Steps];
            expect(Math.hypot(step.alongMm - along, step.acrossMm - across)).toBeLessThan(1e-6);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it("bends a line for the lens only, never for a pose", () => {
    const good = rightRig(POSES);
    const turned = turnedBy(POSES.left, { leftRad: 2 * DEG, downRad: -1.5 * DEG, rollRad: DEG });
    const off = { ...good, left: { truly: turned, believed: POSES.left } };
    expect(Math.abs(bendOf(off, CAR, "left"))).toBeLessThan(1e-6);
    const lens = { ...good, left: { ...good.left, lensShare: 0.03 } };
    expect(Math.abs(bendOf(lens, CAR, "left"))).toBeGreaterThan(10);
  });
});

describe("what a unit learns", () => {
  it("takes a mat's shift over: what one camera alone sees comes out shifted back, to 0.1 mm", () => {
    // Only the left camera sees a mat that ends before the bumpers.
    const short: KnownMat = { ...MATS[0]!, form: { aheadMm: 600, lengthMm: 3000, widthMm: 900 } };
    const rig = learnedRig(SURROUND, [short], { left: { xMm: 15, yMm: -9, headingRad: 0 } });
    const steps = stepsOf(rig, CAR);
    expect(steps["front-left"].alongMm).toBeCloseTo(-15, 0);
    for (const p of [
      [2842, 1500],
      [1500, 1400],
    ] as const) {
      const [x, y] = shownAt(rig.left, p);
      expect(Math.abs(x - (p[0] - 15))).toBeLessThan(0.1);
      expect(Math.abs(y - (p[1] + 9))).toBeLessThan(0.1);
    }
    expect(steps["front-right"].acrossMm).toBeCloseTo(0, 9);
    expect(rig.front.believed).toBe(rig.front.truly);
  });

  it("agrees with the world's unit on the steps of mats that lay wrong, in the mean of its noise", () => {
    for (const off of [
      [15, 0, 0],
      [0, -12, 0],
      [8, 5, 0.4 * DEG],
    ] as [number, number, number][]) {
      const rig = learnedRig(SURROUND, MATS, {
        right: { xMm: off[0], yMm: off[1], headingRad: off[2] },
      });
      const mine = stepsOf(rig, CAR);
      const many = Array.from({ length: 60 }, (_, i) => trueSteps(world({ right: off }, `m${i}`)));
      for (const c of CORNERS)
        for (const [k, said] of [mine[c].alongMm, mine[c].acrossMm].entries()) {
          const all = many.map((m) => m[c]![k]!);
          const mean = all.reduce((a, b) => a + b, 0) / all.length;
          const spread = Math.sqrt(all.reduce((s, v) => s + (v - mean) ** 2, 0) / all.length);
          expect(Math.abs(said - mean), c).toBeLessThan(4 * (spread / Math.sqrt(60)) + 0.1);
        }
    }
  });

  it("forecasts the steps of mats with their uncertainty, as a Monte Carlo over the unit has them", () => {
    const sigma = [6, 4, 0.12 * DEG, 5, 4, 0.1 * DEG];
    const mean = [8, 0, 0, 0, -3, 0];
    const covariance = sigma.map((s, i) => sigma.map((_, j) => (i === j ? s * s : 0)));
    const forecast = forecastSteps(SURROUND, MATS, mean, covariance);
    const random = randomFrom(41);
    const played = Array.from({ length: 800 }, () => {
      const d = mean.map((m, i) => m + sigma[i]! * gaussian(random));
      return stepsOf(
        learnedRig(SURROUND, MATS, {
          left: { xMm: d[0]!, yMm: d[1]!, headingRad: d[2]! },
          right: { xMm: d[3]!, yMm: d[4]!, headingRad: d[5]! },
        }),
        CAR,
      );
    });
    for (const c of CORNERS) {
      const across = played.map((p) => p[c].acrossMm);
      const middle = across.reduce((a, b) => a + b, 0) / across.length;
      const spread = Math.sqrt(
        across.reduce((s, v) => s + (v - middle) ** 2, 0) / (across.length - 1),
      );
      const said = forecast[c].across;
      expect(Math.abs(said.meanMm - middle)).toBeLessThan(0.15 * spread + 0.1);
      expect(said.sigmaMm / spread).toBeGreaterThan(0.9);
      expect(said.sigmaMm / spread).toBeLessThan(1.1);
    }
  });
});

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

describe("from the seams to the cause", () => {
  const causes = playCauses(SURROUND, MATS, 3);
  const steps = (s: Record<string, [number, number]>, noise: () => number) =>
    CORNERS.map((corner) => ({
      corner,
      alongMm: s[corner]![0] + noise(),
      acrossMm: s[corner]![1] + noise(),
    }));

  it("names the likeliest group rightly in nine of ten mishaps, and its chances are what comes true", () => {
    const random = randomFrom(7);
    const possible = causes.played.filter((p) => p.cause.kind !== "lens" && p.sigma > 0);
    const weight = possible.reduce((s, p) => s + p.before, 0);
    const bins = Array.from({ length: 5 }, () => ({ said: 0, came: 0, n: 0 }));
    let [first, fitted, n] = [0, 0, 0];
    while (n < 1000) {
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
    expect(first / n).toBeGreaterThan(0.9);
    expect(fitted / n).toBeGreaterThan(0.99);
    for (const b of bins.filter((x) => x.n > 30)) {
      const [said, came] = [b.said / b.n, b.came / b.n];
      expect(Math.abs(came - said)).toBeLessThan(4 * Math.sqrt((said * (1 - said)) / b.n) + 0.03);
    }
  });

  it("says so where no single thing can be behind the steps, and asks for the reading that parts two", () => {
    const still = { bent: [], straight: [] };
    const flat = CORNERS.map((corner) => ({ corner, alongMm: 0, acrossMm: 0 }));
    const two = flat.map((s) =>
      s.corner.endsWith("right")
        ? { ...s, acrossMm: -40 }
        : s.corner === "front-left"
          ? { ...s, alongMm: 30 }
          : s,
    );
    expect(seamAct(weighCauses(causes, { ...still, steps: two }))).toEqual({ kind: "again" });
    const none = seamAct(weighCauses(causes, { ...still, steps: flat }));
    expect(none.kind).toBe("leave");
    // A mat that ends before the bumpers is seen by one camera only: its shift and the camera's own
    // turn make like steps, and reading the mat is what tells them apart.
    const short: KnownMat = { ...MATS[0]!, form: { aheadMm: 600, lengthMm: 3000, widthMm: 900 } };
    const alone = playCauses(SURROUND, [short], 3);
    const rig = learnedRig(SURROUND, [short], { left: { xMm: 22, yMm: 0, headingRad: 0 } });
    const seen = CORNERS.map((corner) => ({ corner, ...stepsOf(rig, CAR)[corner] }));
    const found = weighCauses(alone, { ...still, steps: seen });
    expect(found.groups[0]!.causes.map((c) => c.cause.kind)).toContain("mat");
    expect(["read", "lay"]).toContain(seamAct(found).kind);
    // Bent lines speak of a lens.
    const good = rightRig(POSES);
    const dirty = stepsOf({ ...good, right: { ...good.right, lensShare: 0.03 } }, CAR);
    const lens = weighCauses(causes, {
      bent: ["right"],
      straight: ["front", "left", "rear"],
      steps: CORNERS.map((corner) => ({ corner, ...dirty[corner] })),
    });
    expect(lens.groups[0]!.causes[0]!.cause).toEqual({ kind: "lens", side: "right" });
    expect(seamAct(lens)).toEqual({ kind: "lens", side: "right" });
  });
});
