/**
 * What the vehicle's computer believes of camera and board, and the error of the board as it
 * stands.
 */
export type Setting = {
  /** Camera in vehicle axes, mm. */
  camera: { xMm: number; yMm: number; zMm: number };
  /**
   * Board centre as the sheet wants it: distance ahead of the camera, to the left of it, height
   * above the floor, mm.
   */
  board: { aheadMm: number; leftMm: number; heightMm: number; widthMm: number };
};

/**
 * How the board stands against the sheet, in the vehicle's own axes: away, to the left, up; turned,
 * leaning, tilted.
 */
export type BoardError = {
  alongMm: number;
  acrossMm: number;
  heightMm: number;
  /** Counter-clockwise seen from above. */
  twistRad: number;
  /** Top away from the car. */
  pitchRad: number;
  /** Vehicle-left end high. */
  rollRad: number;
};
