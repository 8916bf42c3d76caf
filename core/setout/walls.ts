import { degToRad } from "@/core/units";

/** A place on the floor in the axes of the vehicle as it was said to stand, mm. */
export type WallPlace = readonly [xMm: number, yMm: number];

/**
 * The walls of the bay about a vehicle that was said to stand in it, and what stands between. `id` is
 * the wall's in its bay, so that a reading keeps its meaning when the vehicle is parked anew.
 */
export type BayWalls = {
  bay: string;
  name: string;
  /** How well an end of a wall is known to be where the bay's drawing has it, mm. */
  sigmaMm: number;
  walls: { id: string; n: number; from: WallPlace; to: WallPlace }[];
  /** Convex, seen from above; from which height up to which, mm. */
  things: { outline: WallPlace[]; fromMm: number; toMm: number }[];
};

/** How near a vehicle is brought to the place it is said to stand at, by marks for its wheels. */
export const PARKED = { planMm: 40, headingRad: degToRad(1) } as const;

/** What a wall is rough by from place to place, mm: plaster, a joint, paint. */
export const ROUGH_MM = 1.5;

/** What slots call the bay where they run to it: it is the other end of their readings. */
export const BAY = "bay";

/** A wall that readings run to. */
export type ReadWall = { id: string; sigmaMm: number; lengthMm: number };

/** A wall that does not stand where it is drawn is off for every reading to it: outward, and turned. */
export const wallCauses = (id: string): { out: string; turn: string } => ({
  out: `wall ${id} out`,
  turn: `wall ${id} turned`,
});

/** The ends of a wall, as points of the bay. */
export const wallEnds = (id: string): { from: string; to: string } => ({
  from: `${id}a`,
  to: `${id}b`,
});

/** How surely a wall's middle lies out from where it is drawn, mm, and how it runs, rad. */
export const wallSigmas = ({
  sigmaMm,
  lengthMm,
}: ReadWall): { outMm: number; turnRad: number } => ({
  outMm: sigmaMm / Math.SQRT2,
  turnRad: (Math.SQRT2 * sigmaMm) / lengthMm,
});
