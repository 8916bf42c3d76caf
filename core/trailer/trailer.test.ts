import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { angleOf, coupled, pulled, steeredBy, type TrainShape } from "@/devices/bench/trailer-sim";
import {
  articulationAfter,
  articulationFrom,
  straighten,
  turnAfter,
  type TapeId,
  type TapeReading,
  type TowFrame,
  type TrailerFrame,
  type Train,
} from ".";

const DEG = Math.PI / 180;

/** The angle's equation by Runge-Kutta of the fourth order, 4,000 steps: independent of its roots. */
function integrated(t: Train, from: number, steer: number, far: number): number {
  const k = Math.tan(steer) / t.wheelbaseMm;
  const slope = (g: number): number =>
    -Math.sin(g) / t.hitchToAxleMm - k * (1 + (t.behindMm / t.hitchToAxleMm) * Math.cos(g));
  const h = far / 4000;
  let g = from;
  for (let i = 0; i < 4000; i++) {
    const a = slope(g);
    const b = slope(g + (h / 2) * a);
    const c = slope(g + (h / 2) * b);
    const d = slope(g + h * c);
    g += (h / 6) * (a + 2 * b + 2 * c + d);
  }
  return g;
}

const trains = fc.record({
  wheelbaseMm: fc.double({ min: 2400, max: 4200, noNaN: true }),
  behindMm: fc.double({ min: 0, max: 1600, noNaN: true }),
  hitchToAxleMm: fc.double({ min: 3000, max: 9000, noNaN: true }),
});
const angle = (most: number) => fc.double({ min: -most * DEG, max: most * DEG, noNaN: true });

describe("a pull", () => {
  it("agrees with numerical integration to 1e-6 rad, straight, held and folding in", () => {
    fc.assert(
      fc.property(
        trains,
        angle(40),
        angle(30),
        fc.double({ min: 200, max: 9000, noNaN: true }),
        (t, from, steer, far) => {
          const exact = articulationAfter(t, from, steer, far);
          expect(Math.abs(exact - integrated(t, from, steer, far))).toBeLessThan(1e-6);
        },
      ),
    );
    const t = { wheelbaseMm: 2800, behindMm: 900, hitchToAxleMm: 4000 };
    expect(articulationAfter(t, 8 * DEG, 0, 4000)).toBeCloseTo(
      2 * Math.atan(Math.tan(4 * DEG) / Math.E),
      12,
    );
    expect(turnAfter(t, 10 * DEG, 2000)).toBeCloseTo((2000 * Math.tan(10 * DEG)) / 2800, 12);
  });

  it("is what a trailer on the floor does, drawn along by small steps, to a hundredth of a degree", () => {
    fc.assert(
      fc.property(trains, angle(15), angle(20), (t, from, steer) => {
        const shape: TrainShape = {
          wheelbase: t.wheelbaseMm,
          behind: t.behindMm,
          bar: t.hitchToAxleMm,
        };
        const after = pulled(coupled(shape, from), shape, steer, 2500);
        expect(
          Math.abs(articulationAfter(t, from, steer, 2500) - angleOf(after, shape)),
        ).toBeLessThan(0.01 * DEG);
      }),
      { numRuns: 25 },
    );
  });
});

const TOW: TowFrame = {
  rearHalfMm: 820,
  hubHeightMm: 340,
  behindMm: 950,
  hubSigmaMm: 1.5,
  hitchSigmaMm: 3,
};
const TRAILER: TrailerFrame = {
  hitchToAxleMm: 4300,
  halfMm: 990,
  hubHeightMm: 300,
  hubSigmaMm: 2,
  hitchSigmaMm: 3,
};
const TAPE_SIGMA = 3;
const ENDS: Record<TapeId, [1 | -1, 1 | -1]> = {
  left: [1, 1],
  right: [-1, -1],
  "left-right": [1, -1],
  "right-left": [-1, 1],
};

/**
 * Tapes of a coupling of which every part is a little off its book, both ways, by plain trigonometry of
 * its own.
 */
function tapesOf(
  angleRad: number,
  random: () => number,
  slip: Partial<Record<TapeId, number>> = {},
) {
  const [c, s] = [Math.cos(angleRad), Math.sin(angleRad)];
  const off = (sigma: number): number => sigma * gaussian(random);
  const ball = [-TOW.behindMm + off(TOW.hitchSigmaMm), off(TOW.hitchSigmaMm)] as const;
  const bar = [
    TRAILER.hitchToAxleMm + off(TRAILER.hitchSigmaMm),
    off(TRAILER.hitchSigmaMm),
  ] as const;
  const axle = [ball[0] - c * bar[0] + s * bar[1], ball[1] - s * bar[0] - c * bar[1]] as const;
  const towHub = (side: number): readonly [number, number] => [
    off(TOW.hubSigmaMm),
    side * TOW.rearHalfMm + off(TOW.hubSigmaMm),
  ];
  const trailerHub = (side: number): readonly [number, number] => {
    const [x, y] = [off(TRAILER.hubSigmaMm), side * TRAILER.halfMm + off(TRAILER.hubSigmaMm)];
    return [axle[0] + c * x - s * y, axle[1] + s * x + c * y];
  };
  const hubs = { tow: [towHub(-1), towHub(1)], trailer: [trailerHub(-1), trailerHub(1)] };
  return (Object.keys(ENDS) as TapeId[]).map((id): TapeReading => {
    const [a, b] = ENDS[id].map((side) => (side > 0 ? 1 : 0)) as [0 | 1, 0 | 1];
    const [p, q] = [hubs.tow[a]!, hubs.trailer[b]!];
    const far = Math.hypot(p[0] - q[0], p[1] - q[1], TOW.hubHeightMm - TRAILER.hubHeightMm);
    return { id, valueMm: far + off(TAPE_SIGMA) + (slip[id] ?? 0), sigmaMm: TAPE_SIGMA };
  });
}

describe("articulation from four tapes", () => {
  it("covers the truth 93 to 97 times in a hundred over 2,000 couplings, and knows it to a fifth of a degree", () => {
    const random = randomFrom(12);
    let [inside, n] = [0, 0];
    for (; n < 2000; n++) {
      const truth = (random() - 0.5) * 20 * DEG;
      const found = articulationFrom(TOW, TRAILER, tapesOf(truth, random));
      if (Math.abs(found.valueRad - truth) < 1.96 * found.sigmaRad) inside++;
      expect(found.sigmaRad).toBeLessThan(0.2 * DEG);
    }
    expect(inside / n).toBeGreaterThan(0.93);
    expect(inside / n).toBeLessThan(0.97);
  });

  it("names the tape that was misread by 60 mm", () => {
    const random = randomFrom(3);
    let named = 0;
    for (let i = 0; i < 200; i++) {
      const id = (Object.keys(ENDS) as TapeId[])[i % 4]!;
      const found = articulationFrom(TOW, TRAILER, tapesOf(2 * DEG, random, { [id]: 60 }));
      if (found.suspect === id) named++;
    }
    expect(named).toBeGreaterThan(180);
  });
});

describe("bringing it into line", () => {
  it("takes at most two pulls in 95 of 100, from 8 degrees to under half a degree, with hands 10 % off", () => {
    const random = randomFrom(77);
    let [done, n] = [0, 0];
    for (; n < 1000; n++) {
      const bar = 3000 + 6000 * random();
      const shape: TrainShape = { wheelbase: 2600 + 1400 * random(), behind: 1400 * random(), bar };
      const train: Train = {
        wheelbaseMm: shape.wheelbase,
        behindMm: shape.behind,
        hitchToAxleMm: bar,
      };
      let body = coupled(shape, 8 * DEG * (random() < 0.5 ? -1 : 1));
      for (let pull = 0; pull < 2; pull++) {
        const sigmaRad = 0.1 * DEG;
        const read = angleOf(body, shape) + sigmaRad * gaussian(random);
        const advice = straighten(train, { valueRad: read, sigmaRad }, 0.5 * DEG, 12_000);
        if (advice.kind !== "pull") break;
        const { steerRad, distanceMm } = advice.pull;
        body = pulled(body, shape, steeredBy(random, steerRad), distanceMm);
      }
      if (Math.abs(angleOf(body, shape)) < 0.5 * DEG) done++;
    }
    expect(done / n).toBeGreaterThan(0.95);
  });

  it("is in line only when it is surely so; asks for a reading, or for room, where that is what lacks", () => {
    const train: Train = { wheelbaseMm: 2842, behindMm: 950, hitchToAxleMm: 4300 };
    const at = (deg: number, sigmaDeg: number, roomMm = 12_000) =>
      straighten(train, { valueRad: deg * DEG, sigmaRad: sigmaDeg * DEG }, 0.5 * DEG, roomMm);
    expect(at(0.1, 0.1).kind).toBe("in-line");
    expect(at(0.1, 0.4).kind).toBe("read");
    const left = at(6, 0.1);
    expect(left.kind === "pull" && left.pull.steerRad > 0 && Math.abs(left.thenRad) < 1e-9).toBe(
      true,
    );
    const right = at(-6, 0.1);
    expect(right.kind === "pull" && right.pull.steerRad < 0).toBe(true);
    const far = left.kind === "pull" ? left.pull.distanceMm : 0;
    expect(at(6, 0.1, far - 1)).toEqual({ kind: "no-room", needMm: far });
  });
});
