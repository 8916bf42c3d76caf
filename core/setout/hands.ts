import { wrapAngle } from "@/core/math/linear";
import type { Target } from "@/core/sheet";
import type { BoardState, Least, Move } from "./moves";
import type { PlanPose, Stand } from "./stand";

/**
 * What carries a mat: two hands. It has no adjusters and no feet to turn; whoever draws the mat puts
 * it anywhere on the floor.
 */
export const HANDS: Stand = {
  id: "hands",
  name: "hands",
  beamHalfMm: 300,
  hookHeightMm: 50,
  joints: [],
  boardXMm: 0,
  boardYMm: 0,
  crank: { minMm: 0, maxMm: 1, mmPerTurn: 1 },
  scaleOffsetMm: 0,
  feet: [
    { xMm: 0, yMm: 0 },
    { xMm: 1, yMm: 0 },
    { xMm: 0, yMm: 1 },
  ],
  footMmPerTurn: 1,
};

/** Whether hands carry it. */
export const isByHand = (target: Pick<Target, "kind">): boolean => target.kind === "mat";

/** The side of the vehicle a mat lies on: 1 for vehicle left, -1 for vehicle right. */
export const sideOf = ({ placement }: Pick<Target, "placement">): 1 | -1 =>
  placement.acrossMm >= 0 ? 1 : -1;

/**
 * Points of a mat in its own axes: x the way its arrow points, y to the left of that, from the
 * middle of its cross line. The inner edge is the one toward the vehicle.
 */
export function matPoints(target: Target): { id: string; xMm: number; yMm: number }[] {
  const { aheadMm = 0, lengthMm = 0, widthMm } = target.object;
  const inner = (-sideOf(target) * widthMm) / 2;
  const rear = aheadMm - lengthMm;
  return [
    { id: "frontIn", xMm: aheadMm, yMm: inner },
    { id: "rearIn", xMm: rear, yMm: inner },
    { id: "frontOut", xMm: aheadMm, yMm: -inner },
    { id: "rearOut", xMm: rear, yMm: -inner },
    { id: "centre", xMm: 0, yMm: 0 },
    { id: "ahead", xMm: 1000, yMm: 0 },
  ];
}

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

/** Where a drawn mat comes to lie, in its own axes before it was drawn. */
export const drawnBy = (move: Extract<Move, { kind: "draw" }>): PlanPose =>
  move.end === "whole"
    ? { xMm: move.aheadMm, yMm: move.leftMm, headingRad: 0 }
    : turnedAbout({ xMm: 0, yMm: 0, headingRad: 0 }, move.pivotMm, move.turnRad);
