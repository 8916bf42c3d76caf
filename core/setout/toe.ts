import { seesToe, TOE_LEFT, TOE_RIGHT } from "./causes";
import type { SetOutSolution } from "./solve";

/**
 * Rear toe as light from the wheels themselves showed it in this job, toe-in positive, and the larger
 * standard deviation of the two, rad. Null where nothing of that kind was read.
 */
export function toeSeen(s: SetOutSolution): { left: number; right: number; sigma: number } | null {
  const { rearToe } = s.plan;
  const seen = s.readings.some((r) => {
    const kind = s.slots.find((x) => x.id === r.slotId)?.instrument;
    return kind !== undefined && seesToe(kind);
  });
  const of = (id: string) => s.adjustment?.nuisances.find((n) => n.id === id);
  const [left, right] = [of(TOE_LEFT), of(TOE_RIGHT)];
  if (!rearToe || !seen || !left || !right) return null;
  return {
    left: rearToe.leftRad + left.value,
    right: rearToe.rightRad + right.value,
    sigma: Math.max(left.sigma, right.sigma),
  };
}
