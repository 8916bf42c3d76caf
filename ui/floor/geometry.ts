import type { Vehicle } from "@/core/vehicle";

/** A place on the floor, vehicle axes, mm. */
export type Place = { x: number; y: number };

/** What part of the floor is shown, in vehicle axes. */
export type Extent = { minX: number; maxX: number; minY: number; maxY: number };

/**
 * Turns floor places into picture places: x forward runs right on a wide picture, up on a tall one.
 */
export type View = {
  width: number;
  height: number;
  upright: boolean;
  pxPerMm: number;
  to: (p: Place) => { u: number; v: number };
  /** Degrees to turn an SVG shape drawn along +u so that it lies along a floor heading. */
  turn: (headingRad: number) => number;
};

/** Fits an extent into a picture, then applies zoom and pan (in picture pixels). */
export function fitView(
  extent: Extent,
  width: number,
  height: number,
  zoom: number,
  pan: { u: number; v: number },
): View {
  const upright = height > width;
  const spanX = extent.maxX - extent.minX;
  const spanY = extent.maxY - extent.minY;
  const fit = upright
    ? Math.min(width / spanY, height / spanX)
    : Math.min(width / spanX, height / spanY);
  const k = fit * zoom;
  const cx = (extent.minX + extent.maxX) / 2;
  const cy = (extent.minY + extent.maxY) / 2;
  const to = (p: Place) =>
    upright
      ? { u: width / 2 - (p.y - cy) * k + pan.u, v: height / 2 - (p.x - cx) * k + pan.v }
      : { u: width / 2 + (p.x - cx) * k + pan.u, v: height / 2 - (p.y - cy) * k + pan.v };
  return {
    width,
    height,
    upright,
    pxPerMm: k,
    to,
    turn: (h) => (-h * 180) / Math.PI + (upright ? -90 : 0),
  };
}

/**
 * Outline of a vehicle in plan from its real length, width and overhangs; corners by body style.
 */
export function vehicleOutline(v: Vehicle): Place[] {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const rear = front - v.lengthMm;
  const half = v.widthMm / 2;
  const nose = { car: 520, coupe: 760, van: 340, camper: 320, truck: 120 }[v.body];
  const tail = { car: 380, coupe: 420, van: 90, camper: 90, truck: 40 }[v.body];
  const side = (s: 1 | -1): Place[] => [
    { x: rear, y: s * (half - tail * 0.5) },
    { x: rear + tail, y: s * half },
    { x: front - nose, y: s * half },
    { x: front - nose * 0.22, y: s * (half - nose * 0.42) },
    { x: front, y: s * Math.max(0, half - nose * 0.95) },
  ];
  return [...side(1), ...side(-1).reverse()];
}

/** A smooth closed path through picture points (quadratic through mid-points). */
export function softPath(points: { u: number; v: number }[]): string {
  const mid = (i: number, j: number) => {
    const [a, b] = [points[i % points.length]!, points[j % points.length]!];
    return `${((a.u + b.u) / 2).toFixed(1)} ${((a.v + b.v) / 2).toFixed(1)}`;
  };
  const start = `M ${mid(points.length - 1, 0)}`;
  return (
    points.reduce(
      (d, p, i) => `${d} Q ${p.u.toFixed(1)} ${p.v.toFixed(1)} ${mid(i, i + 1)}`,
      start,
    ) + " Z"
  );
}

const FACTORS = [1, 2, 5, 10, 20, 50];

/**
 * The largest stated magnification at which an error of `errorMm` still stays within `roomMm` of
 * its place.
 */
export const magnification = (errorMm: number, roomMm: number): number =>
  FACTORS.filter((f) => f * Math.max(errorMm, 1) <= roomMm).at(-1) ?? 1;
