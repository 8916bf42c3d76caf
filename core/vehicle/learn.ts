import { invertSpd } from "@/core/math/linear";
import { hubCovariance, vehiclePoints, type VehiclePointId } from "./points";
import type { Vehicle } from "./schema";

/**
 * The book learns: how far a model's dimensions truly lie beside the book's, from many cars of it that
 * were set out.
 *
 * A car's hubs and badges lie where the model has them, and each car a little beside: x = mu + e, with e
 * normal of the book's own spread P between cars. A set-out of one car began with the book (x = 0 beside
 * it, covariance P) and ended with mean m and covariance C. What it says of mu, the car's own deviation
 * taken out, is then normal with information I = P^-1 (P - C) P^-1 and vector h = P^-1 m (Lindley & Smith
 * 1972, with known variances): where nothing was read C is P, and nothing is said. Places that move with
 * the whole car cannot be seen from it and say nothing either.
 */

/** What one car's readings said of its marks, beside the book, in the order of {@link LEARNED_POINTS}. */
export type CarSeen = {
  /** x and y of each point, mm beside the book. */
  mean: readonly number[];
  covariance: readonly (readonly number[])[];
};

/** The marks whose places are learned. */
export const LEARNED_POINTS = ["hubFL", "hubFR", "hubRL", "hubRR", "badgeF", "badgeR"] as const;

/** A dimension of the book and what moves with a millimetre more of it. */
type Dimension = {
  path: string;
  name: string;
  of: (v: Vehicle) => number;
  moves: readonly (readonly [VehiclePointId, "x" | "y", number])[];
};

const DIMENSIONS: readonly Dimension[] = [
  {
    path: "wheelbaseMm",
    name: "Wheelbase",
    of: (v) => v.wheelbaseMm,
    moves: [
      ["hubFL", "x", 1],
      ["hubFR", "x", 1],
    ],
  },
  {
    path: "trackFrontMm",
    name: "Front track",
    of: (v) => v.trackFrontMm,
    moves: [
      ["hubFL", "y", 0.5],
      ["hubFR", "y", -0.5],
    ],
  },
  {
    path: "trackRearMm",
    name: "Rear track",
    of: (v) => v.trackRearMm,
    moves: [
      ["hubRL", "y", 0.5],
      ["hubRR", "y", -0.5],
    ],
  },
  ...(["frontBadge", "rearBadge"] as const).flatMap((badge): Dimension[] => {
    const [point, name] =
      badge === "frontBadge" ? (["badgeF", "Front"] as const) : (["badgeR", "Rear"] as const);
    return [
      {
        path: `${badge}.xMm`,
        name: `${name} badge, ahead`,
        of: (v) => v[badge].xMm,
        moves: [[point, "x", 1]],
      },
      {
        path: `${badge}.yMm`,
        name: `${name} badge, to the left`,
        of: (v) => v[badge].yMm,
        moves: [[point, "y", 1]],
      },
    ];
  }),
];

/** How far a whole model may lie beside what somebody measured of it, standard deviation, mm. */
const MODEL_SIGMA_MM = 5;
/** Fewer cars than this propose nothing: they may have come from one lot. */
export const LEAST_CARS = 5;
/** A dimension is proposed from this many of its own standard deviations on, and this much. */
const SURE = 2.5;
const LEAST_MM = 0.5;

/** A dimension as the cars have it. */
export type Learned = {
  path: string;
  name: string;
  bookMm: number;
  /** How far beside the book, and how surely. */
  besideMm: number;
  sigmaMm: number;
  /** What it should be changed to, to half a millimetre; null where the book may stay. */
  proposedMm: number | null;
};

/** The spread between cars that the book itself states, mm2, in the order of the points. */
function spread(v: Vehicle): number[][] {
  const hubs = hubCovariance(v);
  const places = vehiclePoints(v);
  const rows = LEARNED_POINTS.flatMap((id) => [0, 1].map((axis) => ({ id, axis })));
  return rows.map((a, i) =>
    rows.map((b, j) => {
      const [h, k] = [hubs.ids.indexOf(a.id), hubs.ids.indexOf(b.id)];
      if (h >= 0 && k >= 0) return hubs.covariance[2 * h + a.axis]![2 * k + b.axis]!;
      return i === j ? places.find((p) => p.id === a.id)!.sigmaMm ** 2 : 0;
    }),
  );
}

type Matrix = readonly (readonly number[])[];
const product = (a: Matrix, b: Matrix): number[][] =>
  a.map((row) =>
    b[0]!.map((_, j) => row.reduce((sum, v, k) => (v === 0 ? sum : sum + v * b[k]![j]!), 0)),
  );

/**
 * What cars of one model say of its dimensions.
 *
 * @param cars each with the marks' places beside this very version of the book
 */
export function learnDimensions(v: Vehicle, cars: readonly CarSeen[]): Learned[] {
  const between = spread(v);
  const weight = invertSpd(between)!;
  const n = LEARNED_POINTS.length * 2;
  // Columns of A: what one millimetre of each dimension moves.
  const row = (id: VehiclePointId, axis: "x" | "y"): number =>
    2 * LEARNED_POINTS.findIndex((p) => p === id) + (axis === "x" ? 0 : 1);
  const columns = DIMENSIONS.map(({ moves }) => {
    const column = new Array<number>(n).fill(0);
    for (const [id, axis, by] of moves) column[row(id, axis)] = by;
    return column;
  });
  // P^-1 A: what comes of a car is seen through it on both sides.
  const seen = product(columns, weight);
  const information = DIMENSIONS.map((_, i) =>
    DIMENSIONS.map((__, j) => (i === j ? 1 / MODEL_SIGMA_MM ** 2 : 0)),
  );
  const vector = new Array<number>(DIMENSIONS.length).fill(0);
  for (const { mean, covariance } of cars) {
    const gone = between.map((r, i) => r.map((p, j) => p - covariance[i]![j]!));
    const through = product(seen, gone);
    seen.forEach((a, i) => {
      vector[i]! += a.reduce((sum, w, k) => sum + w * mean[k]!, 0);
      seen.forEach(
        (b, j) => (information[i]![j]! += through[i]!.reduce((sum, t, k) => sum + t * b[k]!, 0)),
      );
    });
  }
  const known = invertSpd(information)!;
  return DIMENSIONS.map(({ path, name, of }, i): Learned => {
    const besideMm = known[i]!.reduce((sum, q, j) => sum + q * vector[j]!, 0);
    const sigmaMm = Math.sqrt(known[i]![i]!);
    const bookMm = of(v);
    const rounded = Math.round(2 * (bookMm + besideMm)) / 2;
    const sure =
      cars.length >= LEAST_CARS &&
      Math.abs(besideMm) > SURE * sigmaMm &&
      Math.abs(rounded - bookMm) >= LEAST_MM;
    return { path, name, bookMm, besideMm, sigmaMm, proposedMm: sure ? rounded : null };
  });
}
