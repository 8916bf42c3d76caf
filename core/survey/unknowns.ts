import { invertSpd } from "@/core/math/linear";
import { SurveyError } from "./errors";
import type { JointPrior, SurveyNetwork } from "./types";

/**
 * Where a named point's coordinates come from.
 *
 * `row` is the first unknown of the free point or of the body; (px, py) are coordinates in the
 * body's own axes, or the exact position of a fixed point. `own` is the first unknown of a body
 * point whose place on the body is itself uncertain; `by` are the causes that shift it, by their rows.
 */
export type PointRef =
  | { source: "fixed"; px: number; py: number }
  | { source: "free"; row: number }
  | { source: "body"; row: number; px: number; py: number; own: number; by: readonly Shift[] };

type Shift = { row: number; x: number; y: number };
const UNMOVED: readonly Shift[] = [];

/** A body point that is exactly where the body says has no unknowns of its own. */
export const EXACT = -1;

/** A prior on some unknowns: their rows, start values and inverse covariance, row by row. */
type Prior = { rows: number[]; start: number[]; weight: number[] };

/** Independent priors of single unknowns, one weight each. */
type Alone = { rows: number[]; start: number[]; weight: number[] };

/** The unknowns of a network laid out in one vector: points, bodies, uncertain body points, nuisances. */
export type Unknowns = {
  order: number;
  start: Float64Array;
  refs: Map<string, PointRef>;
  /** First row of each free point, body, uncertain body point and nuisance. */
  index: Record<string, number>;
  bodies: Set<string>;
  nuisances: Set<string>;
  /** A speakable name of each unknown, for messages. */
  names: string[];
  /** What one unit of each unknown moves, mm: angles and scales act on an arm of one metre. */
  arms: Float64Array;
  alone: Alone;
  priors: Prior[];
};

/** One kilometre: nothing in a bay, and little on a road set-up, is farther away. */
const FARTHEST_MM = 1e6;
/** Headings and scales are compared with places on a one-metre arm, so that 1e-9 mm means 1e-12. */
const ARM_MM = 1000;

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

function checkSigma(sigma: number, culprit: string): void {
  if (!(sigma > 0 && sigma < FARTHEST_MM))
    throw new SurveyError("bad-input", culprit, `The uncertainty of "${culprit}" must be above 0.`);
}

/** What was laid out of a network, for what is asked of it afterwards. */
const layouts = new WeakMap<SurveyNetwork, Unknowns>();

/** The layout of a network as it was when it was adjusted; it must not be changed in place since. */
export const layoutOf = (network: SurveyNetwork): Unknowns =>
  layouts.get(network) ?? layOutUnknowns(network);

/** Lays out the unknowns and checks every part of a network. @throws SurveyError "bad-input" */
export function layOutUnknowns(network: SurveyNetwork): Unknowns {
  const unknowns = laidOut(network);
  layouts.set(network, unknowns);
  return unknowns;
}

function laidOut(network: SurveyNetwork): Unknowns {
  const start: number[] = [];
  const names: string[] = [];
  const arms: number[] = [];
  const refs = new Map<string, PointRef>();
  // Without a prototype: a point may be called "toString".
  const index = Object.create(null) as Record<string, number>;
  const bodies = new Set<string>();
  const nuisances = new Set<string>();
  const alone: Alone = { rows: [], start: [], weight: [] };
  const priors: Prior[] = [];
  const joint = new Set(network.priors?.flatMap((p) => p.ids));
  // A body's points may name causes, which come after the bodies: their rows are filled in then.
  const shifted: { by: Shift[]; of: readonly { cause: string; xMm: number; yMm: number }[] }[] = [];

  const add = (name: string, value: number, arm: number): void => {
    start.push(value);
    names.push(name);
    arms.push(arm);
  };
  const claim = (id: string, ref: PointRef): void => {
    if (refs.has(id))
      throw new SurveyError("bad-input", id, `Two points are called "${id}"; rename one.`);
    refs.set(id, ref);
  };
  const claimRow = (id: string): number => {
    if (index[id] !== undefined)
      throw new SurveyError("bad-input", id, `Two things are called "${id}"; rename one.`);
    return (index[id] = start.length);
  };
  /** Equal and independent uncertainty of `size` unknowns from `row` on, unless a joint prior has them. */
  const round = (id: string, row: number, size: number, sigma: number): void => {
    checkSigma(sigma, id);
    if (joint.has(id)) return;
    for (let r = row; r < row + size; r++) {
      alone.rows.push(r);
      alone.start.push(start[r]!);
      alone.weight.push(1 / (sigma * sigma));
    }
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
    add(`${p.id} x`, p.xMm, 1);
    add(`${p.id} y`, p.yMm, 1);
    if (p.sigmaMm !== undefined) round(p.id, row, 2, p.sigmaMm);
  }

  for (const b of network.bodies) {
    checkNumber(b.xMm, b.id, "x");
    checkNumber(b.yMm, b.id, "y");
    checkNumber(b.headingRad, b.id, "heading");
    if (refs.has(b.id))
      throw new SurveyError("bad-input", b.id, `Two things are called "${b.id}"; rename one.`);
    const row = claimRow(b.id);
    bodies.add(b.id);
    add(`${b.id} x`, b.xMm, 1);
    add(`${b.id} y`, b.yMm, 1);
    add(`${b.id} heading`, b.headingRad, ARM_MM);
    for (const p of b.points) {
      const id = `${b.id}.${p.id}`;
      checkNumber(p.xMm, id, "x");
      checkNumber(p.yMm, id, "y");
      const own = p.sigmaMm === undefined ? EXACT : claimRow(id);
      const by: Shift[] = [];
      if (p.by?.length) shifted.push({ by, of: p.by });
      claim(id, { source: "body", row, px: p.xMm, py: p.yMm, own, by: p.by ? by : UNMOVED });
      if (p.sigmaMm === undefined) continue;
      add(`${id} x`, p.xMm, 1);
      add(`${id} y`, p.yMm, 1);
      round(id, own, 2, p.sigmaMm);
    }
    if (!b.priorCovariance || joint.has(b.id)) continue;
    const weight = b.priorCovariance.length === 3 ? invertSpd(b.priorCovariance) : null;
    if (!weight)
      throw new SurveyError(
        "bad-input",
        b.id,
        `The prior covariance of "${b.id}" must be a symmetric, positive definite 3x3 matrix.`,
      );
    priors.push(priorOn([row, row + 1, row + 2], start, weight));
  }

  for (const n of network.nuisances ?? []) {
    checkNumber(n.value, n.id, "The value");
    const row = claimRow(n.id);
    nuisances.add(n.id);
    add(n.id, n.value, n.unit === "mm" ? 1 : ARM_MM);
    if (n.sigma !== undefined) round(n.id, row, 1, n.sigma);
  }

  for (const { by, of } of shifted)
    for (const { cause, xMm, yMm } of of) {
      if (!nuisances.has(cause))
        throw new SurveyError(
          "bad-input",
          cause,
          `A point hangs on "${cause}", which is not there.`,
        );
      if (!Number.isFinite(xMm) || !Number.isFinite(yMm))
        throw new SurveyError(
          "bad-input",
          cause,
          `How far "${cause}" shifts a point is not a number.`,
        );
      by.push({ row: index[cause]!, x: xMm, y: yMm });
    }

  for (const p of network.priors ?? [])
    priors.push(jointPrior(p, { index, bodies, nuisances, start }));
  return {
    order: start.length,
    start: new Float64Array(start),
    refs,
    index,
    bodies,
    nuisances,
    names,
    arms: new Float64Array(arms),
    alone,
    priors,
  };
}

const priorOn = (rows: number[], start: readonly number[], weight: number[][]): Prior => ({
  rows,
  start: rows.map((r) => start[r]!),
  weight: weight.flat(),
});

/** How many unknowns stand behind an id: a nuisance one, a point two, a body three. */
const sizeOf = (id: string, u: Pick<Unknowns, "bodies" | "nuisances">): number =>
  u.bodies.has(id) ? 3 : u.nuisances.has(id) ? 1 : 2;

/** Inverses of joint covariances: the same prior stands in every network about one vehicle. */
const weights = new WeakMap<JointPrior["covariance"], number[][]>();

function weightOf(covariance: JointPrior["covariance"]): number[][] | null {
  const known = weights.get(covariance);
  if (known) return known;
  const weight = invertSpd(covariance);
  if (weight) weights.set(covariance, weight);
  return weight;
}

/** One prior over several things, correlations included. @throws SurveyError "bad-input" */
function jointPrior(
  { ids, covariance }: JointPrior,
  u: Pick<Unknowns, "index" | "bodies" | "nuisances"> & { start: number[] },
): Prior {
  const rows = ids.flatMap((id) => {
    const row = u.index[id];
    if (row === undefined)
      throw new SurveyError("bad-input", id, `The joint prior names "${id}", which is not there.`);
    return Array.from({ length: sizeOf(id, u) }, (_, i) => row + i);
  });
  const weight = covariance.length === rows.length ? weightOf(covariance) : null;
  if (!weight || new Set(rows).size !== rows.length)
    throw new SurveyError(
      "bad-input",
      ids[0] ?? "prior",
      `The joint prior must name each thing once, with a symmetric, positive definite covariance of order ${rows.length}.`,
    );
  return priorOn(rows, u.start, weight);
}
