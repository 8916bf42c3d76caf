/** Standard uncertainty of one instrument: base + perMetre * length (mm), or an angle (rad). */
export type Instrument = {
  id: string;
  name: string;
  kind:
    | "tape"
    | "laser"
    | "rule"
    | "scale"
    | "inclinometer"
    | "bubble"
    | "plumb"
    | "range"
    | "wheel-laser"
    | "beam-laser"
    | "mirror"
    | "rig"
    | "floor-laser";
  sigmaMm: number;
  sigmaMmPerM: number;
  sigmaRad: number;
  /** What one division of a bubble is worth, radians. */
  divisionRad?: number | undefined;
  /** Whether it posts what it shows while something is turned, so that it can be watched from afar. */
  live?: "no" | "posts" | undefined;
};
