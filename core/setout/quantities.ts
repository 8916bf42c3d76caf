import { planHalfWidths } from "./proof";
import type { SetOutSolution } from "./solve";
import { scalarErrors } from "./verdict";

/**
 * One number with limits: how far a target, or a relation of targets, is from what its sheet wants.
 * `error` is actual minus wanted; it is allowed from `lower` to `upper`, mm or rad.
 */
export type Quantity = {
  id: QuantityId;
  unit: "mm" | "rad";
  error: number;
  sigma: number;
  lower: number;
  upper: number;
};

/** What is toleranced of a board. */
export type QuantityId = "along" | "across" | "twist" | "height" | "pitch" | "roll";

/** What each is called, and what a positive and a negative error mean. */
export const QUANTITIES: Record<QuantityId, { name: string; more: string; less: string }> = {
  along: { name: "Distance", more: "too far", less: "too near" },
  across: { name: "Across", more: "left", less: "right" },
  twist: { name: "Twist", more: "to left", less: "to right" },
  height: { name: "Height", more: "high", less: "low" },
  pitch: { name: "Lean", more: "top away", less: "top near" },
  roll: { name: "Level", more: "left high", less: "right high" },
};

const PLAN = ["along", "across", "twist"] as const;

/**
 * Every quantity of a target that its sheet limits, in the order they are shown. Those of the plan
 * are unknown (error 0, sigma infinite) while nothing solves.
 */
export function quantitiesOf(s: SetOutSolution): Quantity[] {
  const halves = planHalfWidths(s.plan.target);
  const errors = s.aim && [s.aim.alongMm, s.aim.acrossMm, s.aim.twistRad];
  return [
    ...PLAN.map((id, i): Quantity => ({
      id,
      unit: id === "twist" ? "rad" : "mm",
      error: errors?.[i] ?? 0,
      sigma: s.aim ? Math.sqrt(s.aim.covariance[i]![i]!) : Infinity,
      lower: -halves[i]!,
      upper: halves[i]!,
    })),
    ...scalarErrors(s).map(({ id, error, sigma, half }): Quantity => ({
      id,
      unit: id === "height" ? "mm" : "rad",
      error,
      sigma,
      lower: -half,
      upper: half,
    })),
  ];
}
