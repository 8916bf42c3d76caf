import type { Sheet, Target } from "@/core/sheet";
import { isByHand } from "./hands";
import { lacksReference, targetOn } from "./reference";
import { boosterFor, type Stand } from "./stand";

/**
 * The stands that carry all that a sheet has standing first in its setups; null where nothing of it
 * stands on a stand.
 */
export function standsFor<S extends Stand>(sheet: Sheet, stands: readonly S[]): S[] | null {
  const own = sheet.setups.map((s) => s.targets[0]!).filter((t) => !isByHand(t));
  return own.length === 0 ? null : stands.filter((s) => own.every((t) => carries(s, t)));
}

/** Whether a stand can carry a target: high and low enough, and it says of itself what is asked. */
export const carries = (stand: Stand, target: Target): boolean =>
  !lacksReference(target, stand) &&
  boosterFor(stand, targetOn(target, stand).placement.heightMm) !== undefined;
