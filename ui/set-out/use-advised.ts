import { useState } from "react";
import { calibrationIn, movesVehicle, targetIn, type JobEvent } from "@/core/job";
import type { Candidate, Judged } from "@/core/setout";
import { useJob } from "../bench/job-store";

/** The reading that was advised, and the last line that concerned whoever takes it. */
type Pin = { after: string; slotId: string; anew: boolean };

/**
 * The reading the advice names. What somebody else reads meanwhile does not take it out of the hand
 * that is already at it: it stays until something is done at this target, or reaches it.
 */
export function useAdvised(judged: Judged | null): Candidate | null {
  const { own, ground, target, me } = useJob();
  const [pin, setPin] = useState<Pin | null>(null);
  const concerns = (e: JobEvent): boolean =>
    e.by.id === me.id ||
    movesVehicle(e.body) ||
    e.body.kind === "strike" ||
    (targetIn(e.body) === target?.id && calibrationIn(e.body) === ground.calibrationId);
  const after = `${target?.id ?? ""}/${own.findLast(concerns)?.id ?? ""}`;
  const named = judged?.next.kind === "read" ? judged.next.candidate : null;
  if (named && pin?.after !== after) setPin({ after, slotId: named.slot.id, anew: named.anew });
  const held =
    pin?.after === after
      ? judged?.candidates.find((c) => c.slot.id === pin.slotId && c.anew === pin.anew)
      : undefined;
  return held ?? named;
}
