import { isByHand, standsOf } from "@/core/setout";
import { targetsOf, type BoardSide, type Target } from "@/core/sheet";
import type { JobGround } from "./ground";

/** Whether it is a board that stands about the vehicle itself, not a mat, nor behind a trailer. */
export const isAboutVehicle = (t: Target): boolean => !isByHand(t) && !t.frame;

/**
 * The sides of the vehicle where a job's boards stand, in the order they come: the floor is read at the
 * first with its two feet, and once at each other, since it is another floor.
 */
export const boardSides = (g: Pick<JobGround, "calibrations">): BoardSide[] => [
  ...new Set(
    g.calibrations
      .flatMap((c) => targetsOf(c.sheet))
      .filter(isAboutVehicle)
      .map(standsOf),
  ),
];
