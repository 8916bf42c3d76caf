import { isByHand, thingOf } from "@/core/setout";
import { setupOf, standsAlong, type Target } from "@/core/sheet";
import { useJob } from "../bench/job-store";

/** The targets that are there together and can be turned to without bringing anything. */
export function useTogether(): Target[] {
  const { ground, target } = useJob();
  if (!target) return [];
  const all = setupOf(ground.sheet, target.id).targets;
  return all.filter((t, i) => i === 0 || standsAlong(t)).length > 1 && standsAlong(target)
    ? all.filter((t) => standsAlong(t))
    : [];
}

/** A target as it is spoken of: a mat by its name, a board as the board. */
export const called = (target: Target | null): string =>
  target && (isByHand(target) || target.beam)
    ? target.name.charAt(0).toUpperCase() + target.name.slice(1)
    : `The ${target ? thingOf(target).thing : "board"}`;
