import { combine, fitLinear, type LinearFit } from "@/core/math/fit";

/**
 * A height read at one place on the floor, in any common datum: a line laser's rule reads larger
 * where it is lower.
 */
export type FloorSpot = { id: string; xMm: number; yMm: number; heightMm: number; sigmaMm: number };

/** The floor under the vehicle and where the stand is to stand. */
export type Floor = {
  fit: LinearFit;
  /**
   * Height of the plane through the four tyres at a place, above its height under the rear axle,
   * mm.
   */
  planeAt: (xMm: number, yMm: number) => { value: number; sigma: number };
  /** Rise toward the front and toward vehicle left, radians, with standard uncertainties. */
  slopeAhead: { value: number; sigma: number };
  slopeLeft: { value: number; sigma: number };
  /**
   * How far the front-left and rear-right tyres lie above what the other two say, mm: a quarter of
   * FL - FR - RL + RR for tyres at the corners of a rectangle. Four tyres rest on a twisted floor;
   * a plane does not.
   */
  twist: { value: number; sigma: number } | null;
  /**
   * What is to be added to a height measured from the floor at the stand, so that it counts from
   * the vehicle's plane.
   */
  correction: { value: number; sigma: number } | null;
};

/**
 * The plane z = c + a x + b y through the tyre patches, by weighted least squares, and the height
 * of the stand's floor against it.
 *
 * With h the floor height at the stand and p the plane's height there, a board centre z above the
 * stand's own floor is z + (h - p) above the vehicle's plane; a sheet's height H is therefore set
 * as H - (h - p) above the local floor.
 *
 * @param tyres three or four patches, vehicle axes, mm
 * @param standSpots one or more readings under the stand; their mean counts
 * @throws LooseFitError when fewer than three tyres were read or they lie in a line
 */
export function fitFloor(tyres: readonly FloorSpot[], standSpots: readonly FloorSpot[]): Floor {
  const fit = fitLinear(
    tyres.map((t) => [1, t.xMm, t.yMm]),
    tyres.map((t) => t.heightMm),
    tyres.map((t) => t.sigmaMm),
  );
  const planeAt = (xMm: number, yMm: number) => combine(fit, [0, xMm, yMm]);
  return {
    fit,
    planeAt,
    slopeAhead: combine(fit, [0, 1, 0]),
    slopeLeft: combine(fit, [0, 0, 1]),
    twist: twistOf(tyres),
    correction: correctionAt(fit, standSpots),
  };
}

function twistOf(tyres: readonly FloorSpot[]): Floor["twist"] {
  const at = (id: string) => tyres.find((t) => t.id === id);
  const [fl, fr, rl, rr] = ["FL", "FR", "RL", "RR"].map(at);
  if (!fl || !fr || !rl || !rr) return null;
  return {
    value: (fl.heightMm - fr.heightMm - rl.heightMm + rr.heightMm) / 4,
    sigma: Math.hypot(fl.sigmaMm, fr.sigmaMm, rl.sigmaMm, rr.sigmaMm) / 4,
  };
}

function correctionAt(fit: LinearFit, spots: readonly FloorSpot[]): Floor["correction"] {
  if (spots.length === 0) return null;
  const weight = spots.reduce((s, p) => s + 1 / p.sigmaMm ** 2, 0);
  const mean = (f: (p: FloorSpot) => number): number =>
    spots.reduce((s, p) => s + f(p) / p.sigmaMm ** 2, 0) / weight;
  const plane = combine(fit, [1, mean((p) => p.xMm), mean((p) => p.yMm)]);
  return {
    value: mean((p) => p.heightMm) - plane.value,
    sigma: Math.sqrt(1 / weight + plane.sigma ** 2),
  };
}
