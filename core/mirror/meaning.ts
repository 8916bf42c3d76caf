import { aimShowing, shownAt, type Aim, type Place, type Shown } from "./view";

/**
 * What a wrong aim does to the driver: which part of the lane beside the trailer the display no longer
 * shows, and where its line for the trailer's end comes to lie.
 */
export type MirrorScene = {
  camera: Place;
  /** The floor mark where the sheet has it. */
  mark: Place;
  divisionRad: number;
  wanted: Shown;
  /** Divisions from the middle to the edges of the display. */
  most: number;
  /** The line on the ground that the driver watches: along the trailer's flank, mm to vehicle left. */
  flankMm: number;
  /** Where the trailer ends, mm ahead of the rear axle (less than nothing: behind). */
  trailerEndMm: number;
};

export type MirrorMeaning = {
  /** How much more of the ground beside the trailer is blind than if the mark lay right, mm. */
  blindMm: number;
  /** How far the line for the trailer's end lies from its end on the ground, mm; + too far behind. */
  endLineMm: number;
  /** How the camera then looks: heading and down, against how it should, rad. */
  headingRad: number;
  downRad: number;
};

/**
 * The camera is aimed at a mark that lies `offMm` from its place; the tool and the driver believe it
 * lies right. Worked out from the projection itself, not by rule of thumb.
 *
 * @param offMm how far the mark lies from where the sheet has it: ahead, and to vehicle left
 * @throws AimError where no aim shows the mark
 */
export function meaningOf(
  scene: MirrorScene,
  offMm: { ahead: number; left: number },
): MirrorMeaning {
  const { camera, mark, wanted, divisionRad } = scene;
  const right = aimShowing(camera, mark, wanted, divisionRad);
  const truly = { ...mark, xMm: mark.xMm + offMm.ahead, yMm: mark.yMm + offMm.left };
  const aimed = aimShowing(camera, truly, wanted, divisionRad);
  // The display draws its line where the trailer's end would stand if it were aimed as it believes.
  const end = { xMm: scene.trailerEndMm, yMm: scene.flankMm, zMm: 0 };
  const drawn = shownAt(camera, right, end, divisionRad);
  const seen = drawn && groundAt(camera, aimed, drawn, divisionRad);
  return {
    blindMm: nearestSeen(scene, aimed) - nearestSeen(scene, right),
    endLineMm: seen ? scene.trailerEndMm - seen.xMm : NaN,
    headingRad: aimed.headingRad - right.headingRad,
    downRad: aimed.downRad - right.downRad,
  };
}

/** The place on the ground that stands at a point of the display; null where it shows the sky. */
export function groundAt(
  camera: Place,
  { headingRad, downRad }: Aim,
  { right, up }: Shown,
  divisionRad: number,
): Place | null {
  const t = Math.tan(divisionRad);
  const [a, b] = [right * t, up * t];
  const [ch, sh] = [Math.cos(headingRad), Math.sin(headingRad)];
  const [cd, sd] = [Math.cos(downRad), Math.sin(downRad)];
  const level = cd + b * sd;
  const rise = b * cd - sd;
  if (rise >= 0) return null;
  const far = -camera.zMm / rise;
  return {
    xMm: camera.xMm + far * (level * ch - a * sh),
    yMm: camera.yMm + far * (level * sh + a * ch),
    zMm: 0,
  };
}

/** Beyond this nothing beside a trailer matters, mm. */
const FAR_MM = 60_000;

/**
 * How far behind the camera the ground along the flank first comes into the picture, mm. It enters
 * once, over the lower edge or the inner one, and stays: the nearest place that is seen is found by
 * halving.
 */
function nearestSeen({ camera, divisionRad, most, flankMm }: MirrorScene, aim: Aim): number {
  const isSeen = (behindMm: number): boolean => {
    const at = shownAt(
      camera,
      aim,
      { xMm: camera.xMm - behindMm, yMm: flankMm, zMm: 0 },
      divisionRad,
    );
    return at !== null && Math.abs(at.right) <= most && at.up >= -most;
  };
  if (!isSeen(FAR_MM)) return FAR_MM;
  let [blind, seen] = [0, FAR_MM];
  while (seen - blind > 0.1) {
    const middle = (blind + seen) / 2;
    if (isSeen(middle)) seen = middle;
    else blind = middle;
  }
  return seen;
}
