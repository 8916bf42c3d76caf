import { LEARNED_POINTS, vehiclePoints, type CarSeen } from "@/core/vehicle";
import type { SetOutSolution } from "./solve";

/** Where a set-out has this very car's hubs and badges, beside the book. Null while nothing solves. */
export function carSeen({ adjustment, plan }: SetOutSolution): CarSeen | null {
  if (!adjustment) return null;
  const { index, order, values, covariance } = adjustment.joint;
  const places = vehiclePoints(plan.vehicle);
  const rows = LEARNED_POINTS.flatMap((id) => [index[id]!, index[id]! + 1]);
  const book = LEARNED_POINTS.flatMap((id) => {
    const { xMm, yMm } = places.find((p) => p.id === id)!;
    return [xMm, yMm];
  });
  return {
    mean: rows.map((r, i) => values[r]! - book[i]!),
    covariance: rows.map((r) => rows.map((k) => covariance[r * order + k]!)),
  };
}
