import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { FloorPoint, Mount } from "@/core/surround/mount";
import { degToRad } from "@/core/units";
import { boardErrors, guideErrors, radarError, radarOff, turnedErrors } from ".";

const mount: Mount = {
  xMm: -1000,
  yMm: 0,
  zMm: 1000,
  headingRad: Math.PI,
  downRad: degToRad(40),
  rollRad: 0,
};
const LINES: FloorPoint[] = [
  [-2000, 900],
  [-4000, 0],
  [-6000, -900],
];
const corners: FloorPoint[] = [
  [-3000, 1200],
  [-3000, -1200],
  [-4200, 1200],
  [-4200, -1200],
  [-3600, 0],
];
const num = (by: number) => fc.double({ min: -by, max: by, noNaN: true });

describe("guide lines", () => {
  it("lie right after marks that lie right", () => {
    const marks = corners.map((c) => ({ truly: c, wanted: c }));
    for (const { offMm } of guideErrors(mount, marks, LINES))
      expect(Math.hypot(...offMm)).toBeLessThan(1e-6);
  });

  it("go with the mat in its midst: what it was shoved by, the lines there are off by", () => {
    fc.assert(
      fc.property(num(30), num(30), (x, y) => {
        const marks = corners.map(([a, b]) => ({
          wanted: [a, b] as const,
          truly: [a + x, b + y] as const,
        }));
        const [middle] = guideErrors(mount, marks, [[-3600, 0]]);
        // The unit takes what it sees for the place: a line for that place is drawn where it was shoved.
        expect(middle!.offMm[0]).toBeCloseTo(x, 0);
        expect(middle!.offMm[1]).toBeCloseTo(y, 0);
      }),
    );
  });

  it("swing about the camera by as much as its board stood aside, and no error along its view counts", () => {
    const level: Mount = { ...mount, downRad: 0 };
    fc.assert(
      fc.property(num(80), num(300), (aside, away) => {
        const board = (x: number, y: number): [number, number, number] => [x, y, level.zMm];
        const off = boardErrors(
          level,
          { wanted: board(-3500, 0), truly: board(-3500 - away, aside) },
          LINES,
        );
        // From the camera the board stands aside by this angle; level, a turn leaves distances.
        const angle = Math.atan2(aside, 2500 + away);
        for (const { at, seen } of off) {
          const [dx, dy] = [at[0] - level.xMm, at[1] - level.yMm];
          const far = Math.hypot(dx, dy);
          const bearing = Math.atan2(dy, dx) - angle;
          expect(seen[0]).toBeCloseTo(level.xMm + far * Math.cos(bearing), 4);
          expect(seen[1]).toBeCloseTo(level.yMm + far * Math.sin(bearing), 4);
        }
      }),
    );
  });

  it("are off as a turn about the upright through the camera has it", () => {
    // Level and turned about the vertical, every place goes round the foot of the camera.
    const level: Mount = { ...mount, downRad: degToRad(90), headingRad: Math.PI };
    const turn = degToRad(0.5);
    // A camera that looks straight down turns about the vertical by its roll.
    for (const { at, seen } of turnedErrors(level, { rollRad: turn }, LINES)) {
      const [dx, dy] = [at[0] - level.xMm, at[1] - level.yMm];
      const far = Math.hypot(dx, dy);
      expect(Math.hypot(seen[0] - level.xMm, seen[1] - level.yMm)).toBeCloseTo(far, 6);
      const off = Math.hypot(seen[0] - at[0], seen[1] - at[1]);
      expect(off).toBeCloseTo(2 * far * Math.sin(turn / 2), 6);
    }
  });

  it("of a rear camera that looks half a degree lower lie too near, by the plain geometry of its ray", () => {
    const [line] = turnedErrors(mount, { downRad: degToRad(0.5) }, [[-4000, 0]]);
    const down = Math.atan2(1000, 3000) + degToRad(0.5);
    expect(line!.seen[0]).toBeCloseTo(-1000 - 1000 / Math.tan(down), 6);
    expect(line!.offMm[0]).toBeGreaterThan(50);
  });
});

describe("a radar", () => {
  const radar = { xMm: 3600, yMm: 0, zMm: 540 };
  const wanted = { xMm: 5420, yMm: 0, zMm: 540 };
  it("puts all to the right that was shown a reflector too far left, and low for one too high", () => {
    const e = radarError(radar, wanted, { ...wanted, yMm: 30, zMm: 560 });
    expect(e.yawRad).toBeCloseTo(-Math.atan(30 / 1820), 12);
    expect(e.pitchRad).toBeCloseTo(-Math.atan2(20, Math.hypot(1820, 30)), 12);
    expect(radarOff(e, 100_000).leftMm).toBeCloseTo((-30 / 1820) * 100_000, 6);
  });
  it("is right about a reflector that only stands nearer", () => {
    const e = radarError(radar, wanted, { ...wanted, xMm: 5300 });
    expect(Math.abs(e.yawRad) + Math.abs(e.pitchRad)).toBe(0);
  });
});
