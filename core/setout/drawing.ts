import { dxfText, plainAscii, type Group } from "@/core/drawing/dxf";
import { escaped } from "@/core/drawing/svg";
import type { MarkOut } from "./mark-out";

/** What lies on the floor, whatever is read there. */
type FloorPlan = Pick<MarkOut, "marks" | "stands" | "line">;

/**
 * The mark-out as open drawings, one millimetre of paper for one of floor, vehicle axes: x forward
 * to the right, y left upward. DXF is the R12 text form that every drawing program reads; SVG
 * carries its true size.
 */
type Line = { layer: "vehicle" | "board" | "line"; from: [number, number]; to: [number, number] };

const at = (m: FloorPlan, id: string): [number, number] => {
  const p = m.marks.find((x) => x.id === id)!;
  return [p.xMm, p.yMm];
};

/** The two ends of the board's beam, or of a mat's inner edge; a floor mark is drawn from its hub. */
const endsOf = (m: FloorPlan): [string, string] | null =>
  ((
    [
      ["beamL", "beamR"],
      ["rearIn", "frontIn"],
      ["inL", "inR"],
    ] as const
  ).find(([a]) => m.marks.some((x) => x.id === a)) as [string, string] | undefined) ?? null;

/** What is drawn besides the marks: wheelbases, tracks, the centreline to the board, the beam. */
export function drawingLines(m: FloorPlan): Line[] {
  const line = (layer: Line["layer"], a: string, b: string): Line => ({
    layer,
    from: at(m, a),
    to: at(m, b),
  });
  const ends = endsOf(m);
  const axles = m.marks.filter((x) => /^axle-.*-L$/.test(x.id)).map((x) => x.id);
  return [
    ...axles.map((id) => line("vehicle", id, id.replace(/L$/, "R"))),
    line("vehicle", "hubRL", "hubRR"),
    line("vehicle", "hubFL", "hubFR"),
    line("vehicle", "hubRL", "hubFL"),
    line("vehicle", "hubRR", "hubFR"),
    centreline(m, line),
    ...(ends ? [line("board", ...ends)] : sideLineOf(m)),
  ];
}

/** The centreline runs on to a board ahead or behind; beside anything else it ends with the vehicle. */
function centreline(m: FloorPlan, line: (layer: "line", a: string, b: string) => Line): Line {
  const board = m.marks.some((x) => x.id === "beamL");
  if (board && m.stands === "behind") return line("line", "badgeF", "board");
  return line("line", "badgeR", board && m.stands === "ahead" ? "board" : "badgeF");
}

/** The line a floor mark is measured on, from the front hub of its side on to abreast of it, and out. */
function sideLineOf(m: FloorPlan): Line[] {
  if (!m.line) return [];
  const mark = at(m, "board");
  const [p, q] = m.line.map((id) => at(m, id)) as [[number, number], [number, number]];
  const front = p[0] > q[0] ? p : q;
  const way = [q[0] - p[0], q[1] - p[1]] as const;
  const far = ((mark[0] - p[0]) * way[0] + (mark[1] - p[1]) * way[1]) / (way[0] ** 2 + way[1] ** 2);
  const foot: [number, number] = [p[0] + far * way[0], p[1] + far * way[1]];
  return [
    { layer: "line", from: front, to: foot },
    { layer: "board", from: foot, to: mark },
  ];
}

/** Half the arms of a mark's cross, and the height of its name, mm. */
const ARM = 30;
const TEXT = 60;

/** DXF, AutoCAD R12 text: LINE, POINT and TEXT entities in millimetres ($INSUNITS 4). */
export function toDxf(m: MarkOut): string {
  const entities: Group[][] = [];
  const put = (...groups: Group[]): void => void entities.push(groups);
  for (const l of drawingLines(m))
    put(
      [0, "LINE"],
      [8, l.layer],
      [10, l.from[0]],
      [20, l.from[1]],
      [30, 0],
      [11, l.to[0]],
      [21, l.to[1]],
      [31, 0],
    );
  for (const p of m.marks) {
    put([0, "POINT"], [8, "marks"], [10, p.xMm], [20, p.yMm], [30, 0]);
    put(
      [0, "TEXT"],
      [8, "names"],
      [10, p.xMm + ARM],
      [20, p.yMm + ARM],
      [30, 0],
      [40, TEXT],
      [1, plainAscii(p.name)],
    );
  }
  return dxfText(entities);
}

/** SVG at true scale: its width and height are millimetres, and so is one unit of its view box. */
export function toSvg(m: MarkOut): string {
  const margin = 300;
  const xs = m.marks.map((p) => p.xMm);
  const ys = m.marks.map((p) => p.yMm);
  const [x0, x1, y0, y1] = [
    Math.min(...xs) - margin,
    Math.max(...xs) + margin,
    Math.min(...ys) - margin,
    Math.max(...ys) + margin,
  ];
  const [w, h] = [x1 - x0, y1 - y0].map((v) => Number(v.toFixed(2))) as [number, number];
  const u = (x: number): string => (x - x0).toFixed(2);
  const v = (y: number): string => (y1 - y).toFixed(2);
  const lines = drawingLines(m).map(
    (l) =>
      `<line class="${l.layer}" x1="${u(l.from[0])}" y1="${v(l.from[1])}" x2="${u(l.to[0])}" y2="${v(l.to[1])}"/>`,
  );
  const marks = m.marks.map(
    (p) =>
      `<g id="${p.id}"><path d="M${u(p.xMm - ARM)} ${v(p.yMm)}H${u(p.xMm + ARM)}M${u(p.xMm)} ${v(p.yMm - ARM)}V${v(p.yMm + ARM)}"/><text x="${u(p.xMm + ARM)}" y="${v(p.yMm + ARM)}">${escaped(p.name)}</text></g>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">`,
    `<style>line,path{stroke:#1e232b;stroke-width:4;fill:none}.line{stroke-dasharray:60 30}.board{stroke-width:14}text{font:${TEXT}px sans-serif}</style>`,
    ...lines,
    ...marks,
    "</svg>",
    "",
  ].join("\n");
}
