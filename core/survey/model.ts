import { wrapAngle } from "@/core/math/linear";
import { SurveyError } from "./errors";
import type { Observation, Reading, Tie } from "./types";
import { EXACT, type PointRef, type Unknowns } from "./unknowns";

/**
 * The functional model: what each kind of reading would be, given the unknowns, and its partial
 * derivatives.
 *
 * A reading is compiled once into references and constants; evaluating it allocates nothing. A
 * "coincide" compiles into two rows, a "carried" into three.
 */
export type CompiledObservation = {
  id: string;
  kind: Observation["kind"];
  sigma: number;
  value: number;
  /**
   * The points involved: [from, to], [point, lineFrom, lineTo] (a station may add its origin), [a,
   * b] or [from, panelPoint].
   */
  refs: PointRef[];
  /** range and returned: direction of the beam in the body's axes. */
  direction: number;
  /** range and returned: unit normal of the panel. */
  normalX: number;
  normalY: number;
  /** heading, range and returned: row of the body's heading. */
  headingRow: number;
  /** Row of the nuisance that scales this reading; {@link EXACT} where there is none. */
  scaleRow: number;
  /** Rows of the nuisances that shift it, and by how much for one unit. */
  causes: readonly { row: number; per: number }[];
  /** coincide and carried: which of x, y, heading this row is. */
  part: 0 | 1 | 2;
  /** carried: first rows of the two bodies and of the motion between them, and the displacement. */
  carried: Carried | null;
};

type Carried = {
  from: number;
  to: number;
  motion: number;
  byX: number;
  byY: number;
  turn: number;
  alsoX: number;
  alsoY: number;
};

/** The row of the design matrix of one reading, sparse: `count` pairs of (unknown, derivative), reused. */
export type DesignRow = { count: number; rows: Int32Array; values: Float64Array };

/**
 * Room for the largest row: a station over four points of four bodies, each point uncertain on its
 * body and shifted by two causes, with a scale and three causes of its own.
 */
export const ROW_ROOM = 4 * 7 + 4;

export const newDesignRow = (): DesignRow => ({
  count: 0,
  rows: new Int32Array(ROW_ROOM),
  values: new Float64Array(ROW_ROOM),
});

const DEGENERATE = 1e-6;
const NO_CAUSES: CompiledObservation["causes"] = [];
const PARTS = ["x", "y", "heading"] as const;

const bad = (id: string, message: string): SurveyError => new SurveyError("bad-input", id, message);

/** A row of which nothing is known yet but whose it is. */
const blank = (id: string, kind: Observation["kind"], sigma: number): CompiledObservation => ({
  id,
  kind,
  sigma,
  value: 0,
  refs: [],
  direction: 0,
  normalX: 0,
  normalY: 0,
  headingRow: EXACT,
  scaleRow: EXACT,
  causes: NO_CAUSES,
  part: 0,
  carried: null,
});

/**
 * Checks a reading or a tie, binds its names and adds its rows to `out`.
 *
 * @returns `out`
 * @throws SurveyError "bad-input"
 */
export function compileObservation(
  o: Observation,
  unknowns: Unknowns,
  out: CompiledObservation[],
): CompiledObservation[] {
  if (!(Number.isFinite(o.sigma) && o.sigma > 0))
    throw bad(o.id, `Reading "${o.id}" needs an uncertainty above 0.`);
  if (o.kind === "carried") compileCarried(o, unknowns, out);
  else if (o.kind === "coincide") compileCoincide(o, unknowns, out);
  else out.push(compileReading(o, unknowns));
  return out;
}

function bind(reading: string, id: string, unknowns: Unknowns): PointRef {
  const ref = unknowns.refs.get(id);
  if (!ref) throw bad(reading, `Reading "${reading}" uses point "${id}", which is not there.`);
  return ref;
}

function bodyRow(reading: string, body: string, unknowns: Unknowns): number {
  if (!unknowns.bodies.has(body))
    throw bad(reading, `Reading "${reading}" uses body "${body}", which is not there.`);
  return unknowns.index[body]!;
}

function sharedRow(reading: string, id: string | undefined, unknowns: Unknowns): number {
  if (id === undefined) return EXACT;
  if (!unknowns.nuisances.has(id))
    throw bad(reading, `Reading "${reading}" shares "${id}", which is not there.`);
  return unknowns.index[id]!;
}

function compileReading(o: Reading, unknowns: Unknowns): CompiledObservation {
  const row = blank(o.id, o.kind, o.sigma);
  const value = o.kind === "heading" ? o.valueRad : o.kind === "cause" ? o.value : o.valueMm;
  if (!Number.isFinite(value)) throw bad(o.id, `Reading "${o.id}" is not a number; type it again.`);
  if (Math.abs(value) > 1e6)
    throw bad(o.id, `Reading "${o.id}" is beyond a kilometre; check its unit.`);
  if ((o.kind === "distance" || o.kind === "range") && value < 0)
    throw bad(o.id, `Reading "${o.id}" is a length and cannot be negative.`);
  if (o.kind === "heading" && Math.abs(value) > 4 * Math.PI)
    throw bad(o.id, `Heading "${o.id}" exceeds two turns; is it in degrees?`);
  row.value = value;
  if (o.kind === "cause") {
    row.causes = [{ row: sharedRow(o.id, o.of, unknowns), per: 1 }];
    if (o.minus !== undefined)
      row.causes = [...row.causes, { row: sharedRow(o.id, o.minus, unknowns), per: -1 }];
    return row;
  }
  if (o.causes)
    row.causes = o.causes.map(({ cause, per }) => {
      if (!Number.isFinite(per)) throw bad(o.id, `What "${cause}" does to it is not a number.`);
      return { row: sharedRow(o.id, cause, unknowns), per };
    });
  if (row.causes.length > 3) throw bad(o.id, `Reading "${o.id}" shares more than three causes.`);
  if (o.kind !== "heading") row.scaleRow = sharedRow(o.id, o.scale, unknowns);
  switch (o.kind) {
    case "distance":
      if (o.from === o.to) throw bad(o.id, `Reading "${o.id}" runs from "${o.from}" to itself.`);
      row.refs = [bind(o.id, o.from, unknowns), bind(o.id, o.to, unknowns)];
      return row;
    case "offset":
    case "station":
      row.refs = [o.point, o.lineFrom, o.lineTo].map((id) => bind(o.id, id, unknowns));
      if (o.kind === "station" && o.origin) row.refs.push(bind(o.id, o.origin, unknowns));
      return row;
    case "range":
    case "returned": {
      const from = bind(o.id, o.from, unknowns);
      if (from.source !== "body")
        throw bad(o.id, `The beam of "${o.id}" must leave from a point of a body.`);
      if (!Number.isFinite(o.directionRad) || !Number.isFinite(o.panelHeadingRad))
        throw bad(o.id, `The beam or panel direction of "${o.id}" is not a number.`);
      row.refs = [from, bind(o.id, o.panelPoint, unknowns)];
      row.direction = o.directionRad;
      row.normalX = Math.cos(o.panelHeadingRad);
      row.normalY = Math.sin(o.panelHeadingRad);
      row.headingRow = from.row + 2;
      return row;
    }
    case "heading":
      row.headingRow = bodyRow(o.id, o.body, unknowns) + 2;
      return row;
  }
}

function compileCoincide(
  o: Extract<Tie, { kind: "coincide" }>,
  unknowns: Unknowns,
  out: CompiledObservation[],
): void {
  if (o.a === o.b) throw bad(o.id, `"${o.id}" ties "${o.a}" to itself.`);
  for (const part of [0, 1] as const) {
    const row = blank(`${o.id}/${PARTS[part]}`, o.kind, o.sigma);
    row.refs = [bind(o.id, o.a, unknowns), bind(o.id, o.b, unknowns)];
    row.part = part;
    out.push(row);
  }
}

function compileCarried(
  o: Extract<Tie, { kind: "carried" }>,
  unknowns: Unknowns,
  out: CompiledObservation[],
): void {
  if (!(Number.isFinite(o.sigmaRad) && o.sigmaRad > 0))
    throw bad(o.id, `"${o.id}" needs an uncertainty of its turn above 0.`);
  const { xMm, yMm, headingRad } = o.by;
  const also = o.alsoMm ?? { xMm: 0, yMm: 0 };
  if (![xMm, yMm, headingRad, also.xMm, also.yMm].every(Number.isFinite))
    throw bad(o.id, `The displacement of "${o.id}" is not a number.`);
  if (o.from === o.to) throw bad(o.id, `"${o.id}" carries "${o.from}" to itself.`);
  const carried: Carried = {
    from: bodyRow(o.id, o.from, unknowns),
    to: bodyRow(o.id, o.to, unknowns),
    motion: o.motion === undefined ? EXACT : bodyRow(o.id, o.motion, unknowns),
    byX: xMm,
    byY: yMm,
    turn: headingRad,
    alsoX: also.xMm,
    alsoY: also.yMm,
  };
  for (const part of [0, 1, 2] as const) {
    const row = blank(`${o.id}/${PARTS[part]}`, o.kind, part === 2 ? o.sigmaRad : o.sigma);
    row.part = part;
    row.carried = carried;
    out.push(row);
  }
}

/** Coordinates of a body point in the body's own axes. */
function ownX(r: Extract<PointRef, { source: "body" }>, u: Float64Array): number {
  let x = r.own === EXACT ? r.px : u[r.own]!;
  for (let i = 0; i < r.by.length; i++) x += r.by[i]!.x * u[r.by[i]!.row]!;
  return x;
}
function ownY(r: Extract<PointRef, { source: "body" }>, u: Float64Array): number {
  let y = r.own === EXACT ? r.py : u[r.own + 1]!;
  for (let i = 0; i < r.by.length; i++) y += r.by[i]!.y * u[r.by[i]!.row]!;
  return y;
}

const xOf = (r: PointRef, u: Float64Array): number =>
  r.source === "free"
    ? u[r.row]!
    : r.source === "fixed"
      ? r.px
      : u[r.row]! + Math.cos(u[r.row + 2]!) * ownX(r, u) - Math.sin(u[r.row + 2]!) * ownY(r, u);

const yOf = (r: PointRef, u: Float64Array): number =>
  r.source === "free"
    ? u[r.row + 1]!
    : r.source === "fixed"
      ? r.py
      : u[r.row + 1]! + Math.sin(u[r.row + 2]!) * ownX(r, u) + Math.cos(u[r.row + 2]!) * ownY(r, u);

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

/** Chain rule: a derivative (gx, gy) with respect to a point, carried to the unknowns behind that point. */
function pushPoint(row: DesignRow, r: PointRef, u: Float64Array, gx: number, gy: number): void {
  if (r.source === "fixed") return;
  push(row, r.row, gx);
  push(row, r.row + 1, gy);
  if (r.source === "free") return;
  const c = Math.cos(u[r.row + 2]!);
  const s = Math.sin(u[r.row + 2]!);
  const px = ownX(r, u);
  const py = ownY(r, u);
  push(row, r.row + 2, gx * (-s * px - c * py) + gy * (c * px - s * py));
  const ownGx = gx * c + gy * s;
  const ownGy = -gx * s + gy * c;
  for (let i = 0; i < r.by.length; i++) {
    const b = r.by[i]!;
    push(row, b.row, ownGx * b.x + ownGy * b.y);
  }
  if (r.own === EXACT) return;
  push(row, r.own, ownGx);
  push(row, r.own + 1, ownGy);
}

/**
 * Computed-minus-observed of one reading at the unknowns `u`; fills `row` with the partial
 * derivatives when given. With a shared scale k and causes b the reading is geometry (1 + k) + the
 * sum of what each cause adds.
 *
 * @throws SurveyError "degenerate" where the reading has no direction
 */
export function misclosure(o: CompiledObservation, u: Float64Array, row: DesignRow | null): number {
  if (row) row.count = 0;
  if (o.carried) return carriedMisclosure(o, o.carried, u, row);
  const off = geometry(o, u, row);
  if (o.scaleRow === EXACT && o.causes.length === 0) return off;
  const scale = o.scaleRow === EXACT ? 0 : u[o.scaleRow]!;
  const shown = off + o.value;
  let sum = off + scale * shown;
  for (let i = 0; i < o.causes.length; i++) sum += o.causes[i]!.per * u[o.causes[i]!.row]!;
  if (row) {
    if (scale !== 0) for (let k = 0; k < row.count; k++) row.values[k]! *= 1 + scale;
    if (o.scaleRow !== EXACT) push(row, o.scaleRow, shown);
    for (let i = 0; i < o.causes.length; i++) push(row, o.causes[i]!.row, o.causes[i]!.per);
  }
  return sum;
}

/**
 * One row of "body `to` is body `from`, carried": with R the turn of `from` and (d, f) the motion of
 * the vehicle's axes in between,
 *   t = R(-f) (p + R by + also - d),  heading_t = heading_p + turn - f.
 */
function carriedMisclosure(
  o: CompiledObservation,
  k: Carried,
  u: Float64Array,
  row: DesignRow | null,
): number {
  const moved = k.motion !== EXACT;
  const f = moved ? u[k.motion + 2]! : 0;
  if (o.part === 2) {
    if (row) {
      push(row, k.to + 2, 1);
      push(row, k.from + 2, -1);
      if (moved) push(row, k.motion + 2, 1);
    }
    return wrapAngle(u[k.to + 2]! - u[k.from + 2]! - k.turn + f);
  }
  const c = Math.cos(u[k.from + 2]!);
  const s = Math.sin(u[k.from + 2]!);
  const armX = c * k.byX - s * k.byY;
  const armY = s * k.byX + c * k.byY;
  const x = u[k.from]! + armX + k.alsoX - (moved ? u[k.motion]! : 0);
  const y = u[k.from + 1]! + armY + k.alsoY - (moved ? u[k.motion + 1]! : 0);
  const cf = Math.cos(f);
  const sf = Math.sin(f);
  // One row of R(-f): (cf, sf) for x, (-sf, cf) for y; its derivative by f is the other one, turned.
  const gx = o.part === 0 ? cf : -sf;
  const gy = o.part === 0 ? sf : cf;
  if (row) {
    push(row, k.to + o.part, 1);
    push(row, k.from, -gx);
    push(row, k.from + 1, -gy);
    push(row, k.from + 2, gx * armY - gy * armX);
    if (moved) {
      push(row, k.motion, gx);
      push(row, k.motion + 1, gy);
      push(row, k.motion + 2, o.part === 0 ? sf * x - cf * y : cf * x + sf * y);
    }
  }
  return u[k.to + o.part]! - gx * x - gy * y;
}

/** The same for the bare geometry of a reading, before what it shares with others. */
function geometry(o: CompiledObservation, u: Float64Array, row: DesignRow | null): number {
  if (o.kind === "cause") return -o.value;
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

  if (o.kind === "coincide") {
    if (row) {
      pushPoint(row, p1, u, o.part === 0 ? 1 : 0, o.part === 0 ? 0 : 1);
      pushPoint(row, p0, u, o.part === 0 ? -1 : 0, o.part === 0 ? 0 : -1);
    }
    return o.part === 0 ? x1 - x0 : y1 - y0;
  }

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

  if (o.kind === "range" || o.kind === "returned") {
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
    // Thrown back, it lands t tan 2a beside where it left; a = the angle between beam and normal.
    const sine = o.normalX * dY - o.normalY * dX;
    const half = 2 * facing * facing - 1;
    const back = o.kind === "returned";
    if (back && Math.abs(half) < DEGENERATE)
      throw new SurveyError(
        "degenerate",
        o.id,
        `The light of "${o.id}" is thrown aside by its mirror and never comes back.`,
      );
    const per = back ? (-2 * facing * sine) / half : 1;
    if (row) {
      pushPoint(row, p1, u, (per * o.normalX) / facing, (per * o.normalY) / facing);
      pushPoint(row, p0, u, (-per * o.normalX) / facing, (-per * o.normalY) / facing);
      const turns = back ? -2 * t * (1 + per * per) : 0;
      push(row, o.headingRow, turns + (per * t * sine) / facing);
    }
    return t * per - o.value;
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
