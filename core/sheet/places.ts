import { standsAlong } from "./along";
import type { CautionMoment } from "./parts";
import type { Setup, Sheet, Target } from "./schema";

/** Every target of a sheet, setup after setup. */
export const targetsOf = (sheet: Pick<Sheet, "setups">): Target[] =>
  sheet.setups.flatMap((s) => s.targets);

/** The target that stands before the routine begins; none where a sheet is for the road alone. */
export const firstTarget = (sheet: Pick<Sheet, "setups">): Target => sheet.setups[0]!.targets[0]!;

/** One target by its id; the first where there is none of that name. */
export const targetOf = (sheet: Pick<Sheet, "setups">, id: string): Target =>
  targetsOf(sheet).find((t) => t.id === id) ?? firstTarget(sheet);

/** What a target's place is called. */
export const placeName = (sheet: Pick<Sheet, "setups">, id: string): string =>
  targetOf(sheet, id).name;

/** The setup a target belongs to. */
export const setupOf = (sheet: Pick<Sheet, "setups">, id: string): Setup =>
  sheet.setups.find((s) => s.targets.some((t) => t.id === id)) ?? sheet.setups[0]!;

/**
 * The targets that stand while this one is set out: those before it in its setup, itself, and those
 * that come along with the setup.
 */
export function standingWith(sheet: Pick<Sheet, "setups">, id: string): Target[] {
  const { targets } = setupOf(sheet, id);
  const at = Math.max(
    0,
    targets.findIndex((t) => t.id === id),
  );
  return targets.filter((t, i) => i <= at || standsAlong(t));
}

/** Whether anything of it is squared to the thrust line, which needs rear toe from a printout. */
export const wantsThrust = (sheet: Pick<Sheet, "setups">): boolean =>
  targetsOf(sheet).some((t) => t.datum === "thrust");

/** What protects somebody at a moment, in one line. */
export const cautionAt = (
  sheet: Pick<Sheet, "cautions">,
  when: CautionMoment,
): string | undefined => sheet.cautions.find((c) => c.when === when)?.say;
