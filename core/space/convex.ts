/** A place on a bay's floor, millimetres. */
export type Vec = readonly [x: number, y: number];

/** Corners of a convex shape one after another, either way round; two of them are a piece of wall. */
export type Convex = readonly Vec[];

/** Distance of a place from a piece of line, mm. */
export function offMm([px, py]: Vec, [ax, ay]: Vec, [bx, by]: Vec): number {
  const [ux, uy] = [bx - ax, by - ay];
  const length = ux * ux + uy * uy;
  const t = length > 0 ? Math.min(1, Math.max(0, ((px - ax) * ux + (py - ay) * uy) / length)) : 0;
  const [dx, dy] = [px - ax - t * ux, py - ay - t * uy];
  return Math.sqrt(dx * dx + dy * dy);
}

/** Least distance between the edges of two shapes that do not overlap, mm: it is at a corner of one. */
function between(a: Convex, b: Convex): number {
  let least = Infinity;
  for (let i = 0; i < a.length; i++) {
    const [p, q] = [a[i]!, a[(i + 1) % a.length]!];
    for (const c of b) least = Math.min(least, offMm(c, p, q));
  }
  for (let i = 0; i < b.length; i++) {
    const [p, q] = [b[i]!, b[(i + 1) % b.length]!];
    for (const c of a) least = Math.min(least, offMm(c, p, q));
  }
  return least;
}

/** How far the shadows of two shapes on the normals of one's edges lie apart at the most, mm. */
function apart(a: Convex, b: Convex): number {
  let most = -Infinity;
  // A piece of wall has one normal, not two that say the same.
  const edges = a.length === 2 ? 1 : a.length;
  for (let i = 0; i < edges; i++) {
    const p = a[i]!;
    const q = a[i + 1 === a.length ? 0 : i + 1]!;
    const ex = q[0] - p[0];
    const ey = q[1] - p[1];
    const length = Math.sqrt(ex * ex + ey * ey);
    if (length === 0) continue;
    const nx = ey / length;
    const ny = -ex / length;
    let a0 = Infinity;
    let a1 = -Infinity;
    for (let k = 0; k < a.length; k++) {
      const d = a[k]![0] * nx + a[k]![1] * ny;
      if (d < a0) a0 = d;
      if (d > a1) a1 = d;
    }
    let b0 = Infinity;
    let b1 = -Infinity;
    for (let k = 0; k < b.length; k++) {
      const d = b[k]![0] * nx + b[k]![1] * ny;
      if (d < b0) b0 = d;
      if (d > b1) b1 = d;
    }
    if (b0 - a1 > most) most = b0 - a1;
    if (a0 - b1 > most) most = a0 - b1;
  }
  return most;
}

/** Two convex shapes are no less apart than this, mm; below zero it is how far one has to be moved. */
export const apartAtLeast = (a: Convex, b: Convex): number => Math.max(apart(a, b), apart(b, a));

/**
 * How far two convex shapes are apart, mm: their distance; below zero how far one has to be moved until
 * they only touch.
 */
export function gapMm(a: Convex, b: Convex): number {
  const shadows = apartAtLeast(a, b);
  return shadows > 0 ? between(a, b) : shadows;
}

/** Whether a place lies inside a shape of any form. */
export function isInside([x, y]: Vec, outline: readonly Vec[]): boolean {
  let inside = false;
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [[ax, ay], [bx, by]] = [outline[i]!, outline[j]!];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}

/** Whether corners one after another never turn back. */
export function isConvex(shape: readonly Vec[]): boolean {
  let sign = 0;
  for (let i = 0; i < shape.length; i++) {
    const [a, b, c] = [shape[i]!, shape[(i + 1) % shape.length]!, shape[(i + 2) % shape.length]!];
    const turn = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
    if (Math.abs(turn) < 1e-9) continue;
    if (sign !== 0 && Math.sign(turn) !== sign) return false;
    sign = Math.sign(turn);
  }
  return shape.length >= 3 && sign !== 0;
}
