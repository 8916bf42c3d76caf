import { Heap } from "@/core/drive/heap";
import type { Bay } from "./bay";
import { gapMm, isInside, type Convex, type Vec } from "./convex";

/**
 * Where a vehicle has to stand in a bay so that all that is set out about it fits, with the most room to
 * spare. Every part moves with the vehicle: no part moves farther than the vehicle is pushed and turned,
 * and neither does the room to spare change by more. So of a whole range of poses the middle says how
 * good the best of them can be, and what cannot be best is left out: what is left is the best there is,
 * within a stated slack.
 */

/** A part of the floor that has to be free, in the vehicle's own frame, mm. */
export type Zone = { name: string; shape: Convex; fromMm: number; toMm: number };

/** Where the vehicle's own frame lies in the bay: its origin, and how it is turned to the left. */
export type Pose = { xMm: number; yMm: number; headingRad: number };

export type Fit = {
  pose: Pose;
  /** Room to spare between any part and any wall or thing, mm; below zero it does not fit. */
  marginMm: number;
  /** No pose has more than this, mm. */
  boundMm: number;
  /** What comes nearest to each other there. */
  nearest: { zone: string; thing: string };
};

/** How much more room another pose may have than the one that is found, mm. */
export const SLACK_MM = 25;
/** Poses that are looked at before the best so far has to do. */
const MOST_LOOKS = 60_000;

type Thing = {
  name: string;
  shape: Convex;
  fromMm: number;
  toMm: number;
  at: Vec;
  reachMm: number;
};

/** Walls and things with a circle about each, so that what is far need not be looked at. */
function thingsOf(bay: Bay): Thing[] {
  const thing = (name: string, shape: Convex, fromMm: number, toMm: number): Thing => {
    const at: Vec = [mean(shape.map((c) => c[0])), mean(shape.map((c) => c[1]))];
    return { name, shape, fromMm, toMm, at, reachMm: reachFrom(shape, at) };
  };
  const walls = bay.outline.map((a, i) =>
    thing(`wall ${i + 1}`, [a, bay.outline[(i + 1) % bay.outline.length]!], 0, Infinity),
  );
  return [...walls, ...bay.obstacles.map((o) => thing(o.name, o.outline, o.fromMm, o.toMm))];
}

const mean = (of: readonly number[]): number => of.reduce((s, v) => s + v, 0) / of.length;
const reachFrom = (shape: Convex, [x, y]: Vec): number =>
  shape.reduce((m, c) => Math.max(m, Math.hypot(c[0] - x, c[1] - y)), 0);

/** A shape of the vehicle's frame where it lies in the bay. */
export function placed(shape: Convex, { xMm, yMm, headingRad }: Pose): Vec[] {
  const [c, s] = [Math.cos(headingRad), Math.sin(headingRad)];
  return shape.map(([x, y]): Vec => [xMm + c * x - s * y, yMm + s * x + c * y]);
}

/** A part with a circle about it, and how far it swings when the vehicle turns. */
type Part = Zone & { reachMm: number; swingMm: number };

/**
 * The room to spare at a pose, what it is between, and the most it may be anywhere in a range about it.
 *
 * @param enough where even the most is not above it, nothing of it need be known closer
 */
function roomAt(
  outline: readonly Vec[],
  things: readonly Thing[],
  zones: readonly Part[],
  { halfMm, halfRad, ...pose }: Pose & { halfMm: number; halfRad: number },
  enough: number,
): Pick<Fit, "marginMm" | "nearest"> & { most: number } {
  let marginMm = Infinity;
  let most = Infinity;
  let nearest = { zone: "", thing: "" };
  const take = (room: number, strays: number, zone: Zone, thing: string): void => {
    if (room < marginMm) [marginMm, nearest] = [room, { zone: zone.name, thing }];
    most = Math.min(most, room + strays);
  };
  for (const zone of zones) {
    const strays = halfMm * Math.SQRT2 + zone.swingMm * halfRad;
    const shape = placed(zone.shape, pose);
    const middle: Vec = [mean(shape.map((c) => c[0])), mean(shape.map((c) => c[1]))];
    for (const corner of shape) {
      if (isInside(corner, outline)) continue;
      // Outside a wall: as far as that corner has to come back.
      let back = Infinity;
      let wall = "";
      things.slice(0, outline.length).forEach((w) => {
        const d = gapMm([corner], w.shape);
        if (d < back) [back, wall] = [d, w.name];
      });
      take(-back, strays, zone, wall);
    }
    for (const t of things) {
      if (t.fromMm >= zone.toMm || t.toMm <= zone.fromMm) continue;
      const far = Math.hypot(t.at[0] - middle[0], t.at[1] - middle[1]) - t.reachMm - zone.reachMm;
      if (far >= marginMm && far + strays >= most) continue;
      take(gapMm(shape, t.shape), strays, zone, t.name);
      if (most <= enough) return { marginMm, nearest, most };
    }
  }
  return { marginMm, nearest, most };
}

type Box = { xMm: number; yMm: number; headingRad: number; halfMm: number; halfRad: number };

/**
 * The pose with the most room to spare, within {@link SLACK_MM}.
 *
 * @param zones all that has to be free at once; at least one
 */
export function bestFit(bay: Bay, zones: readonly Zone[], slackMm = SLACK_MM): Fit {
  const things = thingsOf(bay);
  // The vehicle turns about the middle of all that belongs to it: nothing then moves farther than it must.
  const corners = zones.flatMap((z) => z.shape);
  const pivot: Vec = [
    (Math.min(...corners.map((c) => c[0])) + Math.max(...corners.map((c) => c[0]))) / 2,
    (Math.min(...corners.map((c) => c[1])) + Math.max(...corners.map((c) => c[1]))) / 2,
  ];
  const reach = reachFrom(corners, pivot);
  const own = zones.map((z) => {
    const at: Vec = [mean(z.shape.map((c) => c[0])), mean(z.shape.map((c) => c[1]))];
    return { ...z, reachMm: reachFrom(z.shape, at), swingMm: reachFrom(z.shape, pivot) };
  });
  const poseOf = ({ xMm, yMm, headingRad }: Pick<Box, "xMm" | "yMm" | "headingRad">): Pose => {
    const [[x, y]] = placed([pivot], { xMm: 0, yMm: 0, headingRad }) as [Vec];
    return { xMm: xMm - x, yMm: yMm - y, headingRad };
  };
  const xs = bay.outline.map((c) => c[0]);
  const ys = bay.outline.map((c) => c[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const halfMm = Math.max(x1 - x0, y1 - y0) / 2;
  let best: Omit<Fit, "boundMm"> | null = null;
  const heap = new Heap<Box & { most: number }>();
  const look = (box: Box): void => {
    const pose = poseOf(box);
    const { halfMm, halfRad } = box;
    // A range that holds nothing better holds no better pose either.
    const enough = best ? best.marginMm : -Infinity;
    const { most, ...is } = roomAt(bay.outline, things, own, { ...pose, halfMm, halfRad }, enough);
    if (most <= enough) return;
    if (!best || is.marginMm > best.marginMm) best = { pose, ...is };
    if (most > best.marginMm + slackMm) heap.push({ ...box, most }, -most);
  };
  const turns = 8;
  for (let n = 0; n < turns; n++)
    look({
      xMm: (x0 + x1) / 2,
      yMm: (y0 + y1) / 2,
      headingRad: (2 * Math.PI * n) / turns,
      halfMm,
      halfRad: Math.PI / turns,
    });
  let left: number | null = null;
  for (let looks = 0, at = heap.pop(); at; at = heap.pop()) {
    if (at.most <= best!.marginMm + slackMm) break;
    if (looks > MOST_LOOKS) {
      left = at.most;
      break;
    }
    // What strays more is cut: the turn, or the push.
    const turn = reach * at.halfRad > at.halfMm * Math.SQRT2;
    const half = turn ? at.halfRad / 2 : at.halfMm / 2;
    if (turn)
      for (const s of [-half, half]) {
        look({ ...at, headingRad: at.headingRad + s, halfRad: half });
        looks++;
      }
    else
      for (const dx of [-half, half])
        for (const dy of [-half, half]) {
          look({ ...at, xMm: at.xMm + dx, yMm: at.yMm + dy, halfMm: half });
          looks++;
        }
  }
  const found = best as unknown as Omit<Fit, "boundMm">;
  return { ...found, boundMm: left ?? found.marginMm + slackMm };
}
