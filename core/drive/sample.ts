/** One side's line of the lane, as the camera sees it. */
export type LineSeen = "solid" | "broken" | "none";

/**
 * What is known at one moment of a drive. Null is not known: what is asked for and not known does not
 * count.
 */
export type DriveSample = {
  /** Milliseconds since 1970. */
  atMs: number;
  speedMps: number | null;
  lines: { left: LineSeen; right: LineSeen } | null;
  /** Of the curve that is driven, without its sign. */
  radiusM: number | "straight" | null;
  /** To the vehicle ahead. */
  gapM: number | "nobody" | null;
  light: "day" | "dusk" | "night" | null;
  weather: readonly ("rain" | "fog" | "snow" | "wet-road")[] | null;
  /** Between the sun and where the camera looks; 180 where no sun shines. */
  sunOffDeg: number | null;
  keyOn: boolean | null;
};
