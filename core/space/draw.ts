import type { Bay } from "./bay";
import { isInside, offMm, type Vec } from "./convex";

/** What is taken hold of on the drawing of a bay. */
export type Hold =
  | { kind: "corner"; i: number }
  | { kind: "thing"; i: number; corner?: number }
  | { kind: "door" | "light" | "likeness"; i: number; end?: 0 | 1 }
  | { kind: "spot"; i: number };

/** What is moved goes to whole steps of this, mm; nearer than the second to another's line it goes there. */
const STEP_MM = 50;
const NEAR_MM = 130;
/** A piece of wall is drawn to the wall from as far as this, mm. */
const TO_WALL_MM = 500;

type P = [number, number];
const at = (x: number, y: number): P => [Math.round(x), Math.round(y)];
const put = <T>(list: readonly T[], i: number, value: T): T[] =>
  list.map((v, k) => (k === i ? value : v));

/** The places a hold consists of, in the order in which they are moved. */
export function placesOf(bay: Bay, hold: Hold): Vec[] {
  if (hold.kind === "corner") return [bay.outline[hold.i]!];
  if (hold.kind === "spot") {
    const { xMm, yMm } = bay.floor!.spots[hold.i]!;
    return [[xMm, yMm]];
  }
  if (hold.kind === "thing") {
    const { outline } = bay.obstacles[hold.i]!;
    return hold.corner === undefined ? outline : [outline[hold.corner]!];
  }
  const [from, to] = endsOf(bay, hold);
  return hold.end === undefined ? [from, to] : [hold.end === 0 ? from : to];
}

function endsOf(bay: Bay, hold: { kind: "door" | "light" | "likeness"; i: number }): [P, P] {
  if (hold.kind === "door") return bay.doors[hold.i]!;
  const { from, to } = (hold.kind === "light" ? bay.lights : bay.likenesses)[hold.i]!;
  return [from, to];
}

/** Whether corners are those of a rectangle along the bay's axes. */
const isUpright = (shape: readonly Vec[]): boolean =>
  shape.length === 4 &&
  shape.every(([x, y], i) => {
    const [bx, by] = shape[(i + 1) % 4]!;
    return i % 2 === 0 ? y === by || x === bx : x === bx || y === by;
  });

/** A shape with one corner elsewhere: a rectangle stays one. */
function withCorner(shape: readonly P[], corner: number, to: P): P[] {
  if (!isUpright(shape)) return put(shape, corner, to);
  const opposite = shape[(corner + 2) % 4]!;
  const [next, last] = [shape[(corner + 1) % 4]!, shape[(corner + 3) % 4]!];
  const sameY = next[1] === shape[corner]![1];
  return shape.map((p, i): P => {
    if (i === corner) return to;
    if (p === opposite) return p;
    const beside = sameY ? p === next : p === last;
    return beside ? [opposite[0], to[1]] : [to[0], opposite[1]];
  });
}

/** The bay with what is held moved by so much, mm. */
export function moved(bay: Bay, hold: Hold, dxMm: number, dyMm: number): Bay {
  const go = ([x, y]: Vec): P => at(x + dxMm, y + dyMm);
  if (hold.kind === "corner")
    return { ...bay, outline: put(bay.outline, hold.i, go(bay.outline[hold.i]!)) };
  if (hold.kind === "spot") {
    const floor = bay.floor!;
    const [xMm, yMm] = go(placesOf(bay, hold)[0]!);
    return { ...bay, floor: { ...floor, spots: put(floor.spots, hold.i, { xMm, yMm }) } };
  }
  if (hold.kind === "thing") {
    const thing = bay.obstacles[hold.i]!;
    const outline =
      hold.corner === undefined
        ? thing.outline.map(go)
        : withCorner(thing.outline, hold.corner, go(thing.outline[hold.corner]!));
    return { ...bay, obstacles: put(bay.obstacles, hold.i, { ...thing, outline }) };
  }
  const [a, b] = endsOf(bay, hold);
  const [from, to] = [hold.end === 1 ? a : go(a), hold.end === 0 ? b : go(b)];
  if (hold.kind === "door") return { ...bay, doors: put(bay.doors, hold.i, [from, to]) };
  return hold.kind === "light"
    ? { ...bay, lights: put(bay.lights, hold.i, { ...bay.lights[hold.i]!, from, to }) }
    : { ...bay, likenesses: put(bay.likenesses, hold.i, { ...bay.likenesses[hold.i]!, from, to }) };
}

/** The foot of a place on the nearest wall, if one is near. */
function onWall(bay: Bay, place: Vec): P | null {
  const walls = bay.outline.map((a, i): [Vec, Vec] => [
    a,
    bay.outline[(i + 1) % bay.outline.length]!,
  ]);
  const [near] = walls.toSorted((p, q) => offMm(place, ...p) - offMm(place, ...q));
  if (!near || offMm(place, ...near) > TO_WALL_MM) return null;
  const [[ax, ay], [bx, by]] = near;
  const [ux, uy] = [bx - ax, by - ay];
  const length = Math.hypot(ux, uy);
  const along = ((place[0] - ax) * ux + (place[1] - ay) * uy) / length;
  const t = Math.min(length, Math.max(0, Math.round(along / STEP_MM) * STEP_MM));
  return at(ax + (ux * t) / length, ay + (uy * t) / length);
}

/** Lines that what is moved may come to lie on: those of every corner that is not moved itself. */
function linesFor(bay: Bay, hold: Hold): { xs: number[]; ys: number[] } {
  const own = new Set(placesOf(bay, hold).map((p) => p.join()));
  const corners: Vec[] = [...bay.outline, ...bay.obstacles.flatMap((o) => o.outline)];
  const others = corners.filter((p) => !own.has(p.join()));
  return { xs: others.map((p) => p[0]), ys: others.map((p) => p[1]) };
}

export type Snapped = {
  bay: Bay;
  /** Lines it came to lie on, for the drawing to show. */
  guides: { x: number | null; y: number | null };
};

/**
 * The bay with what is held brought to a place: onto the line of another corner where one is near, else
 * to the next whole step; doors, windows and the like onto the wall.
 *
 * @param start the bay when it was taken hold of @param by how far the hand has gone since, mm
 */
export function dragged(start: Bay, hold: Hold, by: Vec): Snapped {
  const none = { x: null, y: null };
  const places = placesOf(start, hold);
  if (hold.kind === "door" || hold.kind === "light" || hold.kind === "likeness") {
    const [first] = places as [Vec];
    const goal: Vec = [first[0] + by[0], first[1] + by[1]];
    const to = onWall(start, goal) ?? stepped(goal);
    return { bay: moved(start, hold, to[0] - first[0], to[1] - first[1]), guides: none };
  }
  const { xs, ys } = linesFor(start, hold);
  const axis = (k: 0 | 1, lines: readonly number[]): { by: number; line: number | null } => {
    let best: { by: number; line: number | null } | null = null;
    for (const p of places)
      for (const line of lines) {
        const off = line - (p[k] + by[k]);
        if (Math.abs(off) < NEAR_MM && (!best || Math.abs(off) < Math.abs(best.by - by[k])))
          best = { by: by[k] + off, line };
      }
    const [first] = places as [Vec];
    return (
      best ?? { by: Math.round((first[k] + by[k]) / STEP_MM) * STEP_MM - first[k], line: null }
    );
  };
  const [x, y] = [axis(0, xs), axis(1, ys)];
  return { bay: moved(start, hold, x.by, y.by), guides: { x: x.line, y: y.line } };
}

const stepped = ([x, y]: Vec): P => [
  Math.round(x / STEP_MM) * STEP_MM,
  Math.round(y / STEP_MM) * STEP_MM,
];

/** Names are told apart by a figure. */
const nameFor = (plain: string, taken: readonly string[]): string => {
  let name = plain;
  for (let n = 2; taken.includes(name); n++) name = `${plain} ${n}`;
  return name;
};

/** The bay with something new about a place, and the hold on it. @param today ISO, of a new survey */
export function added(
  bay: Bay,
  kind: Hold["kind"],
  [x, y]: Vec,
  today: string,
): { bay: Bay; hold: Hold } {
  if (kind === "corner") {
    // A new corner in the middle of the nearest wall.
    const walls = bay.outline.map((a, i) =>
      offMm([x, y], a, bay.outline[(i + 1) % bay.outline.length]!),
    );
    const i = walls.indexOf(Math.min(...walls));
    const [a, b] = [bay.outline[i]!, bay.outline[(i + 1) % bay.outline.length]!];
    const outline = bay.outline.toSpliced(i + 1, 0, at((a[0] + b[0]) / 2, (a[1] + b[1]) / 2));
    return { bay: { ...bay, outline }, hold: { kind, i: i + 1 } };
  }
  if (kind === "spot") {
    const floor = bay.floor ?? { on: today, spots: [], setups: [] };
    const [xMm, yMm] = stepped([x, y]);
    return {
      bay: { ...bay, floor: { ...floor, spots: [...floor.spots, { xMm, yMm }] } },
      hold: { kind, i: floor.spots.length },
    };
  }
  if (kind === "thing") {
    const [cx, cy] = stepped([x, y]);
    const outline: P[] = [
      [cx - 400, cy - 300],
      [cx + 400, cy - 300],
      [cx + 400, cy + 300],
      [cx - 400, cy + 300],
    ];
    const name = nameFor(
      "bench",
      bay.obstacles.map((o) => o.name),
    );
    const obstacles = [...bay.obstacles, { name, outline, fromMm: 0, toMm: 3000 }];
    return { bay: { ...bay, obstacles }, hold: { kind, i: bay.obstacles.length } };
  }
  const [from, to] = pieceAt(bay, [x, y]);
  if (kind === "door")
    return {
      bay: { ...bay, doors: [...bay.doors, [from, to]] },
      hold: { kind, i: bay.doors.length },
    };
  if (kind === "likeness") {
    const name = nameFor(
      "poster",
      bay.likenesses.map((l) => l.name),
    );
    const likenesses = [...bay.likenesses, { name, from, to }];
    return { bay: { ...bay, likenesses }, hold: { kind, i: bay.likenesses.length } };
  }
  const name = nameFor(
    "window",
    bay.lights.map((l) => l.name),
  );
  const lights = [
    ...bay.lights,
    { name, kind: "window" as const, from, to, towardDeg: null, spreadDeg: null, covers: false },
  ];
  return { bay: { ...bay, lights }, hold: { kind, i: bay.lights.length } };
}

/** A metre of the nearest wall, or of nothing, about a place; drawn so that its left is the room. */
function pieceAt(bay: Bay, [x, y]: Vec): [P, P] {
  const { outline } = bay;
  const walls = outline.map((a, i) => offMm([x, y], a, outline[(i + 1) % outline.length]!));
  const i = walls.indexOf(Math.min(...walls));
  const [a, b] = [outline[i]!, outline[(i + 1) % outline.length]!];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const middle = Math.min(
    length - Math.min(500, length / 2),
    Math.max(Math.min(500, length / 2), (x - a[0]) * ux + (y - a[1]) * uy),
  );
  const half = Math.min(500, length / 2);
  const ends: [P, P] = [
    at(a[0] + ux * (middle - half), a[1] + uy * (middle - half)),
    at(a[0] + ux * (middle + half), a[1] + uy * (middle + half)),
  ];
  return areaOf(outline) > 0 ? ends : [ends[1], ends[0]];
}

/** Twice the floor of an outline, mm2; below zero where it goes round to the right. */
const areaOf = (outline: readonly Vec[]): number =>
  outline.reduce((s, [x, y], i) => {
    const [bx, by] = outline[(i + 1) % outline.length]!;
    return s + x * by - bx * y;
  }, 0);

/** The bay without what is held; the same where it cannot be without it. */
export function without(bay: Bay, hold: Hold): Bay {
  const drop = <T>(list: readonly T[]): T[] => list.filter((_, k) => k !== hold.i);
  switch (hold.kind) {
    case "corner":
      return bay.outline.length > 3 ? { ...bay, outline: drop(bay.outline) } : bay;
    case "thing":
      return { ...bay, obstacles: drop(bay.obstacles) };
    case "door":
      return { ...bay, doors: drop(bay.doors) };
    case "light":
      return { ...bay, lights: drop(bay.lights) };
    case "likeness":
      return { ...bay, likenesses: drop(bay.likenesses) };
    case "spot": {
      const { floor } = bay;
      if (!floor) return bay;
      const setups = floor.setups.map((s) => ({
        ...s,
        readings: s.readings.flatMap((r) =>
          r.spot === hold.i ? [] : [{ ...r, spot: r.spot > hold.i ? r.spot - 1 : r.spot }],
        ),
      }));
      const spots = drop(floor.spots);
      return { ...bay, floor: spots.length > 0 ? { ...floor, spots, setups } : null };
    }
  }
}

/** Spots so far apart over a bay's floor, clear of its walls and of what stands on it. */
export function spotsOver(bay: Bay, stepMm: number): { xMm: number; yMm: number }[] {
  const [xs, ys] = [bay.outline.map((c) => c[0]), bay.outline.map((c) => c[1])];
  const even = (from: number, to: number): number[] => {
    const n = Math.max(1, Math.round((to - from) / stepMm));
    return Array.from({ length: n }, (_, i) => Math.round(from + ((i + 0.5) * (to - from)) / n));
  };
  const spots = even(Math.min(...xs), Math.max(...xs)).flatMap((xMm) =>
    even(Math.min(...ys), Math.max(...ys)).map((yMm) => ({ xMm, yMm })),
  );
  const onFloor = bay.obstacles.filter((o) => o.fromMm === 0).map((o) => o.outline);
  return spots.filter(
    ({ xMm, yMm }) =>
      isInside([xMm, yMm], bay.outline) && !onFloor.some((shape) => isInside([xMm, yMm], shape)),
  );
}
