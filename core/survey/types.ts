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

/** What one unit of a shared cause shifts a body's point by, in the body's own axes, mm. */
export type PointShift = { cause: string; xMm: number; yMm: number };

/**
 * A rigid body (a stand, a mat, a frame). Coordinates are the start value of its pose; its points
 * are in its own axes, exactly, or with the standard uncertainty `sigmaMm` in each of them (a frame
 * whose reference points the book knows only so well). A point above or below the body's own level
 * goes with its lean: `by` says how far for one unit of each cause.
 */
export type SurveyBody = {
  id: string;
  xMm: number;
  yMm: number;
  headingRad: number;
  points: { id: string; xMm: number; yMm: number; sigmaMm?: number; by?: readonly PointShift[] }[];
  /**
   * 3x3 on (x mm, y mm, heading rad) about the start value: what was known before any of the
   * observations.
   */
  priorCovariance?: number[][];
};

/**
 * A cause that several readings share: the scale of one tape, the offset of a rule that was worn,
 * the lean of a stand. `unit` says what it is; a `ratio` multiplies the reading as 1 + value.
 * `sigma` is what is known of it beforehand. One that `maySlip` may also be grossly off (a clamp
 * seated askew): it is snooped like a reading.
 */
export type SurveyNuisance = {
  id: string;
  value: number;
  unit: "mm" | "rad" | "ratio";
  sigma?: number;
  maySlip?: boolean;
};

/**
 * What readings have in common: reading = geometry (1 + scale) + the sum of causes, each by so many
 * mm (or rad, for a heading) for one unit of it.
 */
type Shared = { scale?: string; causes?: readonly { cause: string; per: number }[] };

/**
 * A beam that leaves the body point `from` at `directionRad` in the body's own axes and meets the line
 * through `panelPoint` whose normal has `panelHeadingRad` in vehicle axes.
 */
type Ray = {
  from: string;
  directionRad: number;
  panelPoint: string;
  panelHeadingRad: number;
  valueMm: number;
};

/**
 * One figure that somebody reads. `sigma` is its standard uncertainty, in mm (for "heading": in
 * rad).
 */
export type Reading = { id: string; sigma: number } & (
  | ({ kind: "distance"; from: string; to: string; valueMm: number } & Shared)
  /**
   * Perpendicular distance of a point from a directed line; positive to the left of the direction.
   */
  | ({
      kind: "offset";
      point: string;
      lineFrom: string;
      lineTo: string;
      valueMm: number;
    } & Shared)
  /**
   * Distance of a point along a directed line, from its first point or from where `origin` stands
   * beside it.
   */
  | ({
      kind: "station";
      point: string;
      lineFrom: string;
      lineTo: string;
      valueMm: number;
      origin?: string;
    } & Shared)
  /** How far a beam runs until it meets its panel. */
  | ({ kind: "range" } & Ray & Shared)
  /**
   * The panel is a mirror: how far to the right of the beam, square to it, the light comes back beside
   * `from`. It runs back at twice the angle between the beam and the mirror's normal.
   */
  | ({ kind: "returned" } & Ray & Shared)
  | ({ kind: "heading"; body: string; valueRad: number } & Omit<Shared, "scale">)
  /** A cause read by itself, or against another one (`minus`), in its own unit. */
  | { kind: "cause"; of: string; minus?: string; value: number }
);

/** What is known of how parts of a network hang together, without anybody reading it. */
export type Tie = { id: string; sigma: number } &
  /** Two points are at one place (a hitch): `sigma` is its play, in x and in y. */
  (
    | { kind: "coincide"; a: string; b: string }
    /**
     * Body `to` is body `from` after it was carried by a known displacement: `by` in the axes of
     * `from`, then `alsoMm` in vehicle axes. `sigma` (mm) and `sigmaRad` say how surely. Where the
     * vehicle itself was moved in between, `motion` is a body whose pose is where the vehicle's new
     * axes lie in its old ones: everything that stays in the bay goes through one and the same motion.
     */
    | {
        kind: "carried";
        from: string;
        to: string;
        by: { xMm: number; yMm: number; headingRad: number };
        alsoMm?: { xMm: number; yMm: number };
        motion?: string;
        sigmaRad: number;
      }
  );

export type Observation = Reading | Tie;

export type SurveyNetwork = {
  points: SurveyPoint[];
  bodies: SurveyBody[];
  observations: Observation[];
  nuisances?: SurveyNuisance[];
  /**
   * What is known beforehand of several things together, about their start values, in place of
   * `sigmaMm`, `sigma` and `priorCovariance` of the things named: 2 rows for a point (also a
   * body's, "bodyId.pointId", where it has a `sigmaMm`), 3 for a body, 1 for a nuisance.
   */
  priors?: readonly JointPrior[];
};

export type JointPrior = { ids: string[]; covariance: number[][] };

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
  /** `result`: how far a cause with a `sigma` agrees with it, as if it had been read to be there. */
  nuisances: { id: string; value: number; sigma: number; result: ObservationResult | null }[];
  /**
   * One for each reading; a "coincide" has two (id/x, id/y), a "carried" three (and id/heading).
   */
  residuals: ObservationResult[];
  chiSquare: { value: number; degreesOfFreedom: number; p: number };
  /** The observation, or cause that may slip, named by data snooping: largest |w|, above 3.29. */
  suspect: string | null;
  /**
   * The suspect, then every other reading whose slip would explain the contradiction nearly as well
   * (likelihood ratio below 20), likeliest first. Empty when nothing is suspect.
   */
  suspectGroup: string[];
  /**
   * All unknowns together, for whoever propagates onward: their values and their covariance.
   * `index` gives the first row of an id.
   */
  joint: {
    index: Record<string, number>;
    order: number;
    values: Float64Array;
    covariance: Float64Array;
  };
};
