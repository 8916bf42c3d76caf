import { combine, fitLinear, type LinearFit } from "@/core/math/fit";
import type { Vehicle } from "./schema";

export type Corner = "FL" | "FR" | "RL" | "RR";
export const CORNERS: readonly Corner[] = ["FL", "FR", "RL", "RR"];
export const CORNER_NAMES: Record<Corner, string> = {
  FL: "front left",
  FR: "front right",
  RL: "rear left",
  RR: "rear right",
};

type Estimate = { value: number; sigma: number };

/**
 * How the body stands against its nominal height. Angles in radians; nose up and left side up are
 * positive.
 */
export type Stance = {
  fit: LinearFit;
  /** Rise of the body over the middle of the wheelbase, mm. */
  heaveMm: Estimate;
  pitchRad: Estimate;
  rollRad: Estimate;
  /** What heave, pitch and roll do not explain: one corner sags or one arch was misread, mm. */
  warpMm: Estimate;
  /** The camera: its height above the floor, and the same pitch. */
  cameraHeightMm: Estimate;
};

/** Where the arches are measured: above the wheel centres. */
export const archPlace = (v: Vehicle, c: Corner): { xMm: number; yMm: number } => {
  const front = c[0] === "F";
  return {
    xMm: front ? v.wheelbaseMm : 0,
    yMm: ((c[1] === "L" ? 1 : -1) * (front ? v.trackFrontMm : v.trackRearMm)) / 2,
  };
};

/**
 * Body stance from arch heights, by least squares over departure from nominal: d_i = heave + pitch
 * (x_i - wheelbase/2) + roll y_i, small angles (the neglected square is below 0.1 mm per degree on
 * a three-metre wheelbase).
 *
 * @param heights measured arch heights above the floor, mm, at three or four corners
 * @param nominal the same of a vehicle as it should stand
 * @param sigmaMm standard uncertainty of one arch height
 * @throws LooseFitError for fewer than three corners
 */
export function fitStance(
  v: Vehicle,
  heights: Partial<Record<Corner, number>>,
  nominal: Record<Corner, number>,
  sigmaMm: number,
): Stance {
  const taken = CORNERS.filter((c) => heights[c] !== undefined);
  const middle = v.wheelbaseMm / 2;
  const rows = taken.map((c) => {
    const p = archPlace(v, c);
    return [1, p.xMm - middle, p.yMm];
  });
  const fit = fitLinear(
    rows,
    taken.map((c) => heights[c]! - nominal[c]),
    taken.map(() => sigmaMm),
  );
  const camera = combine(fit, [1, v.camera.xMm - middle, v.camera.yMm]);
  return {
    fit,
    heaveMm: combine(fit, [1, 0, 0]),
    pitchRad: combine(fit, [0, 1, 0]),
    rollRad: combine(fit, [0, 0, 1]),
    warpMm: warp(fit, taken, sigmaMm),
    cameraHeightMm: { value: v.camera.zMm + camera.value, sigma: camera.sigma },
  };
}

function warp(fit: LinearFit, taken: readonly Corner[], sigmaMm: number): Estimate {
  if (taken.length < 4) return { value: 0, sigma: Infinity };
  const largest = fit.residuals.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
  return { value: -largest, sigma: sigmaMm * Math.sqrt(Math.max(...fit.redundancy)) };
}
