import { dxfText, fromPlainAscii, plainAscii, type Group } from "@/core/drawing/dxf";
import { escaped } from "@/core/drawing/svg";
import { baySchema, type Bay } from "./bay";
import { isConvex, isInside, type Vec } from "./convex";

/**
 * A bay as a drawing of R12 DXF, millimetres, and back: one layer a kind. What stands in a bay has its
 * foot as elevation and its height as thickness, as solids have in that form; names are texts that lie
 * in what they name.
 */
const LAYERS = {
  walls: "WALLS",
  doors: "DOORS",
  things: "THINGS",
  windows: "WINDOWS",
  lamps: "LAMPS",
  likenesses: "LIKENESSES",
  names: "NAMES",
  /** What is marked on its floor for a job; it is no part of the bay. */
  marks: "MARK-OUT",
} as const;

/** What is drawn on a bay's floor besides the bay. */
export type FloorDrawing = {
  lines: { name: string; shape: Vec[]; closed: boolean }[];
  points: { name: string; at: Vec }[];
};
const NOTHING: FloorDrawing = { lines: [], points: [] };
const MARK_MM = 100;

const NAME_MM = 150;

/** The middle of some corners. */
const middleOf = (shape: readonly Vec[]): Vec => [
  shape.reduce((s, c) => s + c[0], 0) / shape.length,
  shape.reduce((s, c) => s + c[1], 0) / shape.length,
];

/** The bay as a DXF text. @param marked what is marked on its floor, on a layer of its own */
export function bayDxf(bay: Bay, marked = NOTHING): string {
  const entities: Group[][] = [];
  const put = (...groups: Group[]): void => void entities.push(groups);
  const shape = (
    layer: string,
    corners: readonly Vec[],
    closed: boolean,
    from = 0,
    to = 0,
  ): void => {
    put(
      [0, "POLYLINE"],
      [8, layer],
      [66, 1],
      [70, closed ? 1 : 0],
      [10, 0],
      [20, 0],
      [30, from],
      [39, to - from],
    );
    for (const [x, y] of corners) put([0, "VERTEX"], [8, layer], [10, x], [20, y], [30, from]);
    put([0, "SEQEND"], [8, layer]);
  };
  const name = (text: string, [x, y]: Vec): void =>
    put(
      [0, "TEXT"],
      [8, LAYERS.names],
      [10, x],
      [20, y],
      [30, 0],
      [40, NAME_MM],
      [1, plainAscii(text)],
    );
  shape(LAYERS.walls, bay.outline, true);
  for (const d of bay.doors) shape(LAYERS.doors, d, false);
  for (const o of bay.obstacles) {
    shape(LAYERS.things, o.outline, true, o.fromMm, o.toMm);
    name(o.name, middleOf(o.outline));
  }
  for (const l of bay.lights) {
    shape(l.kind === "window" ? LAYERS.windows : LAYERS.lamps, [l.from, l.to], false);
    name(l.name, middleOf([l.from, l.to]));
  }
  for (const l of bay.likenesses) {
    shape(LAYERS.likenesses, [l.from, l.to], false);
    name(l.name, middleOf([l.from, l.to]));
  }
  for (const l of marked.lines) shape(LAYERS.marks, l.shape, l.closed);
  for (const { name: text, at } of marked.points) {
    put([0, "POINT"], [8, LAYERS.marks], [10, at[0]], [20, at[1]], [30, 0]);
    put(
      [0, "TEXT"],
      [8, LAYERS.marks],
      [10, at[0] + MARK_MM / 2],
      [20, at[1] + MARK_MM / 2],
      [30, 0],
      [40, MARK_MM],
      [1, plainAscii(text)],
    );
  }
  return dxfText(entities);
}

/** A drawing that is no bay. The message says what it lacks. */
export class DrawingError extends RangeError {
  override readonly name = "DrawingError";
}

type Pair = { code: number; value: string };
type Entity = {
  kind: string;
  layer: string;
  places: Vec[];
  closed: boolean;
  text: string;
  from: number;
  tall: number;
};

function pairsOf(text: string): Pair[] {
  const lines = text.replace(/^\ufeff/, "").split(/\r\n|\r|\n/);
  const pairs: Pair[] = [];
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = Number(lines[i]!.trim());
    if (!Number.isInteger(code) || lines[i]!.trim() === "")
      throw new DrawingError(
        `line ${i + 1}: a group code should stand here. Save the drawing as DXF text (R12), not as binary.`,
      );
    pairs.push({ code, value: lines[i + 1]!.trim() });
  }
  return pairs;
}

/** Millimetres in a unit of a drawing, by its $INSUNITS; a drawing that says none is in millimetres. */
const UNITS: Record<number, number> = { 0: 1, 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

function scaleOf(pairs: readonly Pair[]): number {
  const at = pairs.findIndex((p) => p.code === 9 && p.value === "$INSUNITS");
  if (at < 0) return 1;
  const unit = Number(pairs[at + 1]?.value);
  const mm = UNITS[unit];
  if (mm === undefined)
    throw new DrawingError("$INSUNITS: draw in millimetres, centimetres, metres, inches or feet.");
  return mm;
}

function entitiesOf(pairs: readonly Pair[], scale: number): Entity[] {
  const from = pairs.findIndex(
    (p, i) => p.code === 2 && p.value === "ENTITIES" && pairs[i - 1]?.value === "SECTION",
  );
  if (from < 0) throw new DrawingError("ENTITIES: the drawing has no such section.");
  const entities: Entity[] = [];
  let open: Entity | null = null;
  let now: Entity | null = null;
  let [x, second]: [number | null, Vec | null] = [null, null];
  const length = (value: string): number => {
    const n = Number(value);
    if (!Number.isFinite(n)) throw new DrawingError(`“${value.slice(0, 20)}” is no coordinate.`);
    return n * scale;
  };
  for (const { code, value } of pairs.slice(from + 1)) {
    if (code === 0) {
      if (value === "ENDSEC") break;
      [x, second] = [null, null];
      if (value === "VERTEX" && open) {
        now = open;
        continue;
      }
      if (value === "SEQEND") {
        [open, now] = [null, null];
        continue;
      }
      now = { kind: value, layer: "", places: [], closed: false, text: "", from: 0, tall: 0 };
      entities.push(now);
      open = value === "POLYLINE" ? now : null;
      continue;
    }
    if (!now) continue;
    if (code === 8) now.layer = value.toUpperCase();
    else if (code === 1) now.text = fromPlainAscii(value);
    else if (code === 70) now.closed ||= (Number(value) & 1) === 1;
    else if (code === 38 || (code === 30 && now.kind === "POLYLINE")) now.from = length(value);
    else if (code === 39) now.tall = length(value);
    else if (code === 10) x = length(value);
    else if (code === 20 && x !== null) now.places.push([x, length(value)]);
    else if (code === 11) second = [length(value), 0];
    else if (code === 21 && second && now.kind === "LINE")
      now.places.push([second[0], length(value)]);
  }
  // The polyline's own point is no corner of it.
  return entities.map((e) => (e.kind === "POLYLINE" ? { ...e, places: e.places.slice(1) } : e));
}

const round = ([x, y]: Vec): [number, number] => [Math.round(x), Math.round(y)];

/** Corners one after another, without the first one again at the end. */
const ring = (places: readonly Vec[]): [number, number][] => {
  const all = places.map(round);
  const [first, last] = [all[0], all.at(-1)];
  return first && last && all.length > 1 && first[0] === last[0] && first[1] === last[1]
    ? all.slice(0, -1)
    : all;
};

/**
 * A bay from a DXF text: its name, survey and usual light stay those of `was`.
 *
 * @throws DrawingError naming the layer or line at fault
 */
export function bayFromDxf(text: string, was: Bay): Bay {
  const pairs = pairsOf(text);
  const all = entitiesOf(pairs, scaleOf(pairs));
  const on = (layer: string): Entity[] =>
    all.filter((e) => e.layer === layer && e.places.length >= 2);
  const walls = on(LAYERS.walls).filter((e) => e.places.length >= 3);
  if (walls.length !== 1)
    throw new DrawingError(
      `WALLS: ${walls.length === 0 ? "draw the walls as one closed polyline on a layer WALLS" : "only one closed polyline may be on the layer WALLS"}.`,
    );
  const names = all.filter(
    (e) => e.kind === "TEXT" && e.places.length > 0 && e.layer !== LAYERS.marks,
  );
  const nameOf = (plainly: string, n: number, holds: (p: Vec) => boolean): string =>
    names.find((t) => holds(t.places[0]!))?.text.slice(0, 60) || `${plainly} ${n + 1}`;
  const near = (e: Entity) => {
    const [x, y] = middleOf(e.places);
    return (p: Vec): boolean => Math.hypot(p[0] - x, p[1] - y) < 2 * NAME_MM;
  };
  const obstacles = on(LAYERS.things).map((e, i) => {
    const outline = ring(e.places);
    const name = nameOf("thing", i, (p) => isInside(p, outline));
    if (!isConvex(outline))
      throw new DrawingError(`THINGS: “${name}” turns inward. Draw an angled thing as two.`);
    return {
      name,
      outline,
      fromMm: Math.max(0, e.from),
      toMm: e.tall > 0 ? e.from + e.tall : 3000,
    };
  });
  const piece = (e: Entity, plainly: string, i: number) => ({
    name: nameOf(plainly, i, near(e)),
    from: round(e.places[0]!),
    to: round(e.places[1]!),
  });
  const light = (kind: "window" | "lamp") => (e: Entity, i: number) => {
    const drawn = piece(e, kind, i);
    // Where it shines to and whether it can be covered a drawing does not say.
    const old = was.lights.find((l) => l.name === drawn.name);
    return { ...(old ?? { covers: false, towardDeg: null, spreadDeg: null }), ...drawn, kind };
  };
  const read = baySchema.safeParse({
    ...was,
    outline: ring(walls[0]!.places),
    doors: on(LAYERS.doors).map((e) => [round(e.places[0]!), round(e.places[1]!)]),
    obstacles,
    lights: [...on(LAYERS.windows).map(light("window")), ...on(LAYERS.lamps).map(light("lamp"))],
    likenesses: on(LAYERS.likenesses).map((e, i) => piece(e, "part of a wall", i)),
  });
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new DrawingError(`${issue!.path.join(".")}: ${issue!.message}`);
}

/** The bay as an SVG in its true size. @param marked what is marked on its floor */
export function baySvg(bay: Bay, marked = NOTHING): string {
  const [xs, ys] = [bay.outline.map((c) => c[0]), bay.outline.map((c) => c[1])];
  const edge = 400;
  const [x0, y1] = [Math.min(...xs) - edge, Math.max(...ys) + edge];
  const [w, h] = [Math.max(...xs) + edge - x0, y1 - Math.min(...ys) + edge];
  const p = ([x, y]: Vec): string => `${x - x0},${y1 - y}`;
  const line = (layer: string, shape: readonly Vec[], close: boolean, width: number): string =>
    `<${close ? "polygon" : "polyline"} class="${layer.toLowerCase()}" points="${shape.map(p).join(" ")}" fill="none" stroke="#000" stroke-width="${width}"/>`;
  const name = (text: string, [x, y]: Vec): string =>
    `<text x="${x - x0}" y="${y1 - y}" font-size="${NAME_MM}" text-anchor="middle">${escaped(text)}</text>`;
  const all = [
    line(LAYERS.walls, bay.outline, true, 40),
    ...bay.doors.map((d) => line(LAYERS.doors, d, false, 90)),
    ...bay.obstacles.flatMap((o) => [
      line(LAYERS.things, o.outline, true, 20),
      name(o.name, middleOf(o.outline)),
    ]),
    ...bay.lights.flatMap((l) => [
      line(l.kind === "window" ? LAYERS.windows : LAYERS.lamps, [l.from, l.to], false, 60),
      name(l.name, middleOf([l.from, l.to])),
    ]),
    ...bay.likenesses.flatMap((l) => [
      line(LAYERS.likenesses, [l.from, l.to], false, 60),
      name(l.name, middleOf([l.from, l.to])),
    ]),
    ...marked.lines.map((l) => line(LAYERS.marks, l.shape, l.closed, 12)),
    ...marked.points.map(({ name: text, at: [x, y] }) => {
      const [u, v] = [x - x0, y1 - y];
      const half = MARK_MM / 2;
      return `<path class="${LAYERS.marks.toLowerCase()}" d="M${u - half} ${v}h${MARK_MM}M${u} ${v - half}v${MARK_MM}" stroke="#000" stroke-width="6"/><text x="${u + half}" y="${v - half}" font-size="${MARK_MM}">${escaped(text)}</text>`;
    }),
  ];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">\n<title>${escaped(bay.name)}</title>\n${all.join("\n")}\n</svg>\n`;
}
