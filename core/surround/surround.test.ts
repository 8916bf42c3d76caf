import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { bookEyes, knocked, trueSteps, type CabinView } from "@/devices/vehicle/cabin-view";
import { CAR, DEG, MATS, reliability, SURROUND, TARN, world, type Knock } from "@/tests/mishaps";
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
  type KnownMat,
  type SideId,
  type Steps,
} from ".";

const POSES = Object.fromEntries(SIDES.map((s) => [s, poseOf(SURROUND.cameras[s])])) as Record<
  SideId,
  ReturnType<typeof poseOf>
>;

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

describe("from the seams to the cause", () => {
  const causes = playCauses(SURROUND, MATS, 3);
  it("names the likeliest group rightly in nine of ten mishaps, and its chances are what comes true", () => {
    const { first, fitted, bins } = reliability(causes, 1000, 7);
    expect(first).toBeGreaterThan(0.9);
    expect(fitted).toBeGreaterThan(0.99);
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
