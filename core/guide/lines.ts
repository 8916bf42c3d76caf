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

/** The same of a camera that was turned where it sits since it learned. @throws NoFloorError */
export const turnedErrors = (
  mount: Mount,
  by: Partial<Turned>,
  lines: readonly FloorPoint[],
): GuideError[] => {
  const believed = poseOf(mount);
  return errorsOf({ truly: turnedBy(believed, by), believed }, lines);
};
