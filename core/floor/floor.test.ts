import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fitLinear, LooseFitError } from "@/core/math/fit";
import { gaussian, randomFrom } from "@/core/math/random";
import {
  fitGlass,
  fitStance,
  GLASS_SPOTS,
  glassPlace,
  type Corner,
  type Glass,
  type GlassSpot,
} from "@/core/vehicle";
import { VEHICLES } from "@/demo/data/vehicles";
import { leastSquaresByQr } from "@/tests/independent-solver";
import { fitFloor, type FloorSpot } from ".";

const v = VEHICLES[0]!;
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe("linear least squares", () => {
  it("agrees with an orthogonal solver to 1e-9, and its covariance is the inverse of the normal matrix", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 4, max: 9 }), (seed, m) => {
        const random = randomFrom(seed);
        const rows = Array.from({ length: m }, () => [
          1,
          2000 * gaussian(random),
          900 * gaussian(random),
        ]);
        const values = rows.map(() => 10 * gaussian(random));
        const sigmas = rows.map(() => 0.5 + random());
        const ours = fitLinear(rows, values, sigmas);
        const columns = [0, 1, 2].map((k) => rows.map((r, i) => r[k]! / sigmas[i]!));
        const theirs = leastSquaresByQr(
          columns,
          values.map((l, i) => l / sigmas[i]!),
        );
        theirs.forEach((x, k) =>
          expect(Math.abs(ours.x[k]! - x)).toBeLessThan(1e-9 * (k === 0 ? 10 : 1)),
        );
        // Redundancies sum to the degrees of freedom.
        expect(ours.redundancy.reduce((a, b) => a + b, 0)).toBeCloseTo(ours.degreesOfFreedom, 6);
      }),
    );
  });
  it("refuses a height that is no number, instead of a plane that is none", () => {
    const tyres: FloorSpot[] = [
      [0, 800],
      [0, -800],
      [2600, 800],
      [2600, -800],
    ].map(([x, y], i) => ({
      id: `t${i}`,
      xMm: x!,
      yMm: y!,
      heightMm: i === 2 ? NaN : 0,
      sigmaMm: 0.8,
    }));
    expect(() => fitFloor(tyres, [])).toThrow(/Measurement 3 is not a number/);
  });
  it("refuses what leaves a parameter loose", () => {
    expect(() =>
      fitLinear(
        [
          [1, 0, 0],
          [1, 1, 1],
        ],
        [0, 0],
        [1, 1],
      ),
    ).toThrow(LooseFitError);
    expect(() =>
      fitLinear(
        [
          [1, 0],
          [1, 0],
          [1, 0],
        ],
        [1, 2, 3],
        [1, 1, 1],
      ),
    ).toThrow(LooseFitError);
    expect(() => fitLinear([], [], [])).toThrow(LooseFitError);
  });
});

const tyre = (id: string, xMm: number, yMm: number, heightMm: number): FloorSpot => ({
  id,
  xMm,
  yMm,
  heightMm,
  sigmaMm: 0.8,
});
const tyresOn = (z: (x: number, y: number) => number): FloorSpot[] =>
  [
    ["FL", v.wheelbaseMm, 780],
    ["FR", v.wheelbaseMm, -780],
    ["RL", 0, 780],
    ["RR", 0, -780],
  ].map(([id, x, y]) => tyre(id as string, x as number, y as number, z(x as number, y as number)));

describe("the floor", () => {
  it("finds a plane exactly: slopes, no twist, and the correction at the stand", () => {
    fc.assert(
      fc.property(
        number(-0.02, 0.02),
        number(-0.02, 0.02),
        number(-20, 20),
        number(-15, 15),
        (a, b, c, step) => {
          const plane = (x: number, y: number): number => c + a * x + b * y;
          const spot = tyre("stand", 5470, 120, plane(5470, 120) + step);
          const floor = fitFloor(tyresOn(plane), [spot]);
          expect(floor.slopeAhead.value).toBeCloseTo(a, 9);
          expect(floor.slopeLeft.value).toBeCloseTo(b, 9);
          expect(floor.twist!.value).toBeCloseTo(0, 8);
          expect(floor.correction!.value).toBeCloseTo(step, 6);
          expect(floor.planeAt(1000, -300).value).toBeCloseTo(a * 1000 - b * 300, 6);
        },
      ),
    );
  });
  it("shows a twisted floor as a twist and splits it evenly over the tyres, as the closed form says", () => {
    const floor = fitFloor(
      tyresOn((x, y) => (x > 1000 ? 1 : -1) * (y > 0 ? 1 : -1) * 3),
      [],
    );
    expect(floor.twist!.value).toBeCloseTo(3, 9);
    expect(floor.slopeAhead.value).toBeCloseTo(0, 9);
    floor.fit.residuals.forEach((r) => expect(Math.abs(r)).toBeCloseTo(3, 6));
    expect(floor.correction).toBeNull();
  });
  it("takes three tyres, refuses two", () => {
    const tyres = tyresOn((x) => 0.01 * x);
    expect(fitFloor(tyres.slice(0, 3), []).slopeAhead.value).toBeCloseTo(0.01, 9);
    expect(fitFloor(tyres.slice(0, 3), []).twist).toBeNull();
    expect(() => fitFloor(tyres.slice(0, 2), [])).toThrow(LooseFitError);
  });
  it("states uncertainties that cover: 93 to 97 % of 2,000 floors", () => {
    const random = randomFrom(3);
    let inside = 0;
    for (let i = 0; i < 2000; i++) {
      const noisy = (s: FloorSpot): FloorSpot => ({
        ...s,
        heightMm: s.heightMm + s.sigmaMm * gaussian(random),
      });
      const spots = [tyre("a", 5400, 300, 4), tyre("b", 5500, -300, 4)].map(noisy);
      const { correction } = fitFloor(tyresOn(() => 0).map(noisy), spots);
      if (Math.abs(correction!.value - 4) < 1.96 * correction!.sigma) inside++;
    }
    expect(inside).toBeGreaterThan(1860);
    expect(inside).toBeLessThan(1940);
  });
});

const NOMINAL: Record<Corner, number> = { FL: 668, FR: 668, RL: 674, RR: 674 };

describe("the body's stance", () => {
  it("finds heave, pitch and roll exactly, and what they do to the camera", () => {
    fc.assert(
      fc.property(
        number(-40, 40),
        number(-0.02, 0.02),
        number(-0.02, 0.02),
        (heave, pitch, roll) => {
          const at = (c: Corner): number => {
            const front = c[0] === "F";
            const y = ((c[1] === "L" ? 1 : -1) * (front ? v.trackFrontMm : v.trackRearMm)) / 2;
            return NOMINAL[c] + heave + (pitch * ((front ? 1 : -1) * v.wheelbaseMm)) / 2 + roll * y;
          };
          const s = fitStance(
            v,
            { FL: at("FL"), FR: at("FR"), RL: at("RL"), RR: at("RR") },
            NOMINAL,
            1,
          );
          expect(s.heaveMm.value).toBeCloseTo(heave, 8);
          expect(s.pitchRad.value).toBeCloseTo(pitch, 10);
          expect(s.rollRad.value).toBeCloseTo(roll, 10);
          expect(s.warpMm.value).toBeCloseTo(0, 8);
          expect(s.cameraHeightMm.value).toBeCloseTo(
            v.camera.zMm + heave + pitch * (v.camera.xMm - v.wheelbaseMm / 2),
            7,
          );
        },
      ),
    );
  });
  it("calls one sagging corner a warp and says how much of it shows", () => {
    const s = fitStance(v, { ...NOMINAL, RL: NOMINAL.RL - 12 }, NOMINAL, 1);
    expect(Math.abs(s.warpMm.value)).toBeGreaterThan(2.5);
    expect(Math.abs(s.warpMm.value) / s.warpMm.sigma).toBeGreaterThan(3.29);
    expect(() => fitStance(v, { FL: 668, FR: 668 }, NOMINAL, 1)).toThrow(LooseFitError);
  });
  it("covers: the camera's height lies inside its 95 % in 93 to 97 % of 2,000 cars", () => {
    const random = randomFrom(5);
    let inside = 0;
    for (let i = 0; i < 2000; i++) {
      const read = (c: Corner): number => NOMINAL[c] + 1.5 * gaussian(random);
      const s = fitStance(
        v,
        { FL: read("FL"), FR: read("FR"), RL: read("RL"), RR: read("RR") },
        NOMINAL,
        1.5,
      );
      if (Math.abs(s.cameraHeightMm.value - v.camera.zMm) < 1.96 * s.cameraHeightMm.sigma) inside++;
    }
    expect(inside).toBeGreaterThan(1860);
    expect(inside).toBeLessThan(1940);
  });
});

const GLASS: Glass = {
  widthMm: 1380,
  heightMm: 820,
  rakeRad: (28 * Math.PI) / 180,
  bracketAcrossMm: 0,
  bracketUpMm: 330,
};

/**
 * Depths of a glass turned rigidly by small angles about the vehicle's own axes, by plain 3-D
 * geometry.
 */
function turned(
  g: Glass,
  yaw: number,
  pitch: number,
  roll: number,
): Partial<Record<GlassSpot, number>> {
  const [c, s] = [Math.cos(g.rakeRad), Math.sin(g.rakeRad)];
  return Object.fromEntries(
    GLASS_SPOTS.map((spot) => {
      const { u, v: up } = glassPlace(g, spot);
      // A point of the glass in vehicle axes, from its centre; its displacement is omega x r; depth
      // is along the normal.
      const r = [-c * up, u, s * up] as const;
      const d = [
        pitch * r[2] - yaw * r[1],
        yaw * r[0] - roll * r[2],
        roll * r[1] - pitch * r[0],
      ] as const;
      return [spot, d[0] * s + d[2] * c];
    }),
  );
}

describe("the seat of the glass", () => {
  it("turns a pitch into a pitch exactly", () => {
    const seat = fitGlass(GLASS, turned(GLASS, 0, 0.004, 0), 0.3);
    expect(seat.pitchRad.value).toBeCloseTo(0.004, 9);
    expect(seat.yawRad.value).toBeCloseTo(0, 9);
  });
  it("sees exactly the part of yaw and roll that leaves the glass's own plane", () => {
    fc.assert(
      fc.property(
        number(-0.01, 0.01),
        number(-0.01, 0.01),
        number(-0.01, 0.01),
        (yaw, pitch, roll) => {
          const seat = fitGlass(GLASS, turned(GLASS, yaw, pitch, roll), 0.3);
          // Rotation about the direction up along the glass: its component of (roll, pitch, yaw).
          const about = -Math.cos(GLASS.rakeRad) * roll + Math.sin(GLASS.rakeRad) * yaw;
          expect(seat.pitchRad.value).toBeCloseTo(pitch, 9);
          expect(seat.yawRad.value).toBeCloseTo(about * Math.sin(GLASS.rakeRad), 9);
          expect(seat.rollRad.value).toBeCloseTo(-about * Math.cos(GLASS.rakeRad), 9);
          expect(seat.twistMm!.value).toBeCloseTo(0, 8);
        },
      ),
    );
  });
  it("shows one proud corner as twist and turn, names a misread spot, and covers", () => {
    const proud = fitGlass(GLASS, { ...turned(GLASS, 0, 0, 0), "top-left": 4 }, 0.3);
    expect(Math.abs(proud.twistMm!.value)).toBeGreaterThan(0.5);
    expect(proud.odd).not.toBeNull();
    const random = randomFrom(8);
    let inside = 0;
    for (let i = 0; i < 2000; i++) {
      const depths = Object.fromEntries(GLASS_SPOTS.map((s) => [s, 0.4 * gaussian(random)]));
      const { pitchRad } = fitGlass(GLASS, depths, 0.4);
      if (Math.abs(pitchRad.value) < 1.96 * pitchRad.sigma) inside++;
    }
    expect(inside).toBeGreaterThan(1860);
    expect(inside).toBeLessThan(1940);
  });
  it("fits a plane to three corners, refuses three in a line", () => {
    expect(fitGlass(GLASS, { "top-left": 1, "top-right": 1, bottom: 0 }, 0.3).twistMm).toBeNull();
    expect(() => fitGlass(GLASS, { "top-left": 1, top: 1, "top-right": 1 }, 0.3)).toThrow(
      LooseFitError,
    );
  });
});
