import type { RoadPlace } from "./road";

/** Of the sphere that has the earth's mean radius, metres. */
const EARTH_M = 6_371_008.8;
const RAD = Math.PI / 180;

/** East and north of one place from another, metres; good to a millionth over some kilometres. */
export function offset(from: RoadPlace, to: RoadPlace): [number, number] {
  const middle = ((from[1] + to[1]) / 2) * RAD;
  // The short way round where the date line lies between.
  const lon = ((to[0] - from[0] + 540) % 360) - 180;
  return [lon * RAD * EARTH_M * Math.cos(middle), (to[1] - from[1]) * RAD * EARTH_M];
}

export const distanceM = (a: RoadPlace, b: RoadPlace): number => Math.hypot(...offset(a, b));

/** Clockwise from north, 0 to 360 degrees. */
export function headingDeg(from: RoadPlace, to: RoadPlace): number {
  const [east, north] = offset(from, to);
  return (Math.atan2(east, north) / RAD + 360) % 360;
}

/** From one heading to another, to the right positive, -180 to 180 degrees. */
export const turnDeg = (from: number, to: number): number => ((to - from + 540) % 360) - 180;

/** A part of a way on which heading, climb and curve are one. */
export type Piece = {
  lengthM: number;
  headingDeg: number;
  slopeDeg: number;
  /** Of the curve it belongs to; Infinity where it is straight. */
  radiusM: number;
};

/** How far on either side of a corner its curve reaches at most: long straights do not round it. */
const REACH_M = 30;

/**
 * A line of points as pieces. Of a corner between two pieces the radius is that of the circle which
 * turns by its angle over the nearer halves of both; a piece has the tighter one of its two corners.
 *
 * @returns none for a line shorter than a millimetre; points that repeat are passed over
 */
export function piecesOf(points: readonly RoadPlace[]): Piece[] {
  const pieces: Piece[] = [];
  let from = points[0]!;
  for (const to of points.slice(1)) {
    const lengthM = distanceM(from, to);
    if (lengthM < 1e-3) continue;
    const climb = (to[2] ?? 0) - (from[2] ?? 0);
    const known = to[2] !== undefined && from[2] !== undefined;
    pieces.push({
      lengthM,
      headingDeg: headingDeg(from, to),
      slopeDeg: known ? Math.atan2(climb, lengthM) / RAD : 0,
      radiusM: Infinity,
    });
    from = to;
  }
  for (let i = 1; i < pieces.length; i++) {
    const [a, b] = [pieces[i - 1]!, pieces[i]!];
    const angle = Math.abs(turnDeg(a.headingDeg, b.headingDeg)) * RAD;
    if (angle < 1e-6) continue;
    const reach = Math.min(a.lengthM, REACH_M) / 2 + Math.min(b.lengthM, REACH_M) / 2;
    const radiusM = reach / angle;
    a.radiusM = Math.min(a.radiusM, radiusM);
    b.radiusM = Math.min(b.radiusM, radiusM);
  }
  return pieces;
}

/** The same way driven from its end. */
export const backwards = (pieces: readonly Piece[]): Piece[] =>
  pieces.toReversed().map((p) => ({
    ...p,
    headingDeg: (p.headingDeg + 180) % 360,
    slopeDeg: -p.slopeDeg,
  }));
