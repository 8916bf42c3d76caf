import type { RearToe } from "@/core/vehicle";
import type { PlanPose } from "@/core/setout";

/**
 * What the instruments of the other schools truly show, by plain plane geometry: marks dropped on
 * the floor, beams cut with panels, lights landing on the beam. Written apart from the core's own
 * models, so that the two check each other.
 */
type P = { x: number; y: number };
type Scene = {
  board: PlanPose;
  /** Where the ends and the middle of the beam stand over the floor: a stand may lean. */
  beam: { left: P; right: P; middle: P };
  points: readonly { id: string; xMm: number; yMm: number }[];
  toe: RearToe;
};

const minus = (a: P, b: P): P => ({ x: a.x - b.x, y: a.y - b.y });
const dot = (a: P, b: P): number => a.x * b.x + a.y * b.y;
const cross = (a: P, b: P): number => a.x * b.y - a.y * b.x;
const unit = (a: P): P => ({ x: a.x / Math.hypot(a.x, a.y), y: a.y / Math.hypot(a.x, a.y) });
const toward = (rad: number): P => ({ x: Math.cos(rad), y: Math.sin(rad) });

/** The figure at a slot without noise, or null when this is no reading of these schools. */
export function schoolReading(slotId: string, { board, beam, points, toe }: Scene): number | null {
  const at = (id: string): P => {
    const p = points.find((q) => q.id === id)!;
    return { x: p.xMm, y: p.yMm };
  };
  const centre: P = { x: board.xMm, y: board.yMm };
  const facing = toward(board.headingRad);
  // Whoever faces the car with the board has vehicle left on his right hand.
  const toLeft: P = { x: facing.y, y: -facing.x };
  const end = (left: boolean): P => (left ? beam.left : beam.right);
  const badges = unit(minus(at("badgeF"), at("badgeR")));
  const leftHubs = unit(minus(at("hubFL"), at("hubRL")));
  const [family, what, side] = slotId.split("-") as [string, string, string | undefined];
  const left = side === "l";

  if (family === "box")
    switch (what) {
      case "centre":
        return cross(badges, minus(centre, at("badgeR")));
      case "ahead":
        return dot(badges, minus(centre, at("badgeF")));
      case "rear":
        return side === "centre"
          ? -cross(leftHubs, minus(centre, at("hubRL")))
          : dot(leftHubs, minus(centre, at("hubRL")));
      case "hub":
        return dot(badges, minus(centre, at(left ? "hubFL" : "hubFR")));
      case "end":
        return dot(badges, minus(end(left), centre));
      case "diag": {
        const d = minus(end(!left), at(left ? "hubFL" : "hubFR"));
        return Math.hypot(d.x, d.y);
      }
    }
  if (family === "laser" && what === "behind") {
    // The line through both badges, cut with the board's face; read along the face from its middle.
    const along = minus(centre, at("badgeR"));
    const t = cross(along, toLeft) / cross(badges, toLeft);
    const mark = { x: at("badgeR").x + t * badges.x, y: at("badgeR").y + t * badges.y };
    return dot(minus(centre, mark), toLeft);
  }
  if (family === "panel") {
    // A beam from the end of the beam along the board's normal, cut with the panel standing across
    // its wheel.
    const heading = what === "rl" ? -toe.leftRad : what === "rr" ? toe.rightRad : 0;
    const from = end(what.endsWith("l"));
    const hub = at(`hub${what.toUpperCase()}`);
    const across = { x: -Math.sin(heading), y: Math.cos(heading) };
    return cross(minus(hub, from), across) / cross(facing, across);
  }
  if (family === "beam") {
    // A light from the end of the beam along the board's normal, past the scale at the hub.
    const hub = at(`hub${what.toUpperCase()}`);
    return dot(minus(end(what.endsWith("l")), hub), toLeft);
  }
  if (family === "mirror") {
    // The light meets the mirror, turns by twice the angle between them, and lands on the beam again.
    const mirror = what === "rl" ? -toe.leftRad : toe.rightRad;
    const from = end(what === "rl");
    const face = toward(mirror + Math.PI / 2);
    const met = cross(minus(at(`hub${what.toUpperCase()}`), from), face) / cross(facing, face);
    const back = toward(2 * mirror - board.headingRad + Math.PI);
    return (met * dot(back, toLeft)) / -dot(back, facing);
  }
  if (family === "scale") {
    // A light from the hub along its wheel, cut with the beam.
    const light = toward(what === "rl" ? -toe.leftRad : toe.rightRad);
    const hub = at(what === "rl" ? "hubRL" : "hubRR");
    const along = cross(minus(hub, beam.middle), light) / cross(toLeft, light);
    return what === "rl" ? along : -along;
  }
  if (family === "rig") {
    const seen = minus(at(`hub${what.toUpperCase()}`), centre);
    return side === "x" ? dot(facing, seen) : dot(toLeft, seen);
  }
  return null;
}
