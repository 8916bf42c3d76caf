import { invertSpd } from "@/core/math/linear";

/**
 * What a camera's unit makes of a target that is not as it expects it, to first order.
 *
 * The unit knows where the target should be and turns its idea of the camera until the two pictures
 * agree best: a least-squares fit of three turns. What a board does that a turn can imitate, it
 * learns; the rest is left over, in size and in shape. Pictures are in tangents of the viewing angle:
 * u to the right, v down; the camera looks along x, y is left, z up.
 */
export const BOARD_QUANTITIES = ["along", "side", "height", "twist", "lean", "level"] as const;
export type BoardQuantity = (typeof BOARD_QUANTITIES)[number];

/** What of one unit (mm or rad) of a quantity is learned and what is left over. */
export type Effect = {
  /** Yaw, pitch and roll that the unit takes for its camera's, rad. */
  turn: [number, number, number];
  /** How much larger the target seems than it should, as a share. */
  size: number;
  /** The picture that no turn explains: u and v of each point, tangents. */
  left: number[];
};

export type LookGeometry = {
  /** How many points the print has. */
  points: number;
  /** To first order, of one unit. */
  effects: Record<BoardQuantity, Effect>;
  /** Of a whole size: far from square a board is foreshortened too. */
  effectAt: (what: BoardQuantity | "print", size: number) => Effect;
  /** Covariance of the learned turns for a picture whose every u and v has variance 1. */
  turnCofactor: number[][];
  /** Variance of the size for the same. */
  sizeCofactor: number;
};

/** The print as a grid that fills three fifths of its height: across and up, in shares of its width. */
const GRID: [number, number][] = [-2, -1, 0, 1, 2].flatMap((i) =>
  [-1, 0, 1].map((j): [number, number] => [i / 5, j / 5]),
);

/**
 * @param rangeMm from the camera to the middle of the target, along its line of sight
 * @param aboveMm how far that middle stands above the camera
 * @param widthMm of the print
 */
export function lookGeometry(rangeMm: number, aboveMm: number, widthMm: number): LookGeometry {
  const at = GRID.map(([a, b]): [number, number, number] => [
    rangeMm,
    a * widthMm,
    aboveMm + b * widthMm,
  ]);
  // du = (y dx - x dy) / x^2, dv = (z dx - x dz) / x^2.
  const seen = (move: (p: [number, number, number]) => number[]): number[] =>
    at.flatMap((p) => {
      const [dx, dy, dz] = move(p);
      const [x, y, z] = p;
      return [(y * dx! - x * dy!) / x ** 2, (z * dx! - x * dz!) / x ** 2];
    });
  /** The same of points that stand elsewhere, without neglect. */
  const moved = (to: (a: number, b: number) => [number, number, number]): number[] =>
    at.flatMap(([x, y, z], i) => {
      const [px, py, pz] = to(GRID[i]![0] * widthMm, GRID[i]![1] * widthMm);
      return [y / x - py / px, z / x - pz / px];
    });
  const shifted: LookGeometry["effectAt"] = (what, s) => {
    const [c, n] = [Math.cos(s), Math.sin(s)];
    const spot = {
      along: (a: number, b: number) => [rangeMm + s, a, b],
      side: (a: number, b: number) => [rangeMm, a + s, b],
      height: (a: number, b: number) => [rangeMm, a, b + s],
      // Turned counter-clockwise from above, its left end comes nearer.
      twist: (a: number, b: number) => [rangeMm - n * a, c * a, b],
      lean: (a: number, b: number) => [rangeMm + n * b, a, c * b],
      level: (a: number, b: number) => [rangeMm, c * a - n * b, c * b + n * a],
      print: (a: number, b: number) => [rangeMm, a * (1 + s), b * (1 + s)],
    }[what];
    return effect(
      moved((a, b) => {
        const [x, y, z] = spot(a, b);
        return [x!, y!, aboveMm + z!];
      }),
    );
  };
  // A camera turned left sees a thing at x + y w, y - x w; nose down, at x - z w, z + x w; rolled to
  // the right, at y + z w, z - y w.
  const turns = [
    seen(([x, y]) => [y, -x, 0]),
    seen(([x, , z]) => [-z, 0, x]),
    seen(([, y, z]) => [0, z, -y]),
  ];
  const dot = (a: readonly number[], b: readonly number[]): number =>
    a.reduce((s, v, i) => s + v * b[i]!, 0);
  const turnCofactor = invertSpd(turns.map((a) => turns.map((b) => dot(a, b))))!;
  // The size is the mean distance of the points from their middle.
  const out = GRID.map(([a, b]) => Math.hypot(a, b));
  const sum = out.reduce((s, v) => s + v, 0) * (widthMm / rangeMm);
  const sizeRow = GRID.flatMap(([a, b], i) =>
    out[i] === 0 ? [0, 0] : [-a / out[i]! / sum, -b / out[i]! / sum],
  );
  const effect = (picture: number[]): Effect => {
    const h = turns.map((t) => dot(t, picture));
    const turn = turnCofactor.map((row) => dot(row, h)) as Effect["turn"];
    const left = picture.map((v, i) => v - turns.reduce((s, t, k) => s + t[i]! * turn[k]!, 0));
    return { turn, size: dot(sizeRow, left), left };
  };
  return {
    points: GRID.length,
    turnCofactor,
    sizeCofactor: dot(sizeRow, sizeRow),
    effects: Object.fromEntries(
      BOARD_QUANTITIES.map((q) => [q, scaled(shifted(q, TINY[q]), 1 / TINY[q])]),
    ) as Record<BoardQuantity, Effect>,
    effectAt: shifted,
  };
}

/** Small enough that a picture changes in proportion, mm and rad. */
const TINY: Record<BoardQuantity, number> = {
  along: 0.1,
  side: 0.1,
  height: 0.1,
  twist: 1e-4,
  lean: 1e-4,
  level: 1e-4,
};

const scaled = (e: Effect, by: number): Effect => ({
  turn: e.turn.map((v) => v * by) as Effect["turn"],
  size: e.size * by,
  left: e.left.map((v) => v * by),
});
