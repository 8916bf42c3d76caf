import { invertSpd } from "@/core/math/linear";
import { SurveyError } from "./errors";
import type { SurveyNetwork } from "./types";

/**
 * Where a named point's coordinates come from.
 *
 * `row` is the first unknown of the free point or of the body; (px, py) are coordinates in the
 * body's own axes, or the exact position of a fixed point.
 */
export type PointRef =
  | { source: "fixed"; px: number; py: number }
  | { source: "free"; row: number }
  | { source: "body"; row: number; px: number; py: number };

/** A prior on unknowns `row` .. `row + size - 1`: start value and inverse covariance. */
type Prior = { row: number; size: number; start: number[]; weight: number[][] };

/**
 * The unknowns of a network laid out in one vector: free points (x, y) first, then bodies (x, y,
 * heading).
 */
export type Unknowns = {
  order: number;
  start: Float64Array;
  refs: Map<string, PointRef>;
  /** First row of each free point and body. */
  index: Record<string, number>;
  /** A speakable name of each unknown, for messages. */
  names: string[];
  priors: Prior[];
};

const FARTHEST_MM = 1e6; // One kilometre: nothing in a bay, and little on a road set-up, is farther away.

function checkNumber(value: number, culprit: string, what: string): void {
  if (!Number.isFinite(value))
    throw new SurveyError("bad-input", culprit, `${what} of "${culprit}" is not a number.`);
  if (Math.abs(value) > FARTHEST_MM)
    throw new SurveyError(
      "bad-input",
      culprit,
      `${what} of "${culprit}" is beyond a kilometre; check its unit.`,
    );
}

/** Lays out the unknowns and checks every point and body. @throws SurveyError "bad-input" */
export function layOutUnknowns(network: SurveyNetwork): Unknowns {
  const start: number[] = [];
  const names: string[] = [];
  const refs = new Map<string, PointRef>();
  // Without a prototype: a point may be called "toString".
  const index = Object.create(null) as Record<string, number>;
  const priors: Prior[] = [];

  const claim = (id: string, ref: PointRef): void => {
    if (refs.has(id))
      throw new SurveyError("bad-input", id, `Two points are called "${id}"; rename one.`);
    refs.set(id, ref);
  };

  for (const p of network.points) {
    checkNumber(p.xMm, p.id, "x");
    checkNumber(p.yMm, p.id, "y");
    if (p.fixed) {
      claim(p.id, { source: "fixed", px: p.xMm, py: p.yMm });
      continue;
    }
    const row = start.length;
    claim(p.id, { source: "free", row });
    index[p.id] = row;
    start.push(p.xMm, p.yMm);
    names.push(`${p.id} x`, `${p.id} y`);
    if (p.sigmaMm === undefined) continue;
    if (!(p.sigmaMm > 0 && p.sigmaMm < FARTHEST_MM))
      throw new SurveyError(
        "bad-input",
        p.id,
        `The uncertainty of point "${p.id}" must be above 0 mm.`,
      );
    const weight = 1 / (p.sigmaMm * p.sigmaMm);
    priors.push({
      row,
      size: 2,
      start: [p.xMm, p.yMm],
      weight: [
        [weight, 0],
        [0, weight],
      ],
    });
  }

  for (const b of network.bodies) {
    checkNumber(b.xMm, b.id, "x");
    checkNumber(b.yMm, b.id, "y");
    checkNumber(b.headingRad, b.id, "heading");
    if (index[b.id] !== undefined || refs.has(b.id))
      throw new SurveyError("bad-input", b.id, `Two things are called "${b.id}"; rename one.`);
    const row = start.length;
    index[b.id] = row;
    start.push(b.xMm, b.yMm, b.headingRad);
    names.push(`${b.id} x`, `${b.id} y`, `${b.id} heading`);
    for (const p of b.points) {
      checkNumber(p.xMm, `${b.id}.${p.id}`, "x");
      checkNumber(p.yMm, `${b.id}.${p.id}`, "y");
      claim(`${b.id}.${p.id}`, { source: "body", row, px: p.xMm, py: p.yMm });
    }
    if (!b.priorCovariance) continue;
    const weight = b.priorCovariance.length === 3 ? invertSpd(b.priorCovariance) : null;
    if (!weight)
      throw new SurveyError(
        "bad-input",
        b.id,
        `The prior covariance of "${b.id}" must be a symmetric, positive definite 3x3 matrix.`,
      );
    priors.push({ row, size: 3, start: [b.xMm, b.yMm, b.headingRad], weight });
  }

  return { order: start.length, start: Float64Array.from(start), refs, index, names, priors };
}
