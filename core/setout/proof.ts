import type { Target } from "@/core/sheet";
import { degToRad } from "@/core/units";
import type { SetOutPlan } from "./plan";

/** The toleranced quantities of the plan, in the order of the aim covariance. */
export type PlanPart = "along" | "across" | "twist";
const PLAN_PARTS: readonly PlanPart[] = ["along", "across", "twist"];

/**
 * Half-widths of the plan tolerances: along mm, across mm, twist rad; Infinity where there is none.
 */
export const planHalfWidths = ({ tolerance: t }: Target): [number, number, number] => [
  t.alongMm ?? Infinity,
  t.acrossMm ?? Infinity,
  t.twistDeg === undefined ? Infinity : degToRad(t.twistDeg),
];

/**
 * The same as far as proof goes: what only a relation limits must be seen by a reading as well
 * after it was moved.
 */
export const proofHalfWidths = ({
  target,
  setup,
}: Pick<SetOutPlan, "target" | "setup">): [number, number, number] => {
  const halves = planHalfWidths(target);
  for (const r of setup?.relations ?? []) {
    if (!r.of.includes(target.id)) continue;
    if (r.kind === "parallel") halves[2] = Math.min(halves[2], degToRad(r.toleranceDeg));
    else
      halves[1] = Math.min(
        halves[1],
        r.kind === "spacing" ? (r.maxMm - r.minMm) / 2 : r.toleranceMm,
      );
  }
  return halves;
};

/** Variance that disturbances have added to each part since readings last proved it. */
export type Debt = readonly [number, number, number];
export const NO_DEBT: Debt = [0, 0, 0];

/**
 * A part owes proof once disturbances may have shifted it by a sixth of its tolerance (one standard
 * deviation).
 */
const OWES_FROM = 1 / 6;
/**
 * Readings prove a part when they remove at least this share of the variance it had before them,
 * all that earlier readings say of it included.
 */
const PROVES_FROM = 0.2;

/** The debt after one more disturbance. */
export const addDebt = (debt: Debt, planMm: number, headingRad: number): Debt => [
  debt[0] + planMm * planMm,
  debt[1] + planMm * planMm,
  debt[2] + headingRad * headingRad,
];

/**
 * The debt that readings leave standing.
 *
 * A move's own arithmetic may say where the board should be, with a believable uncertainty; yet a
 * record that is to stand up in an argument says "measured", not "moved by so much". So every part
 * that was shifted noticeably must be seen by a reading afterwards. Parts that were hardly touched
 * need no second look.
 *
 * @param before aim variances (along, across, twist) before the readings of this epoch
 * @param after the same with them
 */
export const payDebt = (debt: Debt, before: readonly number[], after: readonly number[]): Debt => {
  const pay = (i: 0 | 1 | 2): number => (1 - after[i]! / before[i]! >= PROVES_FROM ? 0 : debt[i]);
  return [pay(0), pay(1), pay(2)];
};

/** The parts that still owe a reading. */
export const owingParts = (debt: Debt, plan: Pick<SetOutPlan, "target" | "setup">): PlanPart[] => {
  const halves = proofHalfWidths(plan);
  return PLAN_PARTS.filter((_, i) => Math.sqrt(debt[i]!) > OWES_FROM * halves[i]!);
};

/** Place of a part in the aim covariance. */
export const partIndex = (part: PlanPart): number => PLAN_PARTS.indexOf(part);
