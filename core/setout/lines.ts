import { wrapAngle } from "@/core/math/linear";
import { DATUM_NAMES, type DatumKind, type VehiclePointId } from "@/core/vehicle";
import { datumFrame, datumLine, type DatumFrame } from "./plan";
import { proofHalfWidths } from "./proof";
import { inSchool } from "./schools";
import type { Slot } from "./slot";
import type { SetOutSolution } from "./solve";

/** One of the lines a sheet may mean, as far as it is known on this very vehicle. */
export type LineView = {
  kind: DatumKind;
  name: string;
  /**
   * Against the sheet's own datum, counter-clockwise positive, and its standard uncertainty; null
   * while it is unknown.
   */
  turnRad: number | null;
  sigmaRad: number;
  /** How far from the sheet's datum it lies at the board, vehicle left positive. */
  atBoardMm: number | null;
  sigmaMm: number;
  /** Whether the readings saw it on this vehicle, or it is only what the book's dimensions say. */
  seen: boolean;
  /** Whether taking it for the sheet's datum would use up more than a third of a tolerance. */
  matters: boolean;
  isSheets: boolean;
};

const KINDS: Exclude<DatumKind, "side-line">[] = ["centreline", "rear-axle-normal", "thrust"];
/** The points that give each line its direction. */
const POINTS: Record<Exclude<DatumKind, "side-line">, VehiclePointId[]> = {
  centreline: ["badgeF", "badgeR"],
  "rear-axle-normal": ["hubRL", "hubRR"],
  thrust: ["hubRL", "hubRR"],
};

/**
 * Derivatives of a line's heading, and of its place across at a distance ahead, by all unknowns of
 * the adjustment.
 */
function gradients(
  s: SetOutSolution,
  frame: DatumFrame,
  atX: number,
): { heading: Float64Array; across: Float64Array } {
  const { index, order } = s.adjustment!.joint;
  const [heading, across] = [new Float64Array(order), new Float64Array(order)];
  const at = (id: VehiclePointId) => s.adjustment!.points.find((p) => p.id === id)!;
  const [p, q] = [at(frame.directionFrom), at(frame.directionTo)];
  const square = (q.xMm - p.xMm) ** 2 + (q.yMm - p.yMm) ** 2;
  const [mx, my] = [-(q.yMm - p.yMm) / square, (q.xMm - p.xMm) / square];
  const line = datumLine(frame, s.adjustment!.points, s.adjustment!.nuisances);
  const lever = atX - line.xMm;
  const add = (g: Float64Array, id: VehiclePointId, x: number, y: number): void => {
    const row = index[id];
    if (row === undefined) return;
    g[row]! += x;
    g[row + 1]! += y;
  };
  for (const [id, sign] of [
    [frame.directionTo, 1],
    [frame.directionFrom, -1],
  ] as const) {
    add(heading, id, sign * mx, sign * my);
    add(across, id, sign * lever * mx, sign * lever * my);
  }
  for (const [cause, weight] of frame.turnBy ?? []) {
    const row = index[cause];
    if (row === undefined) continue;
    heading[row]! += weight;
    across[row]! += lever * weight;
  }
  // The line runs nearly along x: a point of it that shifts left carries the whole line left.
  for (const [id, w] of frame.through) add(across, id, 0, w);
  return { heading, across };
}

function sigmaOf(s: SetOutSolution, g: Float64Array): number {
  const { covariance, order } = s.adjustment!.joint;
  let sum = 0;
  for (let i = 0; i < order; i++)
    if (g[i] !== 0)
      for (let k = 0; k < order; k++) sum += g[i]! * covariance[i * order + k]! * g[k]!;
  return Math.sqrt(Math.max(0, sum));
}

const minus = (a: Float64Array, b: Float64Array): Float64Array => a.map((v, i) => v - b[i]!);

/**
 * Centreline, rear-axle normal and thrust line from whatever was measured: how far each is turned
 * from the sheet's datum, and how far that carries the board. Empty while nothing solves.
 */
export function lineViews(s: SetOutSolution): LineView[] {
  // Of a floor mark only the line through the hubs of its own side is meant.
  if (!s.adjustment || s.plan.target.line) return [];
  const { target, rearToe } = s.plan;
  const { points, nuisances } = s.adjustment;
  const frameOf = (kind: Exclude<DatumKind, "side-line">): DatumFrame | null =>
    kind === "thrust" && !rearToe
      ? null
      : datumFrame({ ...s.plan, target: { ...target, datum: kind } });
  const own = s.frame;
  const ownLine = datumLine(own, points, nuisances);
  const atX = s.target.pose.xMm;
  const ownGradients = gradients(s, own, atX);
  const acrossAt = (f: DatumFrame): number => {
    const l = datumLine(f, points, nuisances);
    return l.yMm + Math.tan(l.headingRad) * (atX - l.xMm);
  };
  const saw = new Set(s.readings.filter((r) => r.state === "counts").map((r) => r.slotId));
  return KINDS.map((kind): LineView => {
    const frame = frameOf(kind);
    const base = { kind, name: DATUM_NAMES[kind], isSheets: kind === target.datum };
    if (!frame)
      return {
        ...base,
        turnRad: null,
        sigmaRad: 0,
        atBoardMm: null,
        sigmaMm: 0,
        seen: false,
        matters: false,
      };
    const g = gradients(s, frame, atX);
    const turnRad = wrapAngle(datumLine(frame, points, nuisances).headingRad - ownLine.headingRad);
    const atBoardMm = acrossAt(frame) - acrossAt(own);
    const [, acrossMm, twistRad] = proofHalfWidths(s.plan);
    return {
      ...base,
      turnRad,
      sigmaRad: sigmaOf(s, minus(g.heading, ownGradients.heading)),
      atBoardMm,
      sigmaMm: sigmaOf(s, minus(g.across, ownGradients.across)),
      seen: s.slots.some((slot) => saw.has(slot.id) && touches(slot, POINTS[kind])),
      matters: Math.abs(turnRad) > twistRad / 3 || Math.abs(atBoardMm) > acrossMm / 3,
    };
  });
}

/** Whether a reading touches one of these points. */
function touches(slot: Slot, points: readonly VehiclePointId[]): boolean {
  if (slot.observes.in !== "plan") return false;
  const o = slot.observes.observation("probe", 0, 1, "carrier");
  const ends =
    o.kind === "distance"
      ? [o.from, o.to]
      : o.kind === "range" || o.kind === "returned"
        ? [o.panelPoint]
        : o.kind === "heading" || o.kind === "cause"
          ? []
          : [o.point, o.lineFrom, o.lineTo];
  return ends.some((e) => (points as readonly string[]).includes(e));
}

/**
 * A warning where the school in use cannot see the line the sheet means on this very vehicle, and
 * the reading that would; null where it can, or where one was taken.
 */
export function blindTo(s: SetOutSolution): { say: string; slotId: string | null } | null {
  const { datum } = s.plan.target;
  const points =
    datum === "side-line" ? [s.frame.directionFrom, s.frame.directionTo] : POINTS[datum];
  const sees = (slot: Slot): boolean => touches(slot, points);
  const saw = new Set(s.readings.filter((r) => r.state === "counts").map((r) => r.slotId));
  if (s.slots.some((slot) => sees(slot) && (saw.has(slot.id) || inSchool(s.plan, slot))))
    return null;
  const would = s.slots.find(sees);
  return {
    say: `The sheet means the ${DATUM_NAMES[s.plan.target.datum]}; nothing this way reads touches it on this vehicle.${would ? ` Take “${would.name}” too.` : " The kit has no instrument that would."}`,
    slotId: would?.id ?? null,
  };
}
