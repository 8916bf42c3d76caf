import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { degToRad } from "@/core/units";
import { mountedAfter, onDisplay, turnedBy, type ArmCamera } from "@/devices/vehicle/mirror-camera";
import { adviseAim, AimError, aimShowing, groundAt, meaningOf, shownAt, type AimTask } from ".";

const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const DIVISION = degToRad(1);
const camera = { xMm: 5480, yMm: 1520, zMm: 2540 };
const mark = { xMm: -5000, yMm: 1740, zMm: 0 };

const task = (side: "left" | "right"): AimTask => {
  const out = side === "left" ? 1 : -1;
  return {
    side,
    camera: { ...camera, yMm: out * camera.yMm },
    mark: { ...mark, yMm: out * mark.yMm },
    divisionRad: DIVISION,
    wanted: { right: 2 * out, up: -1 },
    stepRad: { pan: degToRad(0.12), tilt: degToRad(0.1) },
    within: 0.4,
  };
};

describe("a mirror camera's display", () => {
  it("shows a point where a lens turned in space shows it, to 1e-9 of a division", () => {
    fc.assert(
      fc.property(
        num(-0.5, 0.5),
        num(-0.1, 0.6),
        num(-12_000, 3000),
        num(-4000, 4000),
        num(0, 1500),
        (turn, down, x, y, z) => {
          const arm: ArmCamera = { side: "left", at: [5480, 1520, 2540], turn, down };
          const own = shownAt(
            camera,
            { headingRad: Math.PI + turn, downRad: down },
            { xMm: x, yMm: y, zMm: z },
            DIVISION,
          );
          const seen = onDisplay(arm, [x, y, z], DIVISION);
          expect(own === null).toBe(seen === null);
          if (!own || !seen || Math.hypot(seen.right, seen.up) > 100) return;
          expect(own.right).toBeCloseTo(seen.right, 9);
          expect(own.up).toBeCloseTo(seen.up, 9);
        },
      ),
      { numRuns: 400 },
    );
  });

  it("is aimed so that the point stands where it is wanted, whatever that is", () => {
    fc.assert(
      fc.property(
        num(-9000, 2000),
        num(-2000, 4000),
        num(-12, 12),
        num(-8, 8),
        (x, y, right, up) => {
          const point = { xMm: x, yMm: y, zMm: 0 };
          const aim = aimShowing(camera, point, { right, up }, DIVISION);
          const at = shownAt(camera, aim, point, DIVISION)!;
          expect(at.right).toBeCloseTo(right, 9);
          expect(at.up).toBeCloseTo(up, 9);
          // The place on the ground that stands there is the point again.
          const ground = groundAt(camera, aim, { right, up }, DIVISION)!;
          expect(Math.hypot(ground.xMm - x, ground.yMm - y)).toBeLessThan(1e-5);
        },
      ),
    );
  });

  it("says so where no aim shows the mark there", () => {
    const under = { xMm: camera.xMm, yMm: camera.yMm + 1, zMm: 0 };
    expect(() => aimShowing(camera, under, { right: 40, up: 0 }, DIVISION)).toThrow(AimError);
  });

  it("shows a mark more to the left once a left camera is turned outward, and lower once it is turned up", () => {
    // On the left display the vehicle stands at the right edge: turned away from it, all goes there.
    const left: ArmCamera = mountedAfter("x", "left", [5480, 1520, 2540], { turn: 0, down: 0.2 });
    const step = { pan: 0.01, tilt: 0.01 };
    const at = (pan: number, tilt: number, arm = left) =>
      onDisplay(turnedBy(arm, [{ pan, tilt }], step, "x"), [-5000, 1740, 0], DIVISION)!;
    expect(at(3, 0).right).toBeGreaterThan(at(0, 0).right);
    expect(at(0, 3).up).toBeLessThan(at(0, 0).up);
    const right = mountedAfter("x", "right", [5480, -1520, 2540], { turn: 0, down: 0.2 });
    const mirrored = (pan: number) =>
      onDisplay(turnedBy(right, [{ pan, tilt: 0 }], step, "x"), [-5000, -1740, 0], DIVISION)!;
    expect(mirrored(3).right).toBeLessThan(mirrored(0).right);
  });
});

describe("the advice", () => {
  it("is nothing where the mark stands right, and takes back what a camera was turned by", () => {
    const sigma = { markMm: 3, cameraMm: 4, divisions: 0.2 };
    for (const side of ["left", "right"] as const) {
      const t = task(side);
      const still = adviseAim(t, t.wanted, sigma);
      expect(still).toMatchObject({ inside: true, steps: { pan: 0, tilt: 0 } });
      const right = aimShowing(t.camera, t.mark, t.wanted, DIVISION);
      // Seven commands outward and three up, by the definition of both.
      const out = side === "left" ? -1 : 1;
      const gone = {
        headingRad: right.headingRad + out * 7 * t.stepRad.pan,
        downRad: right.downRad - 3 * t.stepRad.tilt,
      };
      const read = shownAt(t.camera, gone, t.mark, DIVISION)!;
      const advice = adviseAim(t, read, sigma);
      expect(advice.steps).toEqual({ pan: -7, tilt: -3 });
      expect(advice.left.pan).toBeCloseTo(0, 9);
      expect(advice.left.tilt).toBeCloseTo(0, 9);
      expect(advice.then.right).toBeCloseTo(t.wanted.right, 9);
    }
  });

  it("brings cameras that motors turn badly inside, and knows the aim as well as it says: 2,000 of them", () => {
    const inside = { pan: 0, tilt: 0 };
    let [there, rounds] = [0, 0];
    const RUNS = 2000;
    for (let n = 0; n < RUNS; n++) {
      const random = randomFrom(91_000_000 + n);
      const side = n % 2 ? "left" : "right";
      const t = task(side);
      const about = (sigma: number): number => sigma * gaussian(random);
      // The mark lies about where it is thought to, the camera sits about where its book has it.
      const [sigmaMark, sigmaCamera] = [3, 4];
      const mounted = mountedAfter(`arms/${n}`, side, [t.camera.xMm, t.camera.yMm, t.camera.zMm], {
        turn: side === "left" ? -0.05 : 0.05,
        down: 0.25,
      });
      const start: ArmCamera = {
        ...mounted,
        at: [
          t.camera.xMm + about(sigmaCamera),
          t.camera.yMm + about(sigmaCamera),
          t.camera.zMm + about(sigmaCamera),
        ],
      };
      const truly = [t.mark.xMm + about(sigmaMark), t.mark.yMm + about(sigmaMark), 0] as const;
      const turns: { pan: number; tilt: number }[] = [];
      for (let round = 0; round < 6; round++) {
        const arm = turnedBy(start, turns, t.stepRad, `m/${n}`);
        const at = onDisplay(arm, truly, DIVISION)!;
        const read = { right: at.right + about(0.2), up: at.up + about(0.2) };
        const advice = adviseAim(t, read, {
          markMm: sigmaMark,
          cameraMm: sigmaCamera,
          divisions: 0.2,
        });
        if (round === 0) {
          // What the aim truly is, against what follows from the reading.
          const said = aimShowing(t.camera, t.mark, read, DIVISION);
          const pan = Math.PI + arm.turn - said.headingRad;
          const off = Math.atan2(Math.sin(pan), Math.cos(pan));
          if (Math.abs(off) < 1.96 * advice.sigma.pan) inside.pan++;
          if (Math.abs(arm.down - said.downRad) < 1.96 * advice.sigma.tilt) inside.tilt++;
        }
        if (advice.inside) {
          there++;
          rounds += round;
          break;
        }
        turns.push(advice.steps);
      }
    }
    for (const share of [inside.pan / RUNS, inside.tilt / RUNS]) {
      expect(share).toBeGreaterThan(0.93);
      expect(share).toBeLessThan(0.97);
    }
    expect(there / RUNS).toBeGreaterThan(0.99);
    expect(rounds / there).toBeLessThan(2);
  });
});

describe("what a mark that lies wrong means", () => {
  const scene = {
    camera,
    mark,
    divisionRad: DIVISION,
    wanted: { right: 2, up: -1 },
    most: 12,
    flankMm: 1240,
    trailerEndMm: -7000,
  };

  it("is nothing for one that lies right", () => {
    const m = meaningOf(scene, { ahead: 0, left: 0 });
    expect(Math.abs(m.blindMm)).toBeLessThan(0.2);
    expect(m.endLineMm).toBeCloseTo(0, 6);
    expect(m.headingRad).toBe(0);
  });

  it("is a turn of the camera by the angle between both places, seen from above", () => {
    const m = meaningOf(scene, { ahead: 0, left: 30 });
    const at = (y: number): number => Math.atan2(y - camera.yMm, mark.xMm - camera.xMm);
    // The heading beside the axis changes with the tilt too, by far less than this.
    expect(m.headingRad).toBeCloseTo(at(1770) - at(1740), 5);
    expect(m.downRad).toBeLessThan(1e-4);
  });

  it("is a blind strip as the lower edge of the display has it where the flank lies under the camera", () => {
    const under = {
      ...scene,
      flankMm: camera.yMm,
      wanted: { right: 0, up: 0 },
      mark: { ...mark, yMm: camera.yMm },
    };
    const edge = Math.atan(12 * Math.tan(DIVISION));
    const nearest = (ahead: number): number => {
      const down = Math.atan(camera.zMm / (camera.xMm - mark.xMm - ahead));
      return camera.zMm / Math.tan(down + edge);
    };
    for (const ahead of [-400, -30, 30, 400]) {
      const m = meaningOf(under, { ahead, left: 0 });
      expect(m.blindMm).toBeCloseTo(nearest(ahead) - nearest(0), 0);
      expect(Math.sign(m.endLineMm)).toBe(-Math.sign(ahead));
    }
  });
});
