import type { Random } from "@/core/math/random";
import { baySchema, type Bay } from "@/core/space/bay";
import type { Convex, Vec } from "@/core/space/convex";
import type { Pose, Zone } from "@/core/space/fit";

/**
 * Bays as chance has them, and a search of poses on a grid that shares no arithmetic with the one it is
 * there to check: heights of a raster say what cannot be better, segments crossing say the rest.
 */

export const rectangle = (x0: number, y0: number, x1: number, y1: number): Convex => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** A room, or one with a corner cut out, with benches, pillars, a low beam; some have a window. */
export function anyBay(random: Random): Bay {
  const [w, d] = [6000 + random() * 5000, 4500 + random() * 3500];
  const cut = random() < 0.5;
  const [cx, cy] = [w * (0.6 + random() * 0.3), d * (0.6 + random() * 0.3)];
  const outline: Vec[] = cut
    ? [
        [0, 0],
        [w, 0],
        [w, cy],
        [cx, cy],
        [cx, d],
        [0, d],
      ]
    : [...rectangle(0, 0, w, d)];
  const obstacles = Array.from({ length: Math.floor(random() * 5) }, (_, i) => {
    const [x, y, a, r] = [random() * w, random() * d, random() * 6.3, 150 + random() * 500];
    const corners = [0, 1, 2, 3].map((k): Vec => [
      x + r * Math.cos(a + (k * Math.PI) / 2),
      y + r * Math.sin(a + (k * Math.PI) / 2),
    ]);
    return { name: `thing ${i}`, outline: corners, fromMm: random() < 0.2 ? 2200 : 0, toMm: 3000 };
  });
  const from = 1000 + random() * (w - 3000);
  const lights =
    random() < 0.3
      ? [{ name: "window", kind: "window", from: [from, 0], to: [from + 1200, 0], covers: false }]
      : [];
  return baySchema.parse({ id: "any", name: "Any", outline, obstacles, lights });
}

/** A car, what is set out about it, and a camera that looks ahead. */
export function anyZones(random: Random): Zone[] {
  const [l, w] = [3600 + random() * 900, 1650 + random() * 250];
  const ahead = random() * 2200;
  const zone = (name: string, shape: Convex, toMm = 2000): Zone => ({
    name,
    shape,
    fromMm: 0,
    toMm,
  });
  const eye: Vec = [l - 1900, 0];
  const looks: Convex = [eye, [l + 5000, -2600], [l + 5000, 2600]];
  return [
    zone("car", rectangle(-900, -w / 2, l - 900, w / 2)),
    zone("board", rectangle(l - 900, -900, l - 900 + ahead, 900)),
    ...(random() < 0.4 ? [zone("mats", rectangle(0, -w / 2 - 400, 2000, w / 2 + 400), 20)] : []),
    { ...zone("look", looks), eye: { at: eye, minds: "light" } },
  ];
}

const turned = (shape: Convex, { xMm, yMm, headingRad }: Pose): Vec[] =>
  shape.map(([x, y]) => {
    const [r, a] = [Math.hypot(x, y), Math.atan2(y, x) + headingRad];
    return [xMm + r * Math.cos(a), yMm + r * Math.sin(a)];
  });

/** Whether a place is in a shape: how often the shape turns about it. */
function covers(shape: readonly Vec[], [x, y]: Vec): boolean {
  let turns = 0;
  shape.forEach(([ax, ay], i) => {
    const [bx, by] = shape[(i + 1) % shape.length]!;
    turns += Math.atan2(
      (ax - x) * (by - y) - (ay - y) * (bx - x),
      (ax - x) * (bx - x) + (ay - y) * (by - y),
    );
  });
  return Math.abs(turns) > 3;
}

type Piece = readonly [Vec, Vec];
const edges = (shape: readonly Vec[]): Piece[] =>
  shape.map((a, i): Piece => [a, shape[(i + 1) % shape.length]!]);

/** Distance of a place from a piece of line, by where its foot falls. */
function fromPiece([x, y]: Vec, [[ax, ay], [bx, by]]: Piece): number {
  const length = Math.hypot(bx - ax, by - ay);
  const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
  const along = (x - ax) * ux + (y - ay) * uy;
  if (along <= 0) return Math.hypot(x - ax, y - ay);
  if (along >= length) return Math.hypot(x - bx, y - by);
  return Math.abs((x - ax) * uy - (y - ay) * ux);
}

const leftOf = ([ax, ay]: Vec, [bx, by]: Vec, [x, y]: Vec): boolean =>
  (bx - ax) * (y - ay) > (by - ay) * (x - ax);
const cross = ([a, b]: Piece, [c, d]: Piece): boolean =>
  leftOf(a, b, c) !== leftOf(a, b, d) && leftOf(c, d, a) !== leftOf(c, d, b);

/** Distance of two sets of pieces; nothing where any cross. */
function distance(a: readonly Piece[], b: readonly Piece[]): number {
  let least = Infinity;
  for (const p of a)
    for (const q of b) {
      if (cross(p, q)) return -1;
      least = Math.min(
        least,
        fromPiece(p[0], q),
        fromPiece(p[1], q),
        fromPiece(q[0], p),
        fromPiece(q[1], p),
      );
    }
  return least;
}

/** The room to spare at a pose; below zero where something is in the way. */
export function roomAt(bay: Bay, zones: readonly Zone[], pose: Pose): number {
  let room = Infinity;
  for (const z of zones) {
    const shape = turned(z.shape, pose);
    if (z.eye) {
      for (const l of bay.lights) {
        // Windows of these bays are in the wall y = 0 and shine in: nothing inside is out of their light.
        const gap = covers(shape, l.from) ? -1 : distance(edges(shape), [[l.from, l.to]]);
        room = Math.min(room, gap);
      }
      continue;
    }
    if (!shape.every((c) => covers(bay.outline, c))) return -1;
    room = Math.min(room, distance(edges(shape), edges(bay.outline)));
    for (const o of bay.obstacles) {
      if (o.fromMm >= z.toMm || o.toMm <= z.fromMm) continue;
      if (covers(shape, o.outline[0]!) || covers(o.outline, shape[0]!)) return -1;
      room = Math.min(room, distance(edges(shape), edges(o.outline)));
    }
    if (room < 0) return room;
  }
  return room;
}

/** Cells of the raster, mm. */
const CELL_MM = 50;

/** How far every cell is from what a part minds; nothing outside, or in a thing. */
function rasterFor(bay: Bay, zone: Zone, w: number, d: number): (p: Vec) => number {
  const [nx, ny] = [Math.ceil(w / CELL_MM) + 1, Math.ceil(d / CELL_MM) + 1];
  const things = bay.obstacles.filter((o) => o.fromMm < zone.toMm && o.toMm > zone.fromMm);
  const pieces = [bay.outline, ...things.map((o) => o.outline)].flatMap(edges);
  const cells = new Float32Array(nx * ny);
  for (let i = 0; i < nx; i++)
    for (let j = 0; j < ny; j++) {
      const p: Vec = [i * CELL_MM, j * CELL_MM];
      const free = covers(bay.outline, p) && !things.some((o) => covers(o.outline, p));
      let near = Infinity;
      for (const e of pieces) near = Math.min(near, fromPiece(p, e));
      cells[i * ny + j] = free ? near : -near;
    }
  // A place is no farther from its cell's middle than half a diagonal.
  const slack = (CELL_MM * Math.SQRT2) / 2;
  return ([x, y]) => {
    const [i, j] = [Math.round(x / CELL_MM), Math.round(y / CELL_MM)];
    if (i < 0 || j < 0 || i >= nx || j >= ny) return -Infinity;
    return cells[i * ny + j]! + slack;
  };
}

/** The most room any pose of a grid has that the floor allows, and where. */
export function gridBest(
  bay: Bay,
  zones: readonly Zone[],
  stepMm: number,
  stepDeg: number,
  allowed: (pose: Pose) => boolean = () => true,
): { room: number; pose: Pose | null } {
  const [w, d] = [0, 1].map((k) => Math.max(...bay.outline.map((c) => c[k]!))) as [number, number];
  const solid = zones.filter((z) => !z.eye);
  const rasters = solid.map((z) => ({
    far: rasterFor(bay, z, w, d),
    // Corners first: they are what comes too near most often.
    places: [
      ...z.shape,
      ...edges(z.shape).flatMap(([a, b]) =>
        [0.5, 0.25, 0.75].map((t): Vec => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]),
      ),
    ],
  }));
  let [room, best]: [number, Pose | null] = [0, null];
  for (let a = 0; a < 360; a += stepDeg) {
    const headingRad = (a * Math.PI) / 180;
    const still = { xMm: 0, yMm: 0, headingRad };
    const swung = rasters.map((r) => ({ far: r.far, places: turned(r.places, still) }));
    for (let xMm = 0; xMm <= w; xMm += stepMm)
      poses: for (let yMm = 0; yMm <= d; yMm += stepMm) {
        for (const { far, places } of swung)
          for (const [x, y] of places) if (far([x + xMm, y + yMm]) <= room) continue poses;
        const pose = { xMm, yMm, headingRad };
        if (!allowed(pose)) continue;
        const is = roomAt(bay, zones, pose);
        if (is > room) [room, best] = [is, pose];
      }
  }
  return { room: best ? room : -Infinity, pose: best };
}
