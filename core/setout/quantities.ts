import { normalCdfFast } from "@/core/math/distributions";
import type { Target } from "@/core/sheet";
import type { PlaneQuantity } from "./plane";
import { planHalfWidths } from "./proof";
import type { SetOutSolution } from "./solve";
import { onFloor } from "./on-floor";
import { standsOf } from "./thing";
import { scalarErrors } from "./verdict";

declare module "./on-floor" {
  interface FloorParts {
    /** What the quantities of all but a board ahead are called otherwise. */
    quantityWords: (t: Pick<Target, "kind" | "stands">) => Partial<Record<QuantityId, Words>>;
  }
}

/**
 * One number with limits: how far a target, or a relation of targets, is from what its sheet wants.
 * `error` is actual minus wanted; it is allowed from `lower` to `upper`, mm or rad.
 */
export type Quantity = {
  id: QuantityId;
  /** The other target of a relation, by its id. */
  to?: string;
  unit: "mm" | "rad";
  error: number;
  sigma: number;
  lower: number;
  upper: number;
};

/** What is limited of a target by itself, and of two to each other. */
export type QuantityId =
  | "along"
  | "across"
  | "twist"
  | "height"
  | "pitch"
  | "roll"
  | "spacing"
  | "parallel"
  | "equal-distance";

/** What each is called, and what a positive and a negative error mean. */
type Words = { name: string; more: string; less: string };
export const QUANTITIES: Record<QuantityId, Words> = {
  along: { name: "Distance", more: "too far", less: "too near" },
  across: { name: "Across", more: "left", less: "right" },
  twist: { name: "Twist", more: "to left", less: "to right" },
  height: { name: "Height", more: "high", less: "low" },
  pitch: { name: "Lean", more: "top away", less: "top near" },
  roll: { name: "Level", more: "left high", less: "right high" },
  spacing: { name: "Spacing", more: "too wide", less: "too narrow" },
  parallel: { name: "Parallel", more: "open ahead", less: "open behind" },
  "equal-distance": { name: "To the wheels", more: "left farther", less: "right farther" },
};

/** What a quantity of a target is called, and what a positive and a negative error mean. */
export function quantityWords(id: QuantityId, target: Pick<Target, "kind" | "stands">): Words {
  const usual = target.kind === "board" && standsOf(target) === "ahead";
  return (usual ? null : onFloor().quantityWords(target)[id]) ?? QUANTITIES[id];
}

/** What the plan's quantities of a kind of target are, before anything solves. */
const unknownOf = (s: SetOutSolution): PlaneQuantity[] => {
  const halves = planHalfWidths(s.plan.target);
  return (["along", "across", "twist"] as const).flatMap((id, i) =>
    halves[i] === Infinity ? [] : [{ id, error: 0, half: halves[i]! }],
  );
};

/** A chance of being outside that nobody acts on. */
const NO_RISK = 1e-3;

/**
 * Every quantity of a target that its sheet limits, in the order they are shown. Those of the plan
 * are unknown (error 0, sigma infinite) while nothing solves.
 */
export function quantitiesOf(s: SetOutSolution): Quantity[] {
  return [
    ...(s.plane?.quantities ?? unknownOf(s)).map(({ id, to, error, half }, i): Quantity => ({
      id,
      ...(to ? { to: to.id } : {}),
      unit: id === "twist" || id === "parallel" ? "rad" : "mm",
      error,
      sigma: s.plane ? Math.sqrt(s.plane.covariance[i]![i]!) : Infinity,
      lower: -half,
      upper: half,
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

/**
 * How much of what could still be outside each quantity carries: its own chance of lying outside
 * over the sum of all. What nothing is known of is taken to lie outside as likely as not.
 *
 * @returns shares that add to 1, in the order given; all alike where none could be outside
 */
export function sharesOfRisk(
  quantities: readonly Pick<Quantity, "error" | "sigma" | "lower" | "upper">[],
): number[] {
  const risks = quantities.map(({ error, sigma, lower, upper }) => {
    if (!Number.isFinite(sigma)) return 0.5;
    const s = Math.max(sigma, 1e-12);
    return normalCdfFast((lower - error) / s) + normalCdfFast((error - upper) / s);
  });
  const sum = risks.reduce((a, b) => a + b, 0);
  // Below what a verdict asks for, which of them it would be is of no use to anybody.
  return sum < NO_RISK ? quantities.map(() => 1 / quantities.length) : risks.map((r) => r / sum);
}
