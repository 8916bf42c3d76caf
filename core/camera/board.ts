import type { BoardError, Setting } from "./setting";

/** Points the computer looks for, as shares of the board's width: right of centre, above centre. */
const PATTERN = [-2, -1, 0, 1, 2].flatMap((i) => [-1, 0, 1].map((j) => [i / 5, j / 5] as const));

/**
 * The board's points in a frame ahead, left, up of the camera, mm: x0 y0 z0 x1 ... (into `out`,
 * when given).
 *
 * Twist turns the board about the vertical through its centre, pitch leans its top, roll raises its
 * left end; the three are small and their order matters by products of them only (a tenth of a
 * millimetre at a degree each).
 */
export function boardInVehicle(
  { camera, board }: Setting,
  e: BoardError,
  out = new Float64Array(PATTERN.length * 3),
): Float64Array {
  const [cx, cy, cz] = [
    board.aheadMm + e.alongMm,
    board.leftMm + e.acrossMm,
    board.heightMm + e.heightMm - camera.zMm,
  ];
  const [ct, st, cp, sp, cr, sr] = [
    Math.cos(e.twistRad),
    Math.sin(e.twistRad),
    Math.cos(e.pitchRad),
    Math.sin(e.pitchRad),
    Math.cos(e.rollRad),
    Math.sin(e.rollRad),
  ];
  PATTERN.forEach(([right, up], i) => {
    const [left0, up0] = [-right * board.widthMm, up * board.widthMm];
    const [left, high] = [cr * left0 - sr * up0, sr * left0 + cr * up0];
    const away = sp * high;
    out[3 * i] = cx + ct * away - st * left;
    out[3 * i + 1] = cy + st * away + ct * left;
    out[3 * i + 2] = cz + cp * high;
  });
  return out;
}
