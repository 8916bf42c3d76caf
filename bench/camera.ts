import { createRequire } from "node:module";
import {
  apply,
  planarPose,
  project,
  roadOutcome,
  rotation,
  type Camera,
  type Pixel,
  type Setting,
} from "@/core/camera";

type Mat = { delete(): void };
type Cv = {
  Mat?: new () => Mat;
  matFromArray(r: number, c: number, t: number, a: number[]): Mat;
  solvePnP(...a: unknown[]): boolean;
  CV_64F: number;
  onRuntimeInitialized?: () => void;
};

/** The camera's figures, against the well-known vision library compiled for the web. */
export async function camera(
  median: (rounds: number, work: () => unknown) => number,
): Promise<void> {
  // Its module answers `then` with itself, so it is waited for by its own call.
  const held = { cv: createRequire(import.meta.url)("@techstark/opencv-js") as Cv };
  if (!held.cv.Mat) await new Promise<void>((done) => (held.cv.onRuntimeInitialized = done));
  const { cv } = held;
  const lens: Camera = {
    fx: 1250,
    fy: 1245,
    cx: 640.5,
    cy: 400.25,
    lens: { kind: "brown", k1: -0.28, k2: 0.09, p1: 7e-4, p2: -4e-4, k3: -0.01 },
  };
  const grid: Pixel[] = [-550, -180, 190, 540].flatMap((x) =>
    [-300, 20, 310].map((y): Pixel => [x, y]),
  );
  const pose = { r: rotation([0.1, -0.2, 0.05]), t: [120, -60, 3200] as const };
  const seen = grid.map(([x, y]): Pixel => project(lens, apply(pose, [x, y, 0])));
  const ours = median(300, () => planarPose(lens, grid, seen));
  const m = (r: number, c: number, a: number[]): Mat => cv.matFromArray(r, c, cv.CV_64F, a);
  const args = [
    m(
      12,
      3,
      grid.flatMap(([x, y]) => [x, y, 0]),
    ),
    m(12, 2, seen.flat() as number[]),
    m(3, 3, [1250, 0, 640.5, 0, 1245, 400.25, 0, 0, 1]),
    m(5, 1, [-0.28, 0.09, 7e-4, -4e-4, -0.01]),
  ];
  const [rvec, tvec] = [new cv.Mat!(), new cv.Mat!()];
  const theirs = median(300, () => cv.solvePnP(...args, rvec, tvec, false, 0));
  console.log("camera");
  console.log(
    `  pose of 12 points, from nothing          ${ours.toFixed(3)} ms; opencv solvePnP ${theirs.toFixed(3)} ms; ratio ${(theirs / ours).toFixed(1)} x`,
  );
  const setting: Setting = {
    camera: { xMm: 1905, yMm: 0, zMm: 1200 },
    board: { aheadMm: 3500, leftMm: 0, heightMm: 1200, widthMm: 1100 },
  };
  const known = {
    mean: { alongMm: 2, acrossMm: 4, twistRad: 0.002, heightMm: 1, pitchRad: 0, rollRad: 0 },
    planCovariance: [
      [9, 0, 0],
      [0, 16, 0],
      [0, 0, 4e-6],
    ],
    sigma: { heightMm: 1, pitchRad: 1e-3, rollRad: 1e-3 },
  };
  console.log(
    `  Monte Carlo of 20 000 boards to the road ${median(7, () => roadOutcome(setting, known)).toFixed(0)} ms`,
  );
}
