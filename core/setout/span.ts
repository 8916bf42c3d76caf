import { vehiclePoints } from "@/core/vehicle";
import type { Slot } from "./slot";
import type { SetOutSolution } from "./solve";
import { BAY, type WallPlace } from "./walls";

/** A place on the floor, vehicle axes, mm. */
export type FloorSpot = { xMm: number; yMm: number };
/** A carrier as it stands. */
export type FloorPose = FloorSpot & { headingRad: number };

/**
 * Where a reading in the plan runs on the floor, by what it observes: between two ends, or from a
 * point square to a line.
 *
 * @param at where the carrier is drawn; as it was last known where it is not given
 * @returns null for what has no place in the plan (a height, a tilt, a heading), and where an end of it
 *   is not there any more
 */
export function spanOf(
  slot: Slot,
  { plan, target, network, body, mates, adjustment }: SetOutSolution,
  at: FloorPose = target.pose,
): [FloorSpot, FloorSpot] | null {
  if (slot.observes.in !== "plan") return null;
  const places = new Map(vehiclePoints(plan.vehicle).map((p) => [p.id as string, p]));
  const ownPoints = (id: string | undefined) =>
    new Map(network.bodies.find((b) => b.id === id)?.points.map((p) => [`${id}.${p.id}`, p]));
  const mate = slot.mate === undefined ? undefined : mates[slot.mate];
  const other = adjustment?.bodies.find((b) => b.id === mate);
  const [onStand, onOther] = [ownPoints(body), ownPoints(mate)];
  const place = (ref: string): FloorSpot | null => {
    const [own, far] = [onStand.get(ref), onOther.get(ref)];
    if (far && other) return turnedOut(other, far);
    if (own) return turnedOut(at, own);
    const point = places.get(ref);
    return point ? { xMm: point.xMm, yMm: point.yMm } : null;
  };
  const between = (a: FloorSpot | null, b: FloorSpot | null): [FloorSpot, FloorSpot] | null =>
    a && b && [a, b];
  const o = slot.observes.observation("drawn", 0, 1, body, mate);
  switch (o.kind) {
    case "distance":
      return between(place(o.from), place(o.to));
    case "range":
    case "returned":
      return between(place(o.from), place(o.panelPoint));
    case "station":
      return between(place(o.origin ?? o.lineFrom), place(o.point));
    case "offset": {
      // The board laser runs along its own line; a mark beside a line is drawn square to it.
      if (o.lineFrom === `${body}.laser` || o.lineFrom === `${body}.centre`)
        return between(place(o.lineFrom), place(o.point));
      const [p, q, x] = [place(o.lineFrom), place(o.lineTo), place(o.point)];
      return p && q && x && [foot(p, q, x), x];
    }
    case "heading":
    case "cause":
      return null;
  }
}

/** A wall that is looked at, as it lies on the floor, by its number in the bay. */
export type FloorWall = { id: string; n: number; from: FloorSpot; to: FloorSpot };

/** The walls that readings run to, where the whole estimate has them about the vehicle. */
export function wallsOf({ plan, slots, mates, adjustment }: SetOutSolution): FloorWall[] {
  const at = adjustment?.bodies.find((b) => b.id === mates[BAY]);
  const { bay } = plan;
  if (!at || !bay) return [];
  const looked = new Set(slots.flatMap((s) => s.wall?.id ?? []));
  const spot = ([xMm, yMm]: WallPlace): FloorSpot => turnedOut(at, { xMm, yMm });
  return bay.walls
    .filter((w) => looked.has(`${bay.bay}.${w.id}`))
    .map((w) => ({ id: w.id, n: w.n, from: spot(w.from), to: spot(w.to) }));
}

/** A point of a carrier, in its own axes, on the floor. */
function turnedOut(at: FloorPose, { xMm, yMm }: FloorSpot): FloorSpot {
  const [c, s] = [Math.cos(at.headingRad), Math.sin(at.headingRad)];
  return { xMm: at.xMm + c * xMm - s * yMm, yMm: at.yMm + s * xMm + c * yMm };
}

/** Where the square from a point meets the line through two others. */
function foot(p: FloorSpot, q: FloorSpot, x: FloorSpot): FloorSpot {
  const [dx, dy] = [q.xMm - p.xMm, q.yMm - p.yMm];
  const t = ((x.xMm - p.xMm) * dx + (x.yMm - p.yMm) * dy) / (dx * dx + dy * dy);
  return { xMm: p.xMm + t * dx, yMm: p.yMm + t * dy };
}
