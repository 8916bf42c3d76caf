import type { Adjustment } from "@/core/survey";
import { degToRad } from "@/core/units";
import type { Target } from "@/core/sheet";
import type { PlanAim } from "./aim";
import { isByHand } from "./hands";
import type { DatumFrame, SetOutPlan } from "./plan";
import type { PlanPose } from "./stand";
import { onFloor } from "./on-floor";
import type { RelationError } from "./relations";

declare module "./on-floor" {
  interface FloorParts {
    /** What two targets have to be to each other. */
    relationErrors: (
      a: Adjustment,
      frame: DatumFrame,
      setup: SetOutPlan["setup"],
      own: Target,
      bodyOf: (targetId: string) => string | null,
    ) => RelationError[];
  }
}

/** What is judged together in the floor's plan: a target's own parts, and its relations. */
export type PlaneQuantity = {
  id: "along" | "across" | "twist" | RelationError["id"];
  /** The other target of a relation. */
  to?: Target;
  error: number;
  half: number;
};

/**
 * The limited quantities of the plan with their joint covariance, and what would be left of them
 * were the target where it belongs.
 */
export type Plane = {
  quantities: PlaneQuantity[];
  covariance: number[][];
  /** Derivatives by all unknowns of the adjustment, a row for each quantity. */
  jacobian: Float64Array[];
  /** Errors that the best place of this target alone would leave. */
  nulled: number[];
};

const PARTS = ["along", "across", "twist"] as const;

/**
 * What is judged of a target in the plan, and where it belongs: as its sheet says (`pose` null), or,
 * where hands put it and others have a say, at the best place between all that is asked.
 *
 * @param body the body of its carrier
 * @param bodyOf the body that carries another target of its setup, null where it does not stand
 */
export function planeFor(
  a: Adjustment,
  aimed: PlanAim,
  frame: DatumFrame,
  { target, setup }: Pick<SetOutPlan, "target" | "setup">,
  body: string,
  bodyOf: (targetId: string) => string | null,
): { plane: Plane; pose: PlanPose | null } {
  const relations = setup?.relations?.length
    ? onFloor().relationErrors(a, frame, setup, target, bodyOf)
    : [];
  const plane = planeOf(a, aimed, target, relations);
  if (!isByHand(target))
    return { plane: { ...plane, nulled: plane.quantities.map(() => 0) }, pose: null };
  const at = a.bodies.find((b) => b.id === body)!;
  const { pose, left } = bestPlace(plane, aimed, at, a.joint.index[body]!);
  return { plane: { ...plane, nulled: left }, pose };
}

/** Puts a target's own limits and its relations into one list. */
function planeOf(
  a: Adjustment,
  aim: PlanAim,
  target: Target,
  relations: readonly RelationError[],
): Omit<Plane, "nulled"> {
  const t = target.tolerance;
  const errors = [aim.alongMm, aim.acrossMm, aim.twistRad];
  const halves = [
    t.alongMm,
    t.acrossMm,
    t.twistDeg === undefined ? undefined : degToRad(t.twistDeg),
  ];
  const own = [0, 1, 2].filter((i) => halves[i] !== undefined);
  const quantities = [
    ...own.map((i): PlaneQuantity => ({ id: PARTS[i]!, error: errors[i]!, half: halves[i]! })),
    ...relations.map(({ id, to, error, half }): PlaneQuantity => ({ id, to, error, half })),
  ];
  // A board on a stand has its own three and nothing else: those are worked out already.
  if (relations.length === 0)
    return {
      quantities,
      covariance: own.map((i) => own.map((k) => aim.covariance[i]![k]!)),
      jacobian: own.map((i) => aim.jacobian[i]!),
    };
  const jacobian = [...own.map((i) => aim.jacobian[i]!), ...relations.map((r) => r.jacobian)];
  const { covariance, order } = a.joint;
  const carried = jacobian.map((g) => {
    const out = new Float64Array(order);
    for (let k = 0; k < order; k++)
      if (g[k] !== 0) for (let i = 0; i < order; i++) out[i]! += g[k]! * covariance[i * order + k]!;
    return out;
  });
  return {
    quantities,
    jacobian,
    covariance: jacobian.map((g) =>
      carried.map((c) => {
        let sum = 0;
        for (let i = 0; i < order; i++) if (g[i] !== 0) sum += g[i]! * c[i]!;
        return sum;
      }),
    ),
  };
}

/** How weakly a part that nothing limits is drawn to the sheet's own figure, mm and rad. */
const LOOSE = [300, 300, degToRad(5)] as const;

/**
 * Where a target that others have a say in belongs: the place that makes all its quantities, each as
 * a share of what it may be off, smallest together (least squares). Its own figures decide where
 * nothing else does.
 *
 * @param at the pose of its carrier now
 * @param row the first unknown of its carrier in the adjustment
 * @returns the wanted pose, and the errors that it leaves
 */
function bestPlace(
  plane: Omit<Plane, "nulled">,
  aim: PlanAim,
  at: PlanPose,
  row: number,
): { pose: PlanPose; left: number[] } {
  const rows: { g: number[]; e: number; half: number }[] = [
    ...plane.quantities.map(({ error, half }, i) => ({
      g: [0, 1, 2].map((k) => plane.jacobian[i]![row + k]!),
      e: error,
      half,
    })),
    ...[aim.alongMm, aim.acrossMm, aim.twistRad].map((e, i) => ({
      g: [0, 1, 2].map((k) => aim.jacobian[i]![row + k]!),
      e,
      half: LOOSE[i]!,
    })),
  ];
  // Angles and millimetres are brought to one size: a milliradian counts as a millimetre.
  const size = [1, 1, 1e-3];
  const m = [0, 1, 2].map((i) => [
    ...[0, 1, 2].map((k) =>
      rows.reduce((sum, r) => sum + (r.g[i]! * size[i]! * r.g[k]! * size[k]!) / r.half ** 2, 0),
    ),
    -rows.reduce((sum, r) => sum + (r.g[i]! * size[i]! * r.e) / r.half ** 2, 0),
  ]);
  // The pull to the sheet's figures keeps the three equations apart.
  for (let i = 0; i < 3; i++)
    for (let k = 0; k < 3; k++) {
      if (k === i) continue;
      const f = m[k]![i]! / m[i]![i]!;
      for (let j = i; j < 4; j++) m[k]![j]! -= f * m[i]![j]!;
    }
  const by = [0, 1, 2].map((i) => (m[i]![3]! / m[i]![i]!) * size[i]!);
  return {
    pose: {
      xMm: at.xMm + by[0]!,
      yMm: at.yMm + by[1]!,
      headingRad: at.headingRad + by[2]!,
    },
    left: rows
      .slice(0, plane.quantities.length)
      .map((r) => r.e + r.g.reduce((sum, g, k) => sum + g * by[k]!, 0)),
  };
}
