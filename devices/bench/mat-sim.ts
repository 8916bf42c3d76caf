/**
 * A mat as a thing on the floor: a rectangle with a cross line, drawn about by its ends. Written
 * apart from core/setout, by complex numbers instead of its matrices, so that the two check each
 * other.
 */

/** A number on the floor's plane: x ahead, y to vehicle left, mm; or a turn of unit length. */
type Complex = [number, number];

const plus = (a: Complex, b: Complex): Complex => [a[0] + b[0], a[1] + b[1]];
const minus = (a: Complex, b: Complex): Complex => [a[0] - b[0], a[1] - b[1]];
const times = (a: Complex, b: Complex): Complex => [
  a[0] * b[0] - a[1] * b[1],
  a[0] * b[1] + a[1] * b[0],
];
const over = (a: Complex, b: Complex): Complex => {
  const n = b[0] * b[0] + b[1] * b[1];
  return [(a[0] * b[0] + a[1] * b[1]) / n, (a[1] * b[0] - a[0] * b[1]) / n];
};
const size = (a: Complex): number => Math.sqrt(a[0] * a[0] + a[1] * a[1]);

/** Where the middle of the cross line lies, and the way the arrow points, as a unit number. */
export type MatBody = { at: Complex; way: Complex };

export type MatShape = {
  aheadMm: number;
  lengthMm: number;
  widthMm: number;
  side: 1 | -1;
  lies?: "beside" | "ahead" | "behind";
  /** Of a floor mark: the hubs its line runs through, those of its own side and the other, and how it lies. */
  line?: { from: string; through: string; across: string; ahead: boolean };
};

export const layDown = (xMm: number, yMm: number, headingRad: number): MatBody => ({
  at: [xMm, yMm],
  way: [Math.cos(headingRad), Math.sin(headingRad)],
});

/** A place of the mat, given from its cross line's middle: ahead, and to the arrow's left. */
const placeOn = (m: MatBody, ahead: number, left: number): Complex =>
  plus(m.at, times(m.way, [ahead, left]));

export type Corner = "front" | "rear";

/** The corner of its inner edge, where tapes end. */
export const innerCorner = (m: MatBody, shape: MatShape, corner: Corner): Complex =>
  placeOn(
    m,
    corner === "front" ? shape.aheadMm : shape.aheadMm - shape.lengthMm,
    (-shape.side * shape.widthMm) / 2,
  );

/** Every mark the cameras see on it: four corners and both ends of the cross line. */
export function marksOn(m: MatBody, shape: MatShape): Complex[] {
  const rear = shape.aheadMm - shape.lengthMm;
  const half = shape.widthMm / 2;
  return [shape.aheadMm, 0, rear].flatMap((x) => [placeOn(m, x, half), placeOn(m, x, -half)]);
}

/**
 * Hands draw it. The whole goes along its own edge; an end goes sideways while the other lies still,
 * so the corner at that end swings on a circle.
 */
export function drawn(
  m: MatBody,
  shape: MatShape,
  act: { end: "whole" | "mark" | "left" | "right" | Corner; aheadMm: number; leftMm: number },
  share = 1,
): MatBody {
  if (act.end === "left" || act.end === "right") {
    // The drawn end swings about the other one: forward by what was told.
    const reach = act.end === "left" ? shape.widthMm : -shape.widthMm;
    const pivot = placeOn(m, 0, -reach / 2);
    const gone = act.aheadMm * share;
    const aside = Math.sign(reach) * Math.sqrt(reach * reach - gone * gone);
    const turn = over([gone, aside], [0, reach]);
    return { at: plus(pivot, times(turn, minus(m.at, pivot))), way: times(m.way, turn) };
  }
  if (act.end === "whole" || act.end === "mark")
    return { ...m, at: placeOn(m, act.aheadMm * share, act.leftMm * share) };
  const rear = shape.aheadMm - shape.lengthMm;
  const [far, still] = act.end === "front" ? [shape.aheadMm, rear] : [rear, shape.aheadMm];
  const pivot = placeOn(m, still, 0);
  // The drawn end comes to lie `leftMm` beside where it was, as far from the pivot as before.
  const reach = far - still;
  const beside = act.leftMm * share;
  const along = Math.sign(reach) * Math.sqrt(reach * reach - beside * beside);
  const turn = over([along, beside], [reach, 0]);
  return { at: plus(pivot, times(turn, minus(m.at, pivot))), way: times(m.way, turn) };
}

/** The same mat in the axes of a car that was moved by (x, y) and turned. */
export function seenFrom(m: MatBody, x: number, y: number, turnRad: number): MatBody {
  const axes: Complex = [Math.cos(turnRad), Math.sin(turnRad)];
  return { at: over(minus(m.at, [x, y]), axes), way: over(m.way, axes) };
}

/** Shoved by so much, and turned about its cross line. */
export const shoved = (m: MatBody, x: number, y: number, turnRad: number): MatBody => ({
  at: plus(m.at, [x, y]),
  way: times(m.way, [Math.cos(turnRad), Math.sin(turnRad)]),
});

type Place = { xMm: number; yMm: number; zMm: number };

/** How far a place lies to the left of the way from one place to another. */
const leftOf = (p: Complex, from: Place, to: Place): number => {
  const along = over(minus(p, [from.xMm, from.yMm]), minus([to.xMm, to.yMm], [from.xMm, from.yMm]));
  return along[1] * size([to.xMm - from.xMm, to.yMm - from.yMm]);
};

/**
 * What a tape or the floor laser shows at a mat, exactly.
 *
 * @param place the vehicle's hubs, where they truly are
 * @param mate the other mat, for tapes between the two
 */
export function matReading(
  slotId: string,
  m: MatBody,
  shape: MatShape,
  place: (id: string) => Place,
  mate: { body: MatBody; shape: MatShape } | null,
): number {
  const left = shape.side > 0;
  if (slotId.startsWith("mark-")) return markReading(slotId, m, shape, place, mate);
  if (slotId.startsWith("across-")) return acrossReading(slotId, m, shape, place);
  const [, one, two] = slotId.split("-") as [string, string, Corner | undefined];
  if (one === "cross") return -leftOf(m.at, place("hubFR"), place("hubFL"));
  if (one === "apart") {
    if (!mate) throw new Error("The other mat does not lie there yet.");
    return size(minus(innerCorner(m, shape, two!), innerCorner(mate.body, mate.shape, two!)));
  }
  if (one === "line") {
    const [rear, front] = left ? ["hubRL", "hubFL"] : ["hubRR", "hubFR"];
    const out = leftOf(innerCorner(m, shape, two!), place(rear!), place(front!));
    return left ? out : -out;
  }
  if (one === "beside") {
    const rear = innerCorner(m, shape, "rear");
    const front = innerCorner(m, shape, "front");
    const hub = place(`hub${two === "front" ? "F" : "R"}${left ? "L" : "R"}`);
    const on = over(minus([hub.xMm, hub.yMm], rear), minus(front, rear));
    // Out from the hub to the edge; less than nothing where the mat lies under the car.
    return -shape.side * on[1] * size(minus(front, rear));
  }
  if (one === "abeam") {
    const hub = place(left ? "hubFL" : "hubFR");
    // Along the mat's own way, from the hub back or ahead to the cross line.
    return -over(minus([hub.xMm, hub.yMm], m.at), m.way)[0];
  }
  const hub = place(`hub${one === "front" ? "F" : "R"}${left ? "L" : "R"}`);
  const corner = innerCorner(m, shape, two!);
  // The tape runs in space, from the hub down to the floor.
  return Math.sqrt(size(minus(corner, [hub.xMm, hub.yMm])) ** 2 + hub.zMm ** 2);
}

/** The same at a cross drawn on the floor. */
function markReading(
  slotId: string,
  { at }: MatBody,
  { side, line }: MatShape,
  place: (id: string) => Place,
  mate: { body: MatBody } | null,
): number {
  const [from, through] = [place(line!.from), place(line!.through)];
  const flat = (p: Place): Complex => [p.xMm, p.yMm];
  switch (slotId) {
    case "mark-line":
    case "mark-cord": {
      const [rear, front] = from.xMm < through.xMm ? [from, through] : [through, from];
      return side * leftOf(at, rear, front);
    }
    case "mark-along": {
      // What part of the way from the first hub lies along the line, whichever way the line runs.
      const way = minus(flat(through), flat(from));
      const along = over(minus(at, flat(from)), way)[0] * size(way);
      return through.xMm > from.xMm === line!.ahead ? along : -along;
    }
    case "mark-across":
      return size(minus(at, flat(place(line!.across))));
    case "mark-straight":
      return size(minus(at, flat(from)));
    default:
      if (!mate) throw new Error("The other mark is not drawn yet.");
      return size(minus(at, mate.body.at));
  }
}

/** The same at a mat that lies across the vehicle's way. */
function acrossReading(
  slotId: string,
  m: MatBody,
  shape: MatShape,
  place: (id: string) => Place,
): number {
  const ahead = shape.lies === "ahead";
  const edge = ahead ? shape.aheadMm - shape.lengthMm : shape.aheadMm;
  const corner = (side: string): Complex =>
    placeOn(m, edge, ((side === "l" ? 1 : -1) * shape.widthMm) / 2);
  const [, what, end] = slotId.split("-") as [string, string, string];
  if (what === "middle") return leftOf(m.at, place("badgeR"), place("badgeF"));
  const hub = (side: string, near = true) =>
    place(`hub${ahead === near ? "F" : "R"}${side.toUpperCase()}`);
  if (what === "edge") {
    const { xMm, yMm } = hub(end);
    // Along the mat's own way, from the hub to its edge.
    const gap = over(minus(corner("l"), [xMm, yMm]), m.way)[0];
    return ahead ? gap : -gap;
  }
  const { xMm, yMm, zMm } = what === "far" ? hub(end, false) : hub(what);
  return Math.hypot(size(minus(corner(end), [xMm, yMm])), zMm);
}
