import { wrapAngle } from "@/core/math/linear";
import { SurveyError } from "./errors";
import type { Observation } from "./types";
import type { PointRef, Unknowns } from "./unknowns";

/**
 * The functional model: what each kind of reading would be, given the unknowns, and its partial
 * derivatives.
 *
 * A reading is compiled once into references and constants; evaluating it allocates nothing.
 */
export type CompiledObservation = {
  id: string;
  kind: Observation["kind"];
  sigma: number;
  value: number;
  /**
   * The points involved: [from, to], [point, lineFrom, lineTo] (a station may add its origin) or
   * [from, panelPoint].
   */
  refs: PointRef[];
  /** range: direction of the beam in the body's axes. */
  direction: number;
  /** range: unit normal of the panel. */
  normalX: number;
  normalY: number;
  /** heading and range: row of the body's heading. */
  headingRow: number;
};

/**
 * The row of the design matrix of one reading, sparse: `count` pairs of (unknown, derivative),
 * reused.
 */
export type DesignRow = { count: number; rows: Int32Array; values: Float64Array };

/** Room for the largest row: four body points with three unknowns each. */
export const newDesignRow = (): DesignRow => ({
  count: 0,
  rows: new Int32Array(12),
  values: new Float64Array(12),
});

const DEGENERATE = 1e-6;

/** Checks a reading and binds its names. @throws SurveyError "bad-input" */
export function compileObservation(o: Observation, unknowns: Unknowns): CompiledObservation {
  const value = o.kind === "heading" ? o.valueRad : o.valueMm;
  if (!Number.isFinite(value))
    throw new SurveyError("bad-input", o.id, `Reading "${o.id}" is not a number; type it again.`);
  if (Math.abs(value) > 1e6)
    throw new SurveyError(
      "bad-input",
      o.id,
      `Reading "${o.id}" is beyond a kilometre; check its unit.`,
    );
  if (!(Number.isFinite(o.sigma) && o.sigma > 0))
    throw new SurveyError("bad-input", o.id, `Reading "${o.id}" needs an uncertainty above 0.`);
  if ((o.kind === "distance" || o.kind === "range") && value < 0)
    throw new SurveyError(
      "bad-input",
      o.id,
      `Reading "${o.id}" is a length and cannot be negative.`,
    );
  if (o.kind === "heading" && Math.abs(value) > 4 * Math.PI)
    throw new SurveyError(
      "bad-input",
      o.id,
      `Heading "${o.id}" exceeds two turns; is it in degrees?`,
    );

  const bind = (id: string): PointRef => {
    const ref = unknowns.refs.get(id);
    if (!ref)
      throw new SurveyError(
        "bad-input",
        o.id,
        `Reading "${o.id}" uses point "${id}", which is not there.`,
      );
    return ref;
  };
  const base = {
    id: o.id,
    kind: o.kind,
    sigma: o.sigma,
    value,
    direction: 0,
    normalX: 0,
    normalY: 0,
    headingRow: -1,
  };

  switch (o.kind) {
    case "distance":
      if (o.from === o.to)
        throw new SurveyError(
          "bad-input",
          o.id,
          `Reading "${o.id}" runs from "${o.from}" to itself.`,
        );
      return { ...base, refs: [bind(o.from), bind(o.to)] };
    case "offset":
    case "station":
      return {
        ...base,
        refs: [
          o.point,
          o.lineFrom,
          o.lineTo,
          ...(o.kind === "station" && o.origin ? [o.origin] : []),
        ].map(bind),
      };
    case "range": {
      const from = bind(o.from);
      if (from.source !== "body")
        throw new SurveyError(
          "bad-input",
          o.id,
          `The beam of "${o.id}" must leave from a point of a body.`,
        );
      if (!Number.isFinite(o.directionRad) || !Number.isFinite(o.panelHeadingRad))
        throw new SurveyError(
          "bad-input",
          o.id,
          `The beam or panel direction of "${o.id}" is not a number.`,
        );
      return {
        ...base,
        refs: [from, bind(o.panelPoint)],
        direction: o.directionRad,
        normalX: Math.cos(o.panelHeadingRad),
        normalY: Math.sin(o.panelHeadingRad),
        headingRow: from.row + 2,
      };
    }
    case "heading": {
      const row = unknowns.index[o.body];
      if (row === undefined || !unknowns.names[row + 2]?.endsWith("heading"))
        throw new SurveyError(
          "bad-input",
          o.id,
          `Reading "${o.id}" uses body "${o.body}", which is not there.`,
        );
      return { ...base, refs: [], headingRow: row + 2 };
    }
  }
}

const xOf = (r: PointRef, u: Float64Array): number =>
  r.source === "free"
    ? u[r.row]!
    : r.source === "fixed"
      ? r.px
      : u[r.row]! + Math.cos(u[r.row + 2]!) * r.px - Math.sin(u[r.row + 2]!) * r.py;

const yOf = (r: PointRef, u: Float64Array): number =>
  r.source === "free"
    ? u[r.row + 1]!
    : r.source === "fixed"
      ? r.py
      : u[r.row + 1]! + Math.sin(u[r.row + 2]!) * r.px + Math.cos(u[r.row + 2]!) * r.py;

function push(row: DesignRow, unknown: number, value: number): void {
  // Two points of one body meet in the same unknowns; add rather than repeat.
  for (let k = 0; k < row.count; k++) {
    if (row.rows[k] === unknown) {
      row.values[k]! += value;
      return;
    }
  }
  row.rows[row.count] = unknown;
  row.values[row.count++] = value;
}

/**
 * Chain rule: a derivative (gx, gy) with respect to a point, carried to the unknowns behind that
 * point.
 */
function pushPoint(row: DesignRow, r: PointRef, u: Float64Array, gx: number, gy: number): void {
  if (r.source === "fixed") return;
  push(row, r.row, gx);
  push(row, r.row + 1, gy);
  if (r.source === "free") return;
  const c = Math.cos(u[r.row + 2]!);
  const s = Math.sin(u[r.row + 2]!);
  push(row, r.row + 2, gx * (-s * r.px - c * r.py) + gy * (c * r.px - s * r.py));
}

/**
 * Computed-minus-observed of one reading at the unknowns `u`; fills `row` with the partial
 * derivatives when given.
 *
 * @throws SurveyError "degenerate" where the reading has no direction
 */
export function misclosure(o: CompiledObservation, u: Float64Array, row: DesignRow | null): number {
  if (row) row.count = 0;

  if (o.kind === "heading") {
    if (row) push(row, o.headingRow, 1);
    return wrapAngle(u[o.headingRow]! - o.value);
  }

  const p0 = o.refs[0]!;
  const p1 = o.refs[1]!;
  const x0 = xOf(p0, u);
  const y0 = yOf(p0, u);
  const x1 = xOf(p1, u);
  const y1 = yOf(p1, u);

  if (o.kind === "distance") {
    const dx = x1 - x0;
    const dy = y1 - y0;
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length < DEGENERATE)
      throw new SurveyError(
        "degenerate",
        o.id,
        `Both ends of "${o.id}" start at the same place; give a better start.`,
      );
    if (row) {
      pushPoint(row, p1, u, dx / length, dy / length);
      pushPoint(row, p0, u, -dx / length, -dy / length);
    }
    return length - o.value;
  }

  if (o.kind === "range") {
    // t = m.(C - F) / m.d : where the ray F + t d meets the panel line through C with normal m.
    const alpha = u[o.headingRow]! + o.direction;
    const dX = Math.cos(alpha);
    const dY = Math.sin(alpha);
    const facing = o.normalX * dX + o.normalY * dY;
    if (Math.abs(facing) < DEGENERATE)
      throw new SurveyError(
        "degenerate",
        o.id,
        `The beam of "${o.id}" runs along its panel and never meets it.`,
      );
    const t = (o.normalX * (x1 - x0) + o.normalY * (y1 - y0)) / facing;
    if (row) {
      pushPoint(row, p1, u, o.normalX / facing, o.normalY / facing);
      pushPoint(row, p0, u, -o.normalX / facing, -o.normalY / facing);
      push(row, o.headingRow, (-t * (o.normalY * dX - o.normalX * dY)) / facing);
    }
    return t - o.value;
  }

  // offset and station: P relative to the line A -> B. Here refs are [P, A, B].
  const p2 = o.refs[2]!;
  const bx = xOf(p2, u) - x1;
  const by = yOf(p2, u) - y1;
  const length = Math.sqrt(bx * bx + by * by);
  if (length < DEGENERATE)
    throw new SurveyError(
      "degenerate",
      o.id,
      `The line of "${o.id}" has both its points at the same place.`,
    );
  const ux = bx / length;
  const uy = by / length;
  const station = ux * (x0 - x1) + uy * (y0 - y1);
  const offset = -uy * (x0 - x1) + ux * (y0 - y1);
  if (o.kind === "offset") {
    // d(offset) = n.(dP - dA) - station dphi, with dphi = n.(dB - dA) / L and n = (-uy, ux)
    const k = station / length;
    if (row) {
      pushPoint(row, p0, u, -uy, ux);
      pushPoint(row, p1, u, uy * (1 - k), -ux * (1 - k));
      pushPoint(row, p2, u, uy * k, -ux * k);
    }
    return offset - o.value;
  }
  const origin = o.refs[3];
  if (origin) {
    // From O beside the line: d(u.(P - O)) = u.(dP - dO) + n.(P - O) dphi, with dphi = n.(dB - dA)
    // / L.
    const [ox, oy] = [x0 - xOf(origin, u), y0 - yOf(origin, u)];
    const k = (-uy * ox + ux * oy) / length;
    if (row) {
      pushPoint(row, p0, u, ux, uy);
      pushPoint(row, origin, u, -ux, -uy);
      pushPoint(row, p1, u, uy * k, -ux * k);
      pushPoint(row, p2, u, -uy * k, ux * k);
    }
    return ux * ox + uy * oy - o.value;
  }
  // d(station) = u.(dP - dA) + offset dphi
  const k = offset / length;
  if (row) {
    pushPoint(row, p0, u, ux, uy);
    pushPoint(row, p1, u, -ux + uy * k, -uy - ux * k);
    pushPoint(row, p2, u, -uy * k, ux * k);
  }
  return station - o.value;
}
