import type { Vec } from "./convex";

/** The tapes of a quick bay do not make a room. The message says which, and what to do. */
export class QuickBayError extends RangeError {
  override readonly name = "QuickBayError";
}

/** Where two circles meet, on the left of the line from the first middle to the second; null where they do not. */
function meets([ax, ay]: Vec, ra: number, [bx, by]: Vec, rb: number): Vec | null {
  const [dx, dy] = [bx - ax, by - ay];
  const d = Math.hypot(dx, dy);
  const along = (ra * ra - rb * rb + d * d) / (2 * d);
  const up = ra * ra - along * along;
  if (d === 0 || up < 0) return null;
  const h = Math.sqrt(up);
  return [ax + (along * dx - h * dy) / d, ay + (along * dy + h * dx) / d];
}

/**
 * The corners of a working place with four sides, from a tape along each: wall 1 along x, and so on to the
 * left. With a fifth tape from the first corner to the third its angles are known; without it the first
 * corner is taken as square.
 *
 * @param sides walls 1 to 4, mm @param diagonalMm first corner to third; null where nobody taped it
 * @throws QuickBayError
 */
export function fourSides(
  [a, b, c, d]: readonly [number, number, number, number],
  diagonalMm: number | null,
): [Vec, Vec, Vec, Vec] {
  const A: Vec = [0, 0];
  const B: Vec = [a, 0];
  if (diagonalMm === null) {
    const D: Vec = [0, d];
    // Seen from the fourth corner to the second the third lies on the left, the first on the right.
    const C = meets(D, c, B, b);
    if (!C)
      throw new QuickBayError(
        "The four tapes do not close with a square first corner: tape from the first corner to the third as well.",
      );
    return [A, B, C, D];
  }
  const C = meets(A, diagonalMm, B, b);
  if (!C)
    throw new QuickBayError(
      "Walls 1 and 2 and the tape across do not make a triangle: tape them again.",
    );
  const D = meets(A, d, C, c);
  if (!D)
    throw new QuickBayError(
      "Walls 3 and 4 and the tape across do not make a triangle: tape them again.",
    );
  return [A, B, C, D];
}
