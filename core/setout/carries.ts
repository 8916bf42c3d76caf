import type { Target } from "@/core/sheet";
import { lacksReference, targetOn } from "./reference";
import { boosterFor, type Stand } from "./stand";

/** Whether a stand can carry a target: high and low enough, and it says of itself what is asked. */
export const carries = (stand: Stand, target: Target): boolean =>
  !lacksReference(target, stand) &&
  boosterFor(stand, targetOn(target, stand).placement.heightMm) !== undefined;
