import type { Convex, Vec } from "./convex";

/** How far a lamp or a window is taken to dazzle, mm. */
const DAZZLES_MM = 30_000;
/** Half of how wide one shines where nothing else is known, degrees: to all of the room before it. */
const ALL_ROUND_DEG = 90;

/** A window or a lamp: a piece of line on the plan, and where it shines to. */
export type Light = {
  from: Vec;
  to: Vec;
  /** The way it shines, degrees to the left of the bay's x; null to the left of the way it is drawn. */
  towardDeg: number | null;
  /** Half of how wide it shines, degrees. */
  spreadDeg: number | null;
};

/** The part of the floor from which one looks into a light. */
export function beamOf({ from, to, towardDeg, spreadDeg }: Light): Convex {
  const toward =
    towardDeg === null
      ? Math.atan2(to[1] - from[1], to[0] - from[0]) + Math.PI / 2
      : (towardDeg * Math.PI) / 180;
  const spread = (Math.min(spreadDeg ?? ALL_ROUND_DEG, 90) * Math.PI) / 180;
  const ahead: Vec = [Math.cos(toward), Math.sin(toward)];
  const aside = (p: Vec): number => ahead[0] * p[1] - ahead[1] * p[0];
  const [right, left] = aside(from) <= aside(to) ? [from, to] : [to, from];
  // Out along both edges of it, and then straight on: wide ones go aside far more than ahead.
  const out = ([x, y]: Vec, turn: number): [Vec, Vec] => {
    const edge: Vec = [
      x + DAZZLES_MM * Math.cos(toward + turn),
      y + DAZZLES_MM * Math.sin(toward + turn),
    ];
    return [edge, [edge[0] + DAZZLES_MM * ahead[0], edge[1] + DAZZLES_MM * ahead[1]]];
  };
  return [right, ...out(right, -spread), ...out(left, spread).toReversed(), left];
}
