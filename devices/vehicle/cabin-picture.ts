import type { MatBody, MatShape } from "../bench/mat-sim";
import { turnRows, type CabinView, type EyeId } from "./cabin-view";

/** A part of the floor as a picture: its middle, its scale, and its size; vehicle ahead is up. */
export type PictureArea = {
  middle: readonly [xMm: number, yMm: number];
  mmPerPixel: number;
  width: number;
  height: number;
};

type Colour = readonly [number, number, number];
const FLOOR: Colour = [150, 147, 140];
const JOINT: Colour = [132, 129, 122];
const LINE: Colour = [226, 222, 210];
const LIGHT: Colour = [236, 236, 232];
const DARK: Colour = [34, 36, 40];
const BODY: Colour = [24, 26, 30];
const NOTHING: Colour = [58, 58, 60];

/** Width of a painted line, mm. */
export const LINE_MM = 50;

const near = (v: number, every: number, half: number): boolean => {
  const r = v - Math.round(v / every) * every;
  return r < half && r > -half;
};

type Laid = { x: number; y: number; c: number; s: number; shape: MatShape };
const laid = ({ body, shape }: { body: MatBody; shape: MatShape }): Laid => ({
  x: body.at[0],
  y: body.at[1],
  c: body.way[0],
  s: body.way[1],
  shape,
});

/** What lies at a place of the floor: mats with their squares and cross line, painted lines, floor. */
function colourAt(mats: readonly Laid[], x: number, y: number, joints: boolean): Colour {
  for (const m of mats) {
    const [dx, dy] = [x - m.x, y - m.y];
    const ahead = m.c * dx + m.s * dy;
    const left = m.c * dy - m.s * dx;
    const rear = m.shape.aheadMm - m.shape.lengthMm;
    const half = m.shape.widthMm / 2;
    if (ahead > m.shape.aheadMm || ahead < rear || left > half || left < -half) continue;
    if (ahead < 25 && ahead > -25) return DARK;
    const edge = half - Math.abs(left);
    if (edge < 50) return DARK;
    const square = Math.floor(ahead / 300) + Math.floor((left + half) / 300);
    return (square & 1) === 0 ? LIGHT : DARK;
  }
  if (near(y - 1250, 2500, LINE_MM / 2) || near(x - 400, 1500, LINE_MM / 2)) return LINE;
  return joints && (near(x, 500, 4) || near(y, 500, 4)) ? JOINT : FLOOR;
}

/** What carries a ray as believed into the ray as it truly lies, and where the two begin. */
function eyeFor(
  { eyes }: CabinView,
  id: EyeId,
): { m: number[]; from: readonly number[]; believed: readonly number[] } {
  const { truly, believed } = eyes[id];
  const [t, b] = [turnRows(truly), turnRows(believed)];
  const m = [0, 1, 2].flatMap((i) =>
    [0, 1, 2].map((j) => [0, 1, 2].reduce((sum, k) => sum + t[3 * i + k]! * b[3 * j + k]!, 0)),
  );
  return { m, from: truly.at, believed: believed.at };
}

/**
 * The picture the display shows: for every pixel the unit asks the camera whose part it is, along the
 * ray by which it believes the camera to see that place of the floor; what the camera truly sees
 * there is what is drawn.
 *
 * @returns RGBA, row by row
 */
export function drawCabinView(view: CabinView, area: PictureArea): Uint8ClampedArray<ArrayBuffer> {
  const { width, height, mmPerPixel, middle } = area;
  const { car } = view;
  const mats = view.mats.map(laid);
  // Thinner than two pixels they would only shimmer.
  const joints = mmPerPixel < 4;
  const out = new Uint8ClampedArray(width * height * 4);
  const eyes = {
    front: eyeFor(view, "front"),
    left: eyeFor(view, "left"),
    rear: eyeFor(view, "rear"),
    right: eyeFor(view, "right"),
  };
  const [midX, midY] = [(car.frontMm + car.rearMm) / 2, (car.leftMm + car.rightMm) / 2];
  for (let v = 0; v < height; v++) {
    const x = middle[0] + (height / 2 - v - 0.5) * mmPerPixel;
    for (let u = 0; u < width; u++) {
      const y = middle[1] + (width / 2 - u - 0.5) * mmPerPixel;
      const ahead = Math.max(x - car.frontMm, car.rearMm - x);
      const beside = Math.max(y - car.leftMm, car.rightMm - y);
      let colour: Colour = BODY;
      if (ahead > 0 || beside > 0) {
        const id: EyeId =
          ahead > beside ? (x > midX ? "front" : "rear") : y > midY ? "left" : "right";
        const { m, from, believed } = eyes[id];
        const [gx, gy, gz] = [x - believed[0]!, y - believed[1]!, -believed[2]!];
        const dz = m[6]! * gx + m[7]! * gy + m[8]! * gz;
        if (dz >= 0) colour = NOTHING;
        else {
          const k = -from[2]! / dz;
          colour = colourAt(
            mats,
            from[0]! + k * (m[0]! * gx + m[1]! * gy + m[2]! * gz),
            from[1]! + k * (m[3]! * gx + m[4]! * gy + m[5]! * gz),
            joints,
          );
        }
      }
      const at = 4 * (v * width + u);
      out[at] = colour[0];
      out[at + 1] = colour[1];
      out[at + 2] = colour[2];
      out[at + 3] = 255;
    }
  }
  return out;
}
