/**
 * The survey network: what was measured, between what, and what follows from it.
 *
 * Lengths in millimetres, angles in radians, vehicle axes (x forward, y left, heading
 * counter-clockwise from +x). A body's point is referred to as "bodyId.pointId".
 */

/**
 * A point on the floor plan. `fixed`: exact. `sigmaMm`: known with that prior in x and in y.
 * Neither: free.
 */
export type SurveyPoint = {
  id: string;
  xMm: number;
  yMm: number;
  fixed?: boolean;
  sigmaMm?: number;
};

/**
 * A rigid body (a stand, a rig). Coordinates are the start value of its pose; its points are in its
 * own axes.
 */
export type SurveyBody = {
  id: string;
  xMm: number;
  yMm: number;
  headingRad: number;
  points: { id: string; xMm: number; yMm: number }[];
  /**
   * 3x3 on (x mm, y mm, heading rad) about the start value: what was known before any of the
   * observations.
   */
  priorCovariance?: number[][];
};

/** One reading. `sigma` is its standard uncertainty, in mm (for "heading": in rad). */
export type Observation = { id: string; sigma: number } & (
  | { kind: "distance"; from: string; to: string; valueMm: number }
  /**
   * Perpendicular distance of a point from a directed line; positive to the left of the direction.
   */
  | { kind: "offset"; point: string; lineFrom: string; lineTo: string; valueMm: number }
  /**
   * Distance of a point along a directed line, from its first point or from where `origin` stands
   * beside it.
   */
  | {
      kind: "station";
      point: string;
      lineFrom: string;
      lineTo: string;
      valueMm: number;
      origin?: string;
    }
  /**
   * A beam leaves the body point `from` at `directionRad` in the body's own axes and meets the line
   * through `panelPoint` whose normal has `panelHeadingRad` in vehicle axes.
   */
  | {
      kind: "range";
      from: string;
      directionRad: number;
      panelPoint: string;
      panelHeadingRad: number;
      valueMm: number;
    }
  | { kind: "heading"; body: string; valueRad: number }
);

export type SurveyNetwork = {
  points: SurveyPoint[];
  bodies: SurveyBody[];
  observations: Observation[];
};

/** Statistics of one reading after adjustment (Baarda 1968). */
export type ObservationResult = {
  id: string;
  /** Adjusted minus observed, mm (rad for a heading). */
  residual: number;
  /** Share of this reading that the others check, 0 (nothing checks it) to 1. */
  redundancy: number;
  /** Standardised residual v / (sigma sqrt(r)); 0 where nothing checks the reading. */
  w: number;
  /**
   * Smallest slip that would be noticed with 80 % power at alpha 0.1 %: 4.13 sigma / sqrt(r); may
   * be Infinity.
   */
  smallestDetectable: number;
};

export type Adjustment = {
  converged: boolean;
  iterations: number;
  points: { id: string; xMm: number; yMm: number; covariance: number[][] }[];
  bodies: { id: string; xMm: number; yMm: number; headingRad: number; covariance: number[][] }[];
  residuals: ObservationResult[];
  chiSquare: { value: number; degreesOfFreedom: number; p: number };
  /** The observation named by data snooping: largest |w|, above 3.29. */
  suspect: string | null;
  /**
   * The suspect, then every other reading whose slip would explain the contradiction nearly as well
   * (likelihood ratio below 20), likeliest first. Empty when nothing is suspect.
   */
  suspectGroup: string[];
  /**
   * Covariance of all unknowns together, for whoever propagates onward. `index` gives the first row
   * of an id.
   */
  joint: { index: Record<string, number>; order: number; covariance: Float64Array };
};
