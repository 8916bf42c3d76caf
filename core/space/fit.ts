import { Heap } from "@/core/math/heap";
import type { Bay } from "./bay";
import { beamOf } from "./light";
import { apartAtLeast, gapMm, isInside, offMm, type Convex, type Vec } from "./convex";

/**
 * Where a vehicle has to stand in a bay so that all that is set out about it fits, with the most room to
 * spare. Every part moves with the vehicle: no part moves farther than the vehicle is pushed and turned,
 * and neither does the room to spare change by more. So of a whole range of poses the middle says how
 * good the best of them can be, and what cannot be best is left out: what is left is the best there is,
 * within a stated slack.
 */

/** A part of the floor that has to be free, or that a camera looks over, in the vehicle's own frame, mm. */
export type Zone = {
  name: string;
  shape: Convex;
  fromMm: number;
  toMm: number;
  /** A camera's look instead of something solid: where it is, and what may not stand in it. */
  eye?: { at: Vec; minds: "light" | "likeness" };
};

/** Where the vehicle's own frame lies in the bay: its origin, and how it is turned to the left. */
export type Pose = { xMm: number; yMm: number; headingRad: number };

/** What a floor asks of a pose beyond room. */
export type FloorRule = {
  /** How much of what is allowed is used up there: above one the floor is not good enough. */
  used: (pose: Pose) => number;
  /** By how much that changes at the most from a pose, for a push and a turn about a place of its frame. */
  changes: (pose: Pose, pushMm: number, turnRad: number, about: Vec) => number;
  /** It and others as one rule, where all of them ask the same floor: one is cheaper to ask. */
  joined?: (others: readonly FloorRule[]) => FloorRule | null;
  /** Farthest a place where the floor is asked at moves then, mm. */
  straysMm: (pushMm: number, turnRad: number, about: Vec) => number;
};

export type Fit = {
  pose: Pose;
  /** Room to spare between any part and any wall or thing, mm; below zero it does not fit. */
  marginMm: number;
  /** No pose has more than this, mm. */
  boundMm: number;
  /** What comes nearest to each other there. */
  nearest: { zone: string; thing: string };
  /** How much of the floor's limits is used there; null where none were asked. */
  floorUsed: number | null;
};

/** How much more room another pose may have than the one that is found, mm. */
export const SLACK_MM = 25;
/** Poses that are looked at before the best so far has to do. */
const MOST_LOOKS = 80_000;
/** How much less something may lack elsewhere where it fits nowhere on a surveyed floor, mm. */
const NOWHERE_SLACK_MM = 200;
/** Where no wheel moves farther than this, mm, a floor that is not good enough is left. */
const FLOOR_STRAYS_MM = 4;

type Kind = "wall" | "solid" | "light" | "likeness";
type Thing = {
  name: string;
  kind: Kind;
  shape: Convex;
  fromMm: number;
  toMm: number;
  at: Vec;
  reachMm: number;
  /** The floor a light shines on. */
  beam: Convex | null;
};

/** Walls and things with a circle about each, so that what is far need not be looked at. */
function thingsOf(bay: Bay): Thing[] {
  const thing = (t: Omit<Thing, "at" | "reachMm">): Thing => {
    const at = middleOf(t.shape);
    return { ...t, at, reachMm: reachFrom(t.shape, at) };
  };
  const everywhere = { fromMm: 0, toMm: Infinity, beam: null };
  const walls = bay.outline.map((a, i) => ({
    ...everywhere,
    name: `wall ${i + 1}`,
    kind: "wall" as const,
    shape: [a, bay.outline[(i + 1) % bay.outline.length]!],
  }));
  const solids = bay.obstacles.map((o) => ({
    name: o.name,
    kind: "solid" as const,
    shape: o.outline,
    fromMm: o.fromMm,
    toMm: o.toMm,
    beam: null,
  }));
  const lights = bay.lights.map((l) => ({
    ...everywhere,
    name: l.name,
    kind: "light" as const,
    shape: [l.from, l.to],
    beam: beamOf(l),
  }));
  const likenesses = bay.likenesses.map((l) => ({
    ...everywhere,
    name: l.name,
    kind: "likeness" as const,
    shape: [l.from, l.to],
  }));
  return [...walls, ...solids, ...lights, ...likenesses].map(thing);
}

const mean = (of: readonly number[]): number => of.reduce((s, v) => s + v, 0) / of.length;
const middleOf = (shape: Convex): Vec => [
  mean(shape.map((c) => c[0])),
  mean(shape.map((c) => c[1])),
];
const reachFrom = (shape: Convex, [x, y]: Vec): number =>
  shape.reduce((m, c) => Math.max(m, Math.hypot(c[0] - x, c[1] - y)), 0);

/** A shape of the vehicle's frame where it lies in the bay. */
export function placed(shape: Convex, { xMm, yMm, headingRad }: Pose): Vec[] {
  const [c, s] = [Math.cos(headingRad), Math.sin(headingRad)];
  return shape.map(([x, y]): Vec => [xMm + c * x - s * y, yMm + s * x + c * y]);
}

/** A part with a circle about it, and how far it swings when the vehicle turns. */
type Part = Zone & { middle: Vec; reachMm: number; swingMm: number };

/** A part and what it may come near to; without a thing, whether its corners are inside the walls. */
type Pair = { part: Part; thing: Thing | null };

const overlaps = (a: { fromMm: number; toMm: number }, b: { fromMm: number; toMm: number }) =>
  a.fromMm < b.toMm && a.toMm > b.fromMm;

function pairsOf(parts: readonly Part[], things: readonly Thing[]): Pair[] {
  return parts.flatMap((part): Pair[] => {
    const minds = (t: Thing): boolean =>
      part.eye
        ? t.kind === part.eye.minds
        : t.kind === "wall" || (t.kind === "solid" && overlaps(part, t));
    const pairs = things.filter(minds).map((thing) => ({ part, thing }));
    return part.eye ? pairs : [{ part, thing: null }, ...pairs];
  });
}

/** How far the corners of a part are inside the walls, mm; below zero how far one has to come back. */
function insideMm(shape: Convex, outline: readonly Vec[]): number {
  let room = Infinity;
  for (const corner of shape) {
    let away = Infinity;
    for (let i = 0; i < outline.length; i++)
      away = Math.min(away, offMm(corner, outline[i]!, outline[(i + 1) % outline.length]!));
    room = Math.min(room, isInside(corner, outline) ? away : -away);
  }
  return room;
}

/** Part of a thing that lies in a camera's look hinders only where the light also falls into the lens. */
function unseenMm(gap: number, eye: Vec, beam: Convex | null): number {
  return beam ? Math.max(gap, gapMm([eye], beam)) : gap;
}

type Seen = {
  marginMm: number;
  nearest: Pair;
  /** The most room that any pose of the range may have. */
  most: number;
  /** Pairs that may be the nearest somewhere in the range, the one of its middle first. */
  pairs: Pair[];
};

/**
 * The room to spare at a pose, what it is between, and the most it may be anywhere in a range about it.
 *
 * @param enough where even the most is not above it, nothing of it need be known closer: null
 */
function roomAt(
  outline: readonly Vec[],
  pairs: readonly Pair[],
  { halfMm, halfRad, ...pose }: Pose & { halfMm: number; halfRad: number },
  enough: number,
): Seen | null {
  let [marginMm, most] = [Infinity, Infinity];
  let nearest = pairs[0]!;
  const kept: { pair: Pair; least: number }[] = [];
  const shapes = new Map<Part, { shape: Vec[]; middle: Vec; eye: Vec | null }>();
  for (const pair of pairs) {
    const { part, thing } = pair;
    const strays = halfMm * Math.SQRT2 + part.swingMm * halfRad;
    let is = shapes.get(part);
    if (!is) {
      is = {
        shape: placed(part.shape, pose),
        middle: placed([part.middle], pose)[0]!,
        eye: part.eye ? placed([part.eye.at], pose)[0]! : null,
      };
      shapes.set(part, is);
    }
    let room: number;
    if (thing) {
      const [dx, dy] = [thing.at[0] - is.middle[0], thing.at[1] - is.middle[1]];
      const circles = Math.sqrt(dx * dx + dy * dy) - thing.reachMm - part.reachMm;
      // Circles that overlap say nothing of how deep what is in them does.
      const far = circles > 0 ? circles : -Infinity;
      if (far - strays > most) continue;
      const shadows =
        far >= marginMm && far + strays >= most ? far : apartAtLeast(is.shape, thing.shape);
      if (shadows - strays > most) continue;
      if (shadows >= marginMm && shadows + strays >= most) {
        // Not the nearest here, nor what bounds the range; it may be the nearest elsewhere in it.
        kept.push({ pair, least: shadows - strays });
        continue;
      }
      const gap = gapMm(is.shape, thing.shape);
      room = is.eye ? unseenMm(gap, is.eye, thing.beam) : gap;
    } else room = insideMm(is.shape, outline);
    if (room < marginMm) [marginMm, nearest] = [room, pair];
    most = Math.min(most, room + strays);
    if (most <= enough) return null;
    kept.push({ pair, least: room - strays });
  }
  const rest = kept.filter((k) => k.pair !== nearest && k.least <= most).map((k) => k.pair);
  return { marginMm, most, nearest, pairs: [nearest, ...rest] };
}

/** Whether a part lies within another that has to be as free. */
export const isWithin = (a: Zone, b: Zone): boolean =>
  (a.eye
    ? a.eye.minds === b.eye?.minds && a.eye.at[0] === b.eye.at[0] && a.eye.at[1] === b.eye.at[1]
    : !b.eye) &&
  a.fromMm >= b.fromMm &&
  a.toMm <= b.toMm &&
  a.shape.every((c) => covers(b.shape, c));

/** Parts that lie within others never are the nearest. */
const withoutInner = (zones: readonly Zone[]): Zone[] =>
  zones.filter(
    (a, i) => !zones.some((b, j) => i !== j && isWithin(a, b) && (!isWithin(b, a) || j < i)),
  );

/** Whether a place lies in a convex shape, its edge counted in. */
function covers(shape: Convex, [x, y]: Vec): boolean {
  let [left, right] = [false, false];
  shape.forEach(([ax, ay], i) => {
    const [bx, by] = shape[(i + 1) % shape.length]!;
    const side = (bx - ax) * (y - ay) - (by - ay) * (x - ax);
    if (side > 0) left = true;
    if (side < 0) right = true;
  });
  return !(left && right);
}

type Box = { xMm: number; yMm: number; headingRad: number; halfMm: number; halfRad: number };

export type FitAsk = {
  slackMm?: number;
  floor?: FloorRule | null;
  /** Only whether one has as much room as this is asked, mm: what has less need not be found closer. */
  atLeastMm?: number;
  /** Ranges of poses that are looked at before what was found counts as the answer. */
  mostLooks?: number;
};

/**
 * The pose with the most room to spare, within a slack; of those the floor allows, where there are any.
 *
 * @param zones all that has to be free at once; at least one
 */
export function bestFit(
  bay: Bay,
  zones: readonly Zone[],
  { slackMm = SLACK_MM, floor = null, atLeastMm = -Infinity, mostLooks = MOST_LOOKS }: FitAsk = {},
): Fit {
  // The vehicle turns about the middle of all that belongs to it: nothing then moves farther than it must.
  const corners = zones.filter((z) => !z.eye).flatMap((z) => z.shape);
  const pivot: Vec = [
    (Math.min(...corners.map((c) => c[0])) + Math.max(...corners.map((c) => c[0]))) / 2,
    (Math.min(...corners.map((c) => c[1])) + Math.max(...corners.map((c) => c[1]))) / 2,
  ];
  const reach = reachFrom(corners, pivot);
  const parts = withoutInner(zones).map((z): Part => {
    const middle = middleOf(z.shape);
    const swingMm = reachFrom(z.eye ? [...z.shape, z.eye.at] : z.shape, pivot);
    return { ...z, middle, reachMm: reachFrom(z.shape, middle), swingMm };
  });
  const all = pairsOf(parts, thingsOf(bay));
  const poseOf = ({ xMm, yMm, headingRad }: Pick<Box, "xMm" | "yMm" | "headingRad">): Pose => {
    const [[x, y]] = placed([pivot], { xMm: 0, yMm: 0, headingRad }) as [Vec];
    return { xMm: xMm - x, yMm: yMm - y, headingRad };
  };
  const xs = bay.outline.map((c) => c[0]);
  const ys = bay.outline.map((c) => c[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const halfMm = Math.max(x1 - x0, y1 - y0) / 2;
  type Best = { pose: Pose; marginMm: number; nearest: Pair; floorUsed: number | null };
  let best: Best | null = null;
  /** What has the most room of all the floor does not allow, so that it can be said. */
  let barred: Best | null = null;
  const heap = new Heap<Box & { most: number; pairs: Pair[] }>();
  const look = (box: Box, pairs: readonly Pair[]): void => {
    const pose = poseOf(box);
    const { halfMm, halfRad } = box;
    // A range that holds nothing better holds no better pose either.
    const enough = best ? best.marginMm : -Infinity;
    const is = roomAt(bay.outline, pairs, { ...pose, halfMm, halfRad }, enough);
    if (!is) return;
    const { most, marginMm, nearest } = is;
    const found = { pose, marginMm, nearest, floorUsed: floor ? floor.used(pose) : null };
    if (floor && found.floorUsed! > 1) {
      if (!barred || marginMm > barred.marginMm) barred = found;
      const push = halfMm * Math.SQRT2;
      if (floor.straysMm(push, halfRad, pivot) < FLOOR_STRAYS_MM) return;
      if (found.floorUsed! - floor.changes(pose, push, halfRad, pivot) > 1) return;
    } else if (!best || marginMm > best.marginMm) best = found;
    if (most > (best?.marginMm ?? -Infinity) + slackMm)
      heap.push({ ...box, most, pairs: is.pairs }, -most);
  };
  const turns = 8;
  for (let n = 0; n < turns; n++) {
    const [xMm, yMm, headingRad] = [(x0 + x1) / 2, (y0 + y1) / 2, (2 * Math.PI * n) / turns];
    look({ xMm, yMm, headingRad, halfMm, halfRad: Math.PI / turns }, all);
  }
  let left: number | null = null;
  for (let looks = 0, at = heap.pop(); at; at = heap.pop()) {
    const known: Best | null = best as Best | null;
    if (at.most <= (known?.marginMm ?? -Infinity) + slackMm) break;
    // That it fits nowhere is the answer then; what hinders most need not be known to the millimetre.
    if (floor && known && at.most < 0 && at.most <= known.marginMm + NOWHERE_SLACK_MM) {
      left = at.most;
      break;
    }
    if (
      looks > mostLooks ||
      at.most < atLeastMm ||
      (known && known.marginMm >= atLeastMm && atLeastMm > -Infinity)
    ) {
      left = at.most;
      break;
    }
    // What strays more is cut: the turn, or the push.
    const turn = reach * at.halfRad > at.halfMm * Math.SQRT2;
    const half = turn ? at.halfRad / 2 : at.halfMm / 2;
    const { pairs } = at;
    if (turn)
      for (const s of [-half, half])
        look({ ...at, headingRad: at.headingRad + s, halfRad: half }, pairs);
    else
      for (const dx of [-half, half])
        for (const dy of [-half, half])
          look({ ...at, xMm: at.xMm + dx, yMm: at.yMm + dy, halfMm: half }, pairs);
    looks += turn ? 2 : 4;
  }
  const found = (best ?? barred) as unknown as Best;
  const { part, thing } = found.nearest;
  return {
    pose: found.pose,
    marginMm: found.marginMm,
    floorUsed: found.floorUsed,
    boundMm: left ?? found.marginMm + slackMm,
    nearest: { zone: part.name, thing: thing?.name ?? wallNear(bay.outline, part, found.pose) },
  };
}

/** The wall that the corner farthest out of a part is nearest to. */
function wallNear(outline: readonly Vec[], part: Part, pose: Pose): string {
  let [room, wall] = [Infinity, 0];
  for (const corner of placed(part.shape, pose)) {
    const aways = outline.map((a, i) => offMm(corner, a, outline[(i + 1) % outline.length]!));
    const least = Math.min(...aways);
    const signed = isInside(corner, outline) ? least : -least;
    if (signed < room) [room, wall] = [signed, aways.indexOf(least)];
  }
  return `wall ${wall + 1}`;
}
