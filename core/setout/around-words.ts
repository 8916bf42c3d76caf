import type { Target } from "@/core/sheet";
import { QUANTITIES, type QuantityId } from "./quantities";
import { standsOf, WAYS_AHEAD, type Around, type Ways } from "./thing";

/** Which way is which of a board that does not stand ahead of the vehicle, and what its errors mean. */
type Words = (typeof QUANTITIES)[QuantityId];

const { x: CAR, y: LEFT, ends: LEFT_ENDS } = WAYS_AHEAD;
const AHEAD = ["forward", "back"] as const;
const SIDE_ENDS = ["rear", "front"] as const;
const turned = <T>([a, b]: readonly [T, T]): readonly [T, T] => [b, a];

export const WAYS_AROUND: Record<Around, Ways> = {
  behind: { x: turned(CAR), y: LEFT, ends: turned(LEFT_ENDS) },
  left: { x: AHEAD, y: CAR, ends: SIDE_ENDS },
  right: { x: AHEAD, y: turned(CAR), ends: turned(SIDE_ENDS) },
};

const swapped = ({ name, more, less }: Words): Words => ({ name, more: less, less: more });
const ALONG: Words = { name: "Along", more: "ahead", less: "behind" };
const LEVEL: Words = { name: "Level", more: "rear high", less: "front high" };

const AROUND: Record<Around, Partial<typeof QUANTITIES>> = {
  behind: { along: swapped(QUANTITIES.along), roll: swapped(QUANTITIES.roll) },
  left: { along: ALONG, across: QUANTITIES.along, roll: LEVEL },
  right: { along: ALONG, across: swapped(QUANTITIES.along), roll: swapped(LEVEL) },
};

/** The same where a kind of target calls it otherwise: a mat is placed by its cross line. */
const OF_MATS: Partial<typeof QUANTITIES> = {
  along: { name: "Cross line", more: "ahead", less: "behind" },
};

/** A floor mark lies along a line and out from it. */
const OF_MARKS: Partial<typeof QUANTITIES> = {
  along: { name: "Along the line", more: "ahead", less: "behind" },
  across: { name: "Beside the line", more: "left", less: "right" },
};

/** What the quantities of a target that is no board ahead are called otherwise than those of one. */
export function quantityWordsOf(
  target: Pick<Target, "kind" | "stands">,
): Partial<typeof QUANTITIES> {
  if (target.kind !== "board") return target.kind === "mat" ? OF_MATS : OF_MARKS;
  const stands = standsOf(target);
  return stands === "ahead" ? {} : AROUND[stands];
}
