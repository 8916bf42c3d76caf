import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { degToRad } from "@/core/units";
import {
  apply,
  boardInVehicle,
  gains,
  laneOffsetMm,
  learnedTurn,
  LoosePoseError,
  OutOfSightError,
  planarPose,
  project,
  rangeErrorMm,
  roadOutcome,
  rotation,
  unproject,
  type BoardError,
  type Camera,
  type Lens,
  type Pixel,
  type Pose,
  type Setting,
} from ".";

const BROWN: Lens = { kind: "brown", k1: -0.28, k2: 0.09, p1: 0.0007, p2: -0.0004, k3: -0.01 };
const FISHEYE: Lens = { kind: "fisheye", k1: -0.02, k2: 0.006, k3: -0.002, k4: 0.0003 };
const camera = (lens: Lens): Camera => ({ fx: 1250, fy: 1245, cx: 640.5, cy: 400.25, lens });
const LENSES: [string, Lens][] = [
  ["pinhole", { kind: "pinhole" }],
  ["brown", BROWN],
  ["fisheye", FISHEYE],
];

/** Twelve points of a board, and a pose a few metres off, turned about. */
const GRID: Pixel[] = [-550, -180, 190, 540].flatMap((x) =>
  [-300, 20, 310].map((y): Pixel => [x, y]),
);
function poseFrom(seed: number): Pose {
  const random = randomFrom(seed);
  const turn = [0.25, 0.25, 0.15].map((s) => s * gaussian(random)) as [number, number, number];
  return {
    r: rotation(turn),
    t: [150 * gaussian(random), 120 * gaussian(random), 3000 + 400 * gaussian(random)],
  };
}

/** Pixels of OpenCV's own fisheye module, kept: the build the other tests ask has none. */
type Kept = {
  cases: {
    camera: Omit<Camera, "lens">;
    k: [number, number, number, number];
    points: [number, number, number][];
    pixels: Pixel[];
  }[];
};

describe("projection", () => {
  it("fisheye: as OpenCV's own module projects, to 1e-6 px, and back along the same ray", () => {
    const kept = JSON.parse(readFileSync("tests/fixtures/fisheye.json", "utf8")) as Kept;
    for (const { camera: c, k, points, pixels } of kept.cases) {
      const cam: Camera = {
        ...c,
        lens: { kind: "fisheye", k1: k[0], k2: k[1], k3: k[2], k4: k[3] },
      };
      points.forEach((p, i) => {
        const [u, v] = project(cam, p);
        expect(Math.hypot(u - pixels[i]![0], v - pixels[i]![1])).toBeLessThan(1e-6);
        const ray = unproject(cam, pixels[i]!);
        const n = Math.hypot(...p);
        expect(Math.hypot(...ray.map((r, j) => r - p[j]! / n))).toBeLessThan(1e-9);
      });
    }
  });

  it.each(LENSES)("%s: a pixel's ray ends at that pixel, to 1e-9", (_, lens) => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.55, max: 0.55, noNaN: true }),
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        fc.double({ min: 0.2, max: 90, noNaN: true }),
        (x, y, z) => {
          const p = project(camera(lens), [x * z, y * z, z]);
          const ray = unproject(camera(lens), p);
          expect(Math.hypot(...ray)).toBeCloseTo(1, 12);
          const back = project(camera(lens), ray);
          expect(Math.hypot(back[0] - p[0], back[1] - p[1])).toBeLessThan(1e-9);
        },
      ),
    );
  });
  it("is the published fisheye: theta_d by the angle, past the side too; a pinhole has no picture behind", () => {
    const plain: Lens = { kind: "fisheye", k1: 0, k2: 0, k3: 0, k4: 0 };
    // Equidistant: a ray at 60 degrees lands f times its angle from the centre; square to the axis,
    // a quarter turn.
    expect(project(camera(plain), [Math.tan(Math.PI / 3), 0, 1])[0]).toBeCloseTo(
      640.5 + 1250 * (Math.PI / 3),
      9,
    );
    expect(project(camera(plain), [5, 0, 0])[0]).toBeCloseTo(640.5 + 1250 * (Math.PI / 2), 9);
    expect(() => project(camera({ kind: "pinhole" }), [0, 0, -1])).toThrow(OutOfSightError);
    expect(() => project(camera(plain), [0, 0.1, -5])).toThrow(OutOfSightError);
  });
});

describe("what a lens cannot make", () => {
  it("folds where its polynomial turns back: no ray from beyond, and none there has a picture", () => {
    // 1 - 0.84 s + 0.45 s^2 - 0.07 s^3 has its first root near s = 4.6: found here by walking,
    // apart from the code.
    const b = { ...(BROWN as Extract<Lens, { kind: "brown" }>), p1: 0, p2: 0 };
    const image = (r: number): number => r * (1 + r * r * (b.k1 + r * r * (b.k2 + r * r * b.k3)));
    let fold = 0;
    while (image(fold + 1e-4) > image(fold)) fold += 1e-4;
    const cam = camera(b);
    expect(() => project(cam, [fold + 0.01, 0, 1])).toThrow(OutOfSightError);
    expect(project(cam, [fold - 0.01, 0, 1])[0]).toBeGreaterThan(640);
    for (const share of [0.3, 0.9, 0.999]) {
      const [x, , z] = unproject(cam, [640.5 + 1250 * share * image(fold), 400.25]);
      expect(x / z).toBeLessThanOrEqual(fold + 1e-3);
    }
    expect(() => unproject(cam, [640.5 + 1250 * 1.05 * image(fold), 400.25])).toThrow(
      OutOfSightError,
    );
    const wild: Lens = { kind: "fisheye", k1: -0.2, k2: 0, k3: 0, k4: 0 };
    // theta (1 - 0.2 theta^2) is largest at sqrt(1 / 0.6).
    const most = Math.sqrt(1 / 0.6);
    const aside = (theta: number): [number, number, number] => [
      Math.sin(theta),
      0,
      Math.cos(theta),
    ];
    expect(() => project(camera(wild), aside(most + 0.01))).toThrow(OutOfSightError);
    expect(unproject(camera(wild), project(camera(wild), aside(most - 0.01)))[0]).toBeCloseTo(
      Math.sin(most - 0.01),
      6,
    );
  });
  it("gives a figure or a refusal everywhere, its own centre included; a board partly out of sight is no crash", () => {
    const any = fc.oneof(
      fc.constantFrom(0, 1e-15, -1),
      fc.double({ min: -5, max: 5, noNaN: true }),
    );
    fc.assert(
      fc.property(any, any, any, fc.constantFrom(...LENSES.map(([, l]) => l)), (x, y, z, lens) => {
        try {
          expect(project(camera(lens), [x, y, z]).every(Number.isFinite)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(OutOfSightError);
        }
      }),
    );
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: -4000, max: 5000 }), fc.integer({ min: -4000, max: 5000 })),
          { minLength: 4, maxLength: 12 },
        ),
        fc.constantFrom(...LENSES.map(([, l]) => l)),
        (pixels, lens) => {
          try {
            planarPose(camera(lens), GRID.slice(0, pixels.length), pixels);
          } catch (error) {
            expect(error).toBeInstanceOf(LoosePoseError);
          }
        },
      ),
    );
  });
});

/** The well-known vision library, compiled for the web; used as the other opinion. */
type Mat = { data64F: Float64Array; data32F: Float32Array; delete(): void };
type Cv = {
  Mat: new () => Mat;
  matFromArray(r: number, c: number, t: number, a: number[]): Mat;
  solvePnP(...a: unknown[]): boolean;
  Rodrigues(a: Mat, b: Mat): void;
  initUndistortRectifyMap(...a: unknown[]): void;
  Size: new (w: number, h: number) => unknown;
  CV_64F: number;
  CV_32FC1: number;
  onRuntimeInitialized?: () => void;
} & { Mat?: unknown };
let cv: Cv;
beforeAll(async () => {
  // Its module answers `then` with itself: awaiting it would never end.
  const held = { cv: createRequire(import.meta.url)("@techstark/opencv-js") as Cv };
  if (!held.cv.Mat) await new Promise<void>((done) => (held.cv.onRuntimeInitialized = done));
  cv = held.cv;
}, 60_000);

describe("projection, against an independent implementation", () => {
  it("puts 300 rays through a fisheye lens where it puts them, to 1e-6 px", () => {
    const b = FISHEYE as Extract<Lens, { kind: "fisheye" }>;
    const m = (r: number, c: number, a: number[]): Mat => cv.matFromArray(r, c, cv.CV_64F, a);
    const random = randomFrom(5);
    for (let n = 0; n < 300; n++) {
      const [x, y] = [0.7 * gaussian(random), 0.5 * gaussian(random)];
      const [u, v] = project(camera(FISHEYE), [x, y, 1]);
      // Its answers are single floats. With the principal point moved so that ours would be zero,
      // what it answers is the difference of the two alone, and no digit is lost.
      const k = m(3, 3, [1250, 0, 640.5 - u, 0, 1245, 400.25 - v, 0, 0, 1]);
      const wanted = m(3, 3, [1, 0, -x, 0, 1, -y, 0, 0, 1]); // its pixel (0, 0) looks along (x, y, 1)
      const [d, eye, map1, map2] = [
        m(4, 1, [b.k1, b.k2, b.k3, b.k4]),
        m(3, 3, [1, 0, 0, 0, 1, 0, 0, 0, 1]),
        new cv.Mat(),
        new cv.Mat(),
      ];
      cv.initUndistortRectifyMap(k, d, eye, wanted, new cv.Size(1, 1), cv.CV_32FC1, map1, map2);
      expect(Math.hypot(map1.data32F[0]!, map2.data32F[0]!)).toBeLessThan(1e-6);
      for (const mat of [k, wanted, d, eye, map1, map2]) mat.delete();
    }
  });
});

describe("projection, against a second derivation", () => {
  it("bends a ray as the radial and decentring terms do when written over the complex plane, to 1e-9 px", () => {
    const b = BROWN as Extract<Lens, { kind: "brown" }>;
    const random = randomFrom(11);
    for (let n = 0; n < 300; n++) {
      const [x, y] = [0.22 * gaussian(random), 0.16 * gaussian(random)];
      // With z = x + iy and P = p2 + i p1: z (1 + k1 r2 + k2 r4 + k3 r6 + 2 Re(conj(P) z)) + P r2.
      const r2 = x * x + y * y;
      const scale = 1 + r2 * (b.k1 + r2 * (b.k2 + r2 * b.k3)) + 2 * (b.p2 * x + b.p1 * y);
      const [u, v] = project(camera(BROWN), [x * 3000, y * 3000, 3000]);
      expect(Math.abs(u - (640.5 + 1250 * (x * scale + b.p2 * r2)))).toBeLessThan(1e-9);
      expect(Math.abs(v - (400.25 + 1245 * (y * scale + b.p1 * r2)))).toBeLessThan(1e-9);
    }
  });
});

describe("pose of a plane", () => {
  it.each(LENSES)("%s: finds the pose it was drawn from to 1e-9 rad", (_, lens) => {
    for (let seed = 1; seed <= 40; seed++) {
      const pose = poseFrom(seed);
      const seen = GRID.map(([x, y]): Pixel => project(camera(lens), apply(pose, [x, y, 0])));
      const found = planarPose(camera(lens), GRID, seen);
      found.r.forEach((v, i) => expect(v).toBeCloseTo(pose.r[i]!, 9));
      found.t.forEach((v, i) => expect(v).toBeCloseTo(pose.t[i]!, 5));
    }
  });
  it("agrees with an independent implementation to 1e-6 rad, lens and all, on noisy pictures", () => {
    const m = (r: number, c: number, a: number[]): Mat => cv.matFromArray(r, c, cv.CV_64F, a);
    const b = BROWN as Extract<Lens, { kind: "brown" }>;
    for (let seed = 1; seed <= 12; seed++) {
      const random = randomFrom(900 + seed);
      const pose = poseFrom(seed);
      const noise = seed % 2 ? 0 : 0.3;
      const seen = GRID.map(([x, y]): Pixel => {
        const [u, v] = project(camera(BROWN), apply(pose, [x, y, 0]));
        return [u + noise * gaussian(random), v + noise * gaussian(random)];
      });
      const ours = planarPose(camera(BROWN), GRID, seen);
      const [rvec, tvec, r] = [new cv.Mat(), new cv.Mat(), new cv.Mat()];
      const args = [
        m(
          12,
          3,
          GRID.flatMap(([x, y]) => [x, y, 0]),
        ),
        m(12, 2, seen.flat() as number[]),
        m(3, 3, [1250, 0, 640.5, 0, 1245, 400.25, 0, 0, 1]),
        m(5, 1, [b.k1, b.k2, b.p1, b.p2, b.k3]),
      ];
      expect(cv.solvePnP(...args, rvec, tvec, false, 0)).toBe(true);
      cv.Rodrigues(rvec, r);
      // Its Levenberg-Marquardt stops at a relative step near 1e-7; what is left is that.
      ours.r.forEach((v, i) =>
        expect(Math.abs(v - r.data64F[i]!)).toBeLessThan(noise ? 5e-6 : 1e-6),
      );
      ours.t.forEach((v, i) => expect(Math.abs(v - tvec.data64F[i]!)).toBeLessThan(0.02));
      for (const mat of [...args, rvec, tvec, r]) mat.delete();
    }
  });
  it("refuses what fixes no pose", () => {
    const line: Pixel[] = [
      [0, 0],
      [100, 0],
      [200, 0],
      [300, 0],
    ];
    expect(() => planarPose(camera(BROWN), GRID.slice(0, 3), GRID.slice(0, 3))).toThrow(
      LoosePoseError,
    );
    expect(() =>
      planarPose(
        camera(BROWN),
        line,
        line.map(([x]) => [600 + x / 4, 400]),
      ),
    ).toThrow(LoosePoseError);
  });
});

const SETTING: Setting = {
  camera: { xMm: 1905, yMm: 0, zMm: 1200 },
  board: { aheadMm: 3500, leftMm: 0, heightMm: 1200, widthMm: 1100 },
};
const RIGHT: BoardError = {
  alongMm: 0,
  acrossMm: 0,
  heightMm: 0,
  twistRad: 0,
  pitchRad: 0,
  rollRad: 0,
};

describe("what an error means on the road", () => {
  it("a board that stands right teaches nothing", () => {
    expect(learnedTurn(SETTING, RIGHT)).toEqual({ yaw: 0, pitch: 0, roll: 0 });
    expect(laneOffsetMm({ yaw: 0, pitch: 0, roll: 0 }, 60_000)).toBe(0);
    expect(rangeErrorMm({ yaw: 0, pitch: 0, roll: 0 }, 1200, 60_000)).toBeCloseTo(0, 6);
  });
  it("closed forms: a whole scene turned about the camera is learned exactly, axis by axis", () => {
    // Rotate the believed points themselves; whatever pose that is, the turn must come out as minus
    // it.
    for (const yaw of [-0.02, 0.004, 0.015]) {
      const d = SETTING.board.aheadMm;
      const turned = learnedTurn(SETTING, {
        ...RIGHT,
        alongMm: d * (Math.cos(yaw) - 1),
        acrossMm: d * Math.sin(yaw),
        twistRad: yaw,
      });
      expect(turned.yaw).toBeCloseTo(-yaw, 9);
      expect(turned.pitch).toBeCloseTo(0, 9);
      // At 60 m a lane is believed tan(yaw) to the other side: ten millimetres at the board are 171
      // at sixty metres.
      expect(laneOffsetMm(turned, 60_000)).toBeCloseTo(-Math.tan(yaw) * 60_000, 4);
    }
    const rolled = learnedTurn(SETTING, { ...RIGHT, rollRad: 0.01 });
    // Positive: the vehicle-left end is high. To carry what is seen back to level, the scene turns
    // the other way about ahead.
    const corners = boardInVehicle(SETTING, { ...RIGHT, rollRad: 0.01 });
    const marks = Array.from({ length: corners.length / 3 }, (_, i) => ({
      left: corners[3 * i + 1]!,
      up: corners[3 * i + 2]!,
    }));
    const high = (of: (left: number) => boolean): number => {
      const half = marks.filter((m) => of(m.left));
      return half.reduce((sum, m) => sum + m.up, 0) / half.length;
    };
    expect(high((left) => left > 50)).toBeGreaterThan(high((left) => left < -50) + 1);
    expect(rolled.roll).toBeCloseTo(-0.01, 5);
    const raised = learnedTurn(SETTING, { ...RIGHT, heightMm: 10 });
    expect(raised.pitch).toBeCloseTo(10 / 3500, 4);
  });
  it("range: a nose believed too low makes the road nearer, by similar triangles", () => {
    const turn = { yaw: 0, pitch: degToRad(0.2), roll: 0 };
    const depression = Math.atan(1200 / 60_000) + degToRad(0.2);
    expect(rangeErrorMm(turn, 1200, 60_000)).toBeCloseTo(1200 / Math.tan(depression) - 60_000, 9);
    expect(rangeErrorMm(turn, 1200, 60_000)).toBeLessThan(-8000);
    expect(rangeErrorMm({ ...turn, pitch: -degToRad(2) }, 1200, 60_000)).toBe(Infinity);
  });
  it("is what a general pose fit of the same picture says: the turn nulls the directions", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = randomFrom(seed);
        const e: BoardError = {
          alongMm: 8 * gaussian(random),
          acrossMm: 10 * gaussian(random),
          heightMm: 6 * gaussian(random),
          twistRad: 0.006 * gaussian(random),
          pitchRad: 0.006 * gaussian(random),
          rollRad: 0.006 * gaussian(random),
        };
        const t = learnedTurn(SETTING, e);
        const cost = (d: Partial<typeof t>): number =>
          misfit(SETTING, e, {
            yaw: t.yaw + (d.yaw ?? 0),
            pitch: t.pitch + (d.pitch ?? 0),
            roll: t.roll + (d.roll ?? 0),
          });
        const best = cost({});
        for (const axis of ["yaw", "pitch", "roll"] as const)
          for (const h of [1e-5, -1e-5]) expect(cost({ [axis]: h })).toBeGreaterThan(best);
      }),
      { numRuns: 60 },
    );
  });
  it("spreads as the linear theory says while errors are small, the same every time", () => {
    const sigma = 4;
    const known = {
      mean: RIGHT,
      planCovariance: [
        [25, 0, 0],
        [0, sigma * sigma, 0],
        [0, 0, 1e-12],
      ],
      sigma: { heightMm: 1e-6, pitchRad: 1e-9, rollRad: 1e-9 },
    };
    const out = roadOutcome(SETTING, known, 20_000, 7);
    const lane = out.lane[1]!;
    expect(lane.distanceMm).toBe(60_000);
    const expected = (1.96 * sigma * 60_000) / 3500;
    expect(Math.abs(lane.offsetMm.high - expected) / expected).toBeLessThan(0.04);
    expect(Math.abs(lane.offsetMm.low + expected) / expected).toBeLessThan(0.04);
    expect(roadOutcome(SETTING, known, 2000, 7)).toEqual(roadOutcome(SETTING, known, 2000, 7));
  });
  it("names the adjustment that buys most", () => {
    expect(gains(SETTING, { ...RIGHT, acrossMm: 9, alongMm: 9 })[0]).toMatchObject({
      id: "acrossMm",
    });
    expect(gains(SETTING, { ...RIGHT, heightMm: 9, alongMm: 9 })[0]).toMatchObject({
      id: "heightMm",
    });
  });
});

/**
 * Sum of squared differences of directions after carrying what is seen into the vehicle by a turn:
 * written out with matrices.
 */
function misfit(
  setting: Setting,
  e: BoardError,
  t: { yaw: number; pitch: number; roll: number },
): number {
  const [seen, believed] = [boardInVehicle(setting, e), boardInVehicle(setting, RIGHT)];
  // Ahead, left, up: yaw about up, pitch nose down about left, roll right side down about ahead.
  const apply3 = (r: number[], v: number[]): number[] =>
    [0, 1, 2].map((i) => r[3 * i]! * v[0]! + r[3 * i + 1]! * v[1]! + r[3 * i + 2]! * v[2]!);
  const [yaw, pitch, roll] = [
    rotation([0, 0, t.yaw]),
    rotation([0, t.pitch, 0]),
    rotation([t.roll, 0, 0]),
  ];
  let sum = 0;
  for (let i = 0; i < seen.length; i += 3) {
    const v = apply3(yaw, apply3(pitch, apply3(roll, [...seen.slice(i, i + 3)])));
    sum +=
      (v[1]! / v[0]! - believed[i + 1]! / believed[i]!) ** 2 +
      (v[2]! / v[0]! - believed[i + 2]! / believed[i]!) ** 2;
  }
  return sum;
}
