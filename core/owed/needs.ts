import type { OwedPlan } from "./plan";
import { lineName } from "./words";

/** States of the vehicle that one calibration needs and another may forbid. */
export const NEEDS = {
  bonnet: { name: "the bonnet", values: ["open", "shut"] },
  lights: { name: "the lights", values: ["on", "off"] },
  engine: { name: "the engine", values: ["running", "off"] },
  doors: { name: "the doors", values: ["open", "shut"] },
} as const;
export type NeedId = keyof typeof NEEDS;

/** Two calibrations of one plan that want the same thing differently, and when to change it. */
export type NeedConflict = {
  need: NeedId;
  first: string;
  firstWants: string;
  then: string;
  thenWants: string;
  words: string;
};

/**
 * What one calibration of the plan needs and a later one forbids. The plan's own order satisfies
 * both: each change is named between the two it stands between.
 */
export function needConflicts(plan: OwedPlan): NeedConflict[] {
  return (Object.keys(NEEDS) as NeedId[]).flatMap((need): NeedConflict[] => {
    const wanting = plan.steps.filter((s) => s.effort?.needs[need] !== undefined);
    return wanting.slice(1).flatMap((step, i): NeedConflict[] => {
      const before = wanting[i]!;
      const [a, b] = [before.effort!.needs[need]!, step.effort!.needs[need]!];
      if (a === b) return [];
      const { name } = NEEDS[need];
      const words = `${lineName(before.line)} needs ${name} ${a}, ${lineName(step.line).toLowerCase()} needs ${name} ${b}: keep ${name} ${a} for the first, then ${b} before the second.`;
      return [
        { need, first: before.line.id, firstWants: a, then: step.line.id, thenWants: b, words },
      ];
    });
  });
}
