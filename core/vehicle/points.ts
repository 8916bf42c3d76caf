import type { Vehicle } from "./schema";

/** The reference points a tape, a plumb line or a laser can reach, in vehicle axes. */
export type VehiclePointId =
  "hubFL" | "hubFR" | "hubRL" | "hubRR" | "badgeF" | "badgeR" | MarkPointId | AxlePointId;

/** A hub of a further axle, by the axle's id in the book. */
export type AxlePointId = `axle-${string}-${"L" | "R"}`;

/**
 * The hub of an axle on one side: "front" and "rear" are the two every vehicle has, any other name is
 * that of a further axle.
 */
export const hubOf = (axle: string, left: boolean): VehiclePointId =>
  axle === "front"
    ? left
      ? "hubFL"
      : "hubFR"
    : axle === "rear"
      ? left
        ? "hubRL"
        : "hubRR"
      : `axle-${axle}-${left ? "L" : "R"}`;

/** A further mark near the middle of the front, by its id in the book. */
export type MarkPointId = `mark-${string}`;
export const markPoint = (id: string): MarkPointId => `mark-${id}`;

/** Which line on the floor the sheet means. */
export type DatumKind = "centreline" | "rear-axle-normal" | "thrust" | "side-line";

/** Rear toe from an alignment printout, toe-in positive, radians. */
export type RearToe = { leftRad: number; rightRad: number };

export type VehiclePoint = {
  id: VehiclePointId;
  xMm: number;
  yMm: number;
  zMm: number;
  sigmaMm: number;
};

/** Hub caps, badges and further marks of a vehicle, with the standard uncertainty of their places. */
export function vehiclePoints(v: Vehicle): VehiclePoint[] {
  const frontHalf = v.trackFrontMm / 2 + v.hubCapOutMm;
  const rearHalf = v.trackRearMm / 2 + v.hubCapOutMm;
  const hub = { zMm: v.hubHeightMm, sigmaMm: v.hubSigmaMm };
  return [
    { id: "hubFL", xMm: v.wheelbaseMm, yMm: frontHalf, ...hub },
    { id: "hubFR", xMm: v.wheelbaseMm, yMm: -frontHalf, ...hub },
    { id: "hubRL", xMm: 0, yMm: rearHalf, ...hub },
    { id: "hubRR", xMm: 0, yMm: -rearHalf, ...hub },
    ...(v.furtherAxles ?? []).flatMap(({ id, aheadMm, hubHalfMm }): VehiclePoint[] =>
      [true, false].map((left) => ({
        id: hubOf(id, left),
        xMm: aheadMm,
        yMm: left ? hubHalfMm : -hubHalfMm,
        ...hub,
      })),
    ),
    { id: "badgeF", ...v.frontBadge, sigmaMm: v.badgeSigmaMm },
    { id: "badgeR", ...v.rearBadge, sigmaMm: v.badgeSigmaMm },
    ...(v.centreMarks ?? []).map(({ id, xMm, yMm, zMm, sigmaMm }) => ({
      id: markPoint(id),
      xMm,
      yMm,
      zMm,
      sigmaMm,
    })),
  ];
}

/**
 * What the hubs of one vehicle have in common against the book, standard deviations in mm: caps that
 * stand out more or less on both sides of an axle alike, and a front axle that lies farther ahead.
 */
const CAPS_OUT_MM = 1.5;
const FRONT_AXLE_MM = 1.7;

type HubPrior = { ids: VehiclePointId[]; covariance: number[][] };
const hubPriors = new WeakMap<Vehicle, HubPrior>();

/**
 * What is known beforehand of the four hubs together, mm2: x and y of each. The same for a vehicle
 * however often it is asked: what is made of it is made once.
 */
export function hubCovariance(v: Vehicle): HubPrior {
  let prior = hubPriors.get(v);
  if (!prior) hubPriors.set(v, (prior = hubPriorOf(v)));
  return prior;
}

function hubPriorOf(v: Vehicle): HubPrior {
  const ids: VehiclePointId[] = ["hubFL", "hubFR", "hubRL", "hubRR"];
  const own = v.hubSigmaMm ** 2;
  // What somebody taped is off for both wheels of an axle alike: by the wheelbase ahead, and by half
  // the track to either side.
  const axleVar = FRONT_AXLE_MM ** 2 + (v.provisional?.wheelbaseSigmaMm ?? 0) ** 2;
  const outVar = CAPS_OUT_MM ** 2 + ((v.provisional?.trackSigmaMm ?? 0) / 2) ** 2;
  const rows = ids.flatMap((id) => [
    { id, axis: "x" },
    { id, axis: "y" },
  ]);
  const front = (id: VehiclePointId): boolean => id === "hubFL" || id === "hubFR";
  const left = (id: VehiclePointId): number => (id === "hubFL" || id === "hubRL" ? 1 : -1);
  return {
    ids,
    covariance: rows.map((a, i) =>
      rows.map((b, j) => {
        const alone = i === j ? own : 0;
        if (a.axis !== b.axis || front(a.id) !== front(b.id)) return alone;
        if (a.axis === "y") return alone + left(a.id) * left(b.id) * outVar;
        return alone + (front(a.id) ? axleVar : 0);
      }),
    ),
  };
}

/**
 * Thrust angle: the direction the rear axle steers, positive to the left of its own normal.
 *
 * thrust = (toe right - toe left) / 2 with toe-in positive: more toe-in on the right steers the car
 * left.
 */
export const thrustAngleRad = (toe: RearToe): number => (toe.rightRad - toe.leftRad) / 2;

/** The words for each datum, as a line on the floor. */
export const DATUM_NAMES: Record<DatumKind, string> = {
  centreline: "centreline",
  "rear-axle-normal": "rear-axle line",
  thrust: "thrust line",
  "side-line": "line through the hubs of its side",
};
