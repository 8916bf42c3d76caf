import type { BayWalls, WallPlace } from "@/core/setout/walls";
import type { Bay } from "./bay";
import { isInside, offMm, type Vec } from "./convex";
import type { Pose } from "./fit";

/** What is farther from the vehicle than this is not measured to, mm. */
const ABOUT_MM = 10_000;
/** A piece of wall shorter than this is no wall to measure to, mm. */
const LEAST_MM = 400;
/** A door lies in a wall that is this near to it, mm. */
const IN_WALL_MM = 60;

/** The pieces of a wall that no door takes up, by how far they lie along it, mm. */
function solid(a: Vec, b: Vec, doors: Bay["doors"]): [number, number][] {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const along = ([x, y]: Vec): number =>
    ((x - a[0]) * (b[0] - a[0]) + (y - a[1]) * (b[1] - a[1])) / length;
  const gaps = doors
    .filter((d) => d.every((p) => offMm(p, a, b) < IN_WALL_MM))
    .map(([p, q]) => [along(p), along(q)].toSorted((x, y) => x - y) as [number, number])
    .toSorted((x, y) => x[0] - y[0]);
  const pieces: [number, number][] = [];
  let from = 0;
  for (const [s, e] of [...gaps, [length, length] as const]) {
    if (s - from >= LEAST_MM) pieces.push([from, s]);
    from = Math.max(from, e);
  }
  return pieces;
}

/**
 * The walls and things of a bay as they lie about a vehicle that stands there, in its own axes: what Set
 * out may measure to.
 */
export function wallsAbout(bay: Bay, pose: Pose): BayWalls {
  const [c, s] = [Math.cos(pose.headingRad), Math.sin(pose.headingRad)];
  const about = ([x, y]: Vec): WallPlace => {
    const [dx, dy] = [x - pose.xMm, y - pose.yMm];
    return [Math.round(10 * (c * dx + s * dy)) / 10, Math.round(10 * (c * dy - s * dx)) / 10];
  };
  const here: Vec = [pose.xMm, pose.yMm];
  const walls = bay.outline.flatMap((a, i) => {
    const b = bay.outline[(i + 1) % bay.outline.length]!;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const at = (mm: number): Vec => [
      a[0] + (mm / length) * (b[0] - a[0]),
      a[1] + (mm / length) * (b[1] - a[1]),
    ];
    return solid(a, b, bay.doors).flatMap(([from, to], k) => {
      const ends = [at(from), at(to)] as const;
      return offMm(here, ...ends) > ABOUT_MM
        ? []
        : [{ id: `${i + 1}.${k + 1}`, n: i + 1, from: about(ends[0]), to: about(ends[1]) }];
    });
  });
  const things = bay.obstacles
    .filter(
      (o) =>
        isInside(here, o.outline) ||
        o.outline.some((p, i) => offMm(here, p, o.outline[(i + 1) % o.outline.length]!) < ABOUT_MM),
    )
    .map((o) => ({ outline: o.outline.map(about), fromMm: o.fromMm, toMm: o.toMm }));
  return { bay: bay.id, name: bay.name, sigmaMm: bay.wallsMm, walls, things };
}
