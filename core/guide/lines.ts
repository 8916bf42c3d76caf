import { apply, type Pose } from "@/core/camera";
import { learnedPose, type Sighting } from "@/core/surround/learn";
import { poseOf, turnedBy, type FloorPoint, type Mount, type Turned } from "@/core/surround/mount";
import { shownAt, type Seeing } from "@/core/surround/view";

/** How far a line that is drawn into a camera's picture lies from the place on the floor it stands for. */
export type GuideError = { at: FloorPoint; seen: FloorPoint; offMm: [ahead: number, left: number] };

/**
 * A line for the place p stands on the picture where the believed camera sees p; what the driver sees
 * there is the place that the true camera has on that ray: the two poses change places in
 * {@link shownAt}.
 */
const errorsOf = ({ truly, believed }: Seeing, lines: readonly FloorPoint[]): GuideError[] =>
  lines.map((at) => {
    const seen = shownAt({ truly: believed, believed: truly }, at);
    return { at, seen, offMm: [seen[0] - at[0], seen[1] - at[1]] };
  });

/**
 * What a camera that learned from marks draws wrong: its unit believes that the marks lie where the
 * sheet wants them, takes a pose from what it sees, and draws its guide lines by that pose over the
 * picture that the camera truly takes.
 *
 * @param mount the camera as the maker mounts it, and as it truly sits: only the marks are wrong
 * @param marks as they lie, and where the unit takes them to lie, vehicle axes, mm
 * @param lines places on the floor that lines are drawn for
 * @throws NoFloorError where the true camera has no floor on that ray
 */
export function guideErrors(
  mount: Mount,
  marks: readonly Sighting[],
  lines: readonly FloorPoint[],
): GuideError[] {
  const truly = poseOf(mount);
  const { pose: believed } = learnedPose(truly, truly, marks);
  return errorsOf({ truly, believed }, lines);
}

/** A place above the floor, vehicle axes, mm. */
export type SpacePoint = readonly [xMm: number, yMm: number, zMm: number];

/** How far left of and below its own axis a camera sees a place, rad. */
function bearing({ r, t }: Pose, p: SpacePoint): { leftRad: number; downRad: number } {
  const [x, y, z] = apply({ r, t }, [...p]) as [number, number, number];
  return { leftRad: -Math.atan2(x, z), downRad: Math.atan2(y, z) };
}

/**
 * What a camera that learned from a board draws wrong: its unit believes that the board stands where
 * the sheet wants it, and takes its camera for turned by as much as it sees the board elsewhere.
 *
 * @param mount the camera as the maker mounts it, and as it truly sits: only the board is wrong
 * @param board where its centre belongs, and where it is, vehicle axes, mm
 * @throws NoFloorError where the true camera has no floor on that ray
 */
export function boardErrors(
  mount: Mount,
  board: { wanted: SpacePoint; truly: SpacePoint },
  lines: readonly FloorPoint[],
): GuideError[] {
  const truly = poseOf(mount);
  const [wanted, seen] = [bearing(truly, board.wanted), bearing(truly, board.truly)];
  // Seen farther left than it should be: the unit takes its camera for turned right.
  const believed = turnedBy(truly, {
    leftRad: wanted.leftRad - seen.leftRad,
    downRad: wanted.downRad - seen.downRad,
  });
  return errorsOf({ truly, believed }, lines);
}

/** The same of a camera that was turned where it sits since it learned. @throws NoFloorError */
export const turnedErrors = (
  mount: Mount,
  by: Partial<Turned>,
  lines: readonly FloorPoint[],
): GuideError[] => {
  const believed = poseOf(mount);
  return errorsOf({ truly: turnedBy(believed, by), believed }, lines);
};
