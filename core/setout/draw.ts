import { wrapAngle } from "@/core/math/linear";
import type { Target } from "@/core/sheet";
import type { BoardState, Least, Move } from "./moves";
import { sideOf } from "./hands";
import { compose, type PlanPose } from "./stand";

const along = (pose: PlanPose, xMm: number): PlanPose => ({
  ...pose,
  xMm: pose.xMm + Math.cos(pose.headingRad) * xMm,
  yMm: pose.yMm + Math.sin(pose.headingRad) * xMm,
});

/** A pose turned about a point of its own long axis. */
const turnedAbout = (pose: PlanPose, atMm: number, by: number): PlanPose => {
  const pivot = along(pose, atMm);
  return along({ ...pivot, headingRad: pose.headingRad + by }, -atMm);
};

/**
 * How hands bring a mat to its place: the whole of it forward or back, then one end sideways, then
 * the other. Each end is drawn while the other lies still, so every figure can be watched at one
 * corner.
 *
 * @param now where its cross line's middle lies, vehicle axes
 * @param least moves below this are left out
 */
export function drawMoves(target: Target, now: BoardState, wanted: PlanPose, least: Least): Move[] {
  if (target.kind === "mark") return drawnAnew(now, wanted, least);
  const crosswise = target.lies === "ahead" || target.lies === "behind";
  if (crosswise) return drawCrosswise(target, now, wanted, least);
  const { aheadMm = 0, lengthMm = 1 } = target.object;
  const rearMm = aheadMm - lengthMm;
  const moves: Move[] = [];
  let { pose } = now;
  const push = (move: Omit<Extract<Move, { kind: "draw" }>, "kind" | "after">, to: PlanPose) => {
    pose = to;
    moves.push({ kind: "draw", ...move, after: { ...now, pose } });
  };
  // Seen from above a turn takes the ends sideways and leaves the middle; what is left is to be
  // drawn along the mat's own direction.
  const [ux, uy] = [Math.cos(pose.headingRad), Math.sin(pose.headingRad)];
  const byMm = ux * (wanted.xMm - pose.xMm) + uy * (wanted.yMm - pose.yMm);
  if (Math.abs(byMm) >= least.mm)
    push({ end: "whole", aheadMm: byMm, leftMm: 0, turnRad: 0, pivotMm: 0 }, along(pose, byMm));
  const c = Math.cos(wanted.headingRad);
  const s = Math.sin(wanted.headingRad);
  const beside = (at: number): number => {
    const [from, to] = [along(pose, at), along(wanted, at)];
    return -s * (to.xMm - from.xMm) + c * (to.yMm - from.yMm);
  };
  for (const [end, at, pivotMm] of [
    ["front", aheadMm, rearMm],
    ["rear", rearMm, aheadMm],
  ] as const) {
    const leftMm = beside(at);
    if (Math.abs(leftMm) < least.mm) continue;
    const turnRad = wrapAngle(Math.asin(Math.max(-1, Math.min(1, leftMm / (at - pivotMm)))));
    push({ end, aheadMm: 0, leftMm, turnRad, pivotMm }, turnedAbout(pose, pivotMm, turnRad));
  }
  return moves;
}

/** A cross is drawn anew at one stroke: it has no heading. */
function drawnAnew(now: BoardState, wanted: PlanPose, least: Least): Move[] {
  const [c, s] = [Math.cos(now.pose.headingRad), Math.sin(now.pose.headingRad)];
  const [dx, dy] = [wanted.xMm - now.pose.xMm, wanted.yMm - now.pose.yMm];
  const [aheadMm, leftMm] = [c * dx + s * dy, -s * dx + c * dy];
  if (Math.hypot(aheadMm, leftMm) < least.mm) return [];
  const after = { ...now, pose: { ...now.pose, xMm: wanted.xMm, yMm: wanted.yMm } };
  return [{ kind: "draw", end: "mark", aheadMm, leftMm, turnRad: 0, pivotMm: 0, after }];
}

/**
 * A mat that lies across the vehicle's way: the whole of it sideways, then its left end forward or
 * back, then its right end.
 */
function drawCrosswise(target: Target, now: BoardState, wanted: PlanPose, least: Least): Move[] {
  const half = target.object.widthMm / 2;
  const moves: Move[] = [];
  let { pose } = now;
  const push = (move: Omit<DrawMove, "kind" | "after">): void => {
    pose = compose(pose, drawnBy({ ...move, kind: "draw", after: now }));
    moves.push({ kind: "draw", ...move, after: { ...now, pose } });
  };
  const [c, s] = [Math.cos(pose.headingRad), Math.sin(pose.headingRad)];
  const leftMm = -s * (wanted.xMm - pose.xMm) + c * (wanted.yMm - pose.yMm);
  if (Math.abs(leftMm) >= least.mm)
    push({ end: "whole", aheadMm: 0, leftMm, turnRad: 0, pivotMm: 0 });
  const [wc, ws] = [Math.cos(wanted.headingRad), Math.sin(wanted.headingRad)];
  for (const [end, at] of [
    ["left", half],
    ["right", -half],
  ] as const) {
    const [px, py] = [
      pose.xMm - Math.sin(pose.headingRad) * at,
      pose.yMm + Math.cos(pose.headingRad) * at,
    ];
    const aheadMm = wc * (wanted.xMm - ws * at - px) + ws * (wanted.yMm + wc * at - py);
    if (Math.abs(aheadMm) < least.mm) continue;
    // The other end lies still, a mat's width away.
    const turnRad = Math.asin(Math.max(-1, Math.min(1, -aheadMm / (2 * at))));
    push({ end, aheadMm, leftMm: 0, turnRad, pivotMm: -at });
  }
  return moves;
}

type DrawMove = Extract<Move, { kind: "draw" }>;

/** A pose turned about a point to the left of its own middle. */
const turnedBeside = (pose: PlanPose, atMm: number, by: number): PlanPose => {
  const left = (p: PlanPose, d: number): PlanPose => ({
    ...p,
    xMm: p.xMm - Math.sin(p.headingRad) * d,
    yMm: p.yMm + Math.cos(p.headingRad) * d,
  });
  const pivot = left(pose, atMm);
  return left({ ...pivot, headingRad: pose.headingRad + by }, -atMm);
};

/** Where a drawn mat comes to lie, in its own axes before it was drawn. */
export function drawnBy(move: DrawMove): PlanPose {
  const still = { xMm: 0, yMm: 0, headingRad: 0 };
  switch (move.end) {
    case "whole":
    case "mark":
      return { ...still, xMm: move.aheadMm, yMm: move.leftMm };
    case "left":
    case "right":
      return turnedBeside(still, move.pivotMm, move.turnRad);
    default:
      return turnedAbout(still, move.pivotMm, move.turnRad);
  }
}

/**
 * Points of a mat in its own axes: x the way its arrow points, y to the left of that, from the
 * middle of its cross line. The inner edge is the one toward the vehicle.
 */
export function matPoints(target: Target): { id: string; xMm: number; yMm: number }[] {
  const { aheadMm = 0, lengthMm = 0, widthMm } = target.object;
  const middle = [
    { id: "centre", xMm: 0, yMm: 0 },
    { id: "ahead", xMm: 1000, yMm: 0 },
  ];
  if (target.kind === "mark") return middle;
  if (target.lies === "ahead" || target.lies === "behind") {
    // Its inner edge lies across the vehicle.
    const xMm = target.lies === "ahead" ? aheadMm - lengthMm : aheadMm;
    return [{ id: "inL", xMm, yMm: widthMm / 2 }, { id: "inR", xMm, yMm: -widthMm / 2 }, ...middle];
  }
  const inner = (-sideOf(target) * widthMm) / 2;
  const rear = aheadMm - lengthMm;
  return [
    { id: "frontIn", xMm: aheadMm, yMm: inner },
    { id: "rearIn", xMm: rear, yMm: inner },
    { id: "frontOut", xMm: aheadMm, yMm: -inner },
    { id: "rearOut", xMm: rear, yMm: -inner },
    ...middle,
  ];
}
