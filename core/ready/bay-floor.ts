import { archPlace, CORNERS, type Vehicle } from "@/core/vehicle";

/**
 * The floor of a bay as it was read at marked places: rule readings under a line laser, places in
 * vehicle axes.
 */
export type BayFloor = {
  bay: string;
  /** UTC, ISO. */
  readAt: string;
  tyres: { xMm: number; yMm: number; ruleMm: number }[];
  stand: { xMm: number; yMm: number; ruleMm: number }[];
};

/** A bay's floor is good for this long; floors settle, drains are relaid. */
export const BAY_FLOOR_DAYS = 90;
/**
 * What a vehicle that stands a hand's breadth elsewhere on the same marks adds on a trowelled floor,
 * and what each month does, mm.
 */
const ELSEWHERE_MM = 0.6;
const PER_MONTH_MM = 0.4;
const DAY_MS = 86_400_000;

/** Days since a bay's floor was read. */
export const bayFloorAge = (floor: Pick<BayFloor, "readAt">, now: string): number =>
  (Date.parse(now) - Date.parse(floor.readAt)) / DAY_MS;

/** Standard uncertainty of a rule reading taken from a kept floor, mm: wider the older it is. */
export const bayFloorSigma = (readingMm: number, days: number): number =>
  Math.hypot(readingMm, ELSEWHERE_MM, (PER_MONTH_MM * days) / 30);

/** A floor measurement of a job as the floor of its bay. */
export function asBayFloor(
  bay: string,
  readAt: string,
  values: Readonly<Record<string, number>>,
  vehicle: Vehicle,
  standXMm: number,
): BayFloor | null {
  if (CORNERS.some((c) => values[c] === undefined) || values.stand === undefined) return null;
  const feet = [
    ["stand", 350],
    ["stand-2", -350],
  ] as const;
  return {
    bay,
    readAt,
    tyres: CORNERS.map((c) => ({ ...placeOf(vehicle, c), ruleMm: values[c]! })),
    stand: feet.flatMap(([id, yMm]) =>
      values[id] === undefined ? [] : [{ xMm: standXMm, yMm, ruleMm: values[id] }],
    ),
  };
}

const placeOf = (v: Vehicle, c: (typeof CORNERS)[number]): { xMm: number; yMm: number } => {
  const { xMm, yMm } = archPlace(v, c);
  return { xMm, yMm };
};

/**
 * The rule readings a vehicle would give on a kept floor: between the four marks by the surface c +
 * a x + b y + d x y that goes through all of them, at the stand by what it was read to lie off that
 * surface.
 */
export function valuesFromBay(
  floor: BayFloor,
  vehicle: Vehicle,
  standXMm: number,
): Record<string, number> {
  const at = surfaceThrough(floor.tyres);
  const values: Record<string, number> = Object.fromEntries(
    CORNERS.map((c) => {
      const { xMm, yMm } = placeOf(vehicle, c);
      return [c, at(xMm, yMm)];
    }),
  );
  floor.stand.forEach((s, i) => {
    values[i === 0 ? "stand" : "stand-2"] = at(standXMm, s.yMm) + s.ruleMm - at(s.xMm, s.yMm);
  });
  return values;
}

/**
 * Solves the four coefficients by elimination with pivoting; four marks of a vehicle are never in a
 * line.
 */
function surfaceThrough(marks: BayFloor["tyres"]): (xMm: number, yMm: number) => number {
  const rows = marks.map((m) => {
    const [x, y] = [m.xMm / 1000, m.yMm / 1000];
    return [1, x, y, x * y, m.ruleMm];
  });
  for (let k = 0; k < 4; k++) {
    const pivot = rows
      .slice(k)
      .reduce((best, r, i) => (Math.abs(r[k]!) > Math.abs(rows[best]![k]!) ? i + k : best), k);
    [rows[k], rows[pivot]] = [rows[pivot]!, rows[k]!];
    for (let i = 0; i < 4; i++) {
      if (i === k) continue;
      const factor = rows[i]![k]! / rows[k]![k]!;
      for (let j = k; j < 5; j++) rows[i]![j]! -= factor * rows[k]![j]!;
    }
  }
  const [c, a, b, d] = rows.map((r, i) => r[4]! / r[i]!) as [number, number, number, number];
  return (xMm, yMm) => c + (a * xMm) / 1000 + (b * yMm) / 1000 + (d * xMm * yMm) / 1e6;
}
