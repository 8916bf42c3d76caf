import { wrapAngle } from "@/core/math/linear";
import type { Relation, Setup, Target } from "@/core/sheet";
import type { Adjustment } from "@/core/survey";
import { degToRad } from "@/core/units";
import { sideOf } from "./hands";
import { datumLine, type DatumFrame } from "./plan";

/**
 * What two targets have to be to each other, as known from one adjusted network: how far off, how
 * far it may be, and the derivatives by all unknowns, so that it is judged with everything else.
 */
export type RelationError = {
  id: Relation["kind"];
  /** The other target. */
  to: Target;
  error: number;
  half: number;
  jacobian: Float64Array;
};

/**
 * Every relation of a setup that a target is part of, against those that are proved already.
 *
 * With n the left normal of the datum, s which side a target lies on, C the middle of its cross
 * line, H the middle of the hubs of its own side, all as vectors on the floor:
 *   spacing = s n.(Ca - Cb), parallel = theta_a - theta_b,
 *   equal distance = s n.(Ca - Ha) + s n.(Cb - Hb) (b lies on the other side, where s is -s),
 *   the last two counted left minus right,
 *   and d(n.v) = n.dv - u.v dphi for the datum's own heading phi.
 *
 * @param bodyOf the body that carries a target; null where it does not stand, or is not proved: the one
 *   that is proved last is judged against all of them
 */
export function relationErrors(
  a: Adjustment,
  frame: DatumFrame,
  setup: Pick<Setup, "targets" | "relations"> | undefined,
  own: Target,
  bodyOf: (targetId: string) => string | null,
): RelationError[] {
  return (setup?.relations ?? []).flatMap((r): RelationError[] => {
    if (!r.of.includes(own.id)) return [];
    const [first, second] = r.of.map((id) => setup!.targets.find((t) => t.id === id));
    if (!first || !second) return [];
    const [p, q] = [bodyOf(first.id), bodyOf(second.id)];
    if (p === null || q === null) return [];
    const to = first.id === own.id ? second : first;
    return [{ id: r.kind, to, ...errorOf(a, frame, r, [first, p], [second, q]) }];
  });
}

function errorOf(
  a: Adjustment,
  frame: DatumFrame,
  relation: Relation,
  [first, p]: [Target, string],
  [second, q]: [Target, string],
): Pick<RelationError, "error" | "half" | "jacobian"> {
  const { index, order } = a.joint;
  const jacobian = new Float64Array(order);
  const s = sideOf(first);
  /** Left minus right, whichever of them the sheet names first. */
  const left = (r: Pick<RelationError, "error" | "half" | "jacobian">) =>
    s > 0 ? r : { ...r, error: -r.error, jacobian: r.jacobian.map((v) => -v) };
  const bodyAt = (id: string) => a.bodies.find((b) => b.id === id)!;
  const [one, two] = [bodyAt(p), bodyAt(q)];
  if (relation.kind === "parallel") {
    jacobian[index[p]! + 2]! += 1;
    jacobian[index[q]! + 2]! -= 1;
    const wanted = degToRad(first.placement.twistDeg - second.placement.twistDeg);
    return left({
      error: wrapAngle(one.headingRad - two.headingRad - wanted),
      half: degToRad(relation.toleranceDeg),
      jacobian,
    });
  }
  const line = datumLine(frame, a.points, a.nuisances);
  const [ux, uy] = [Math.cos(line.headingRad), Math.sin(line.headingRad)];
  let [value, turned] = [0, 0];
  const add = (id: string, weight: number): void => {
    const at = a.points.find((x) => x.id === id) ?? bodyAt(id);
    value += weight * (-uy * at.xMm + ux * at.yMm);
    turned -= weight * (ux * at.xMm + uy * at.yMm);
    const row = index[id];
    if (row === undefined) return;
    jacobian[row]! -= weight * uy;
    jacobian[row + 1]! += weight * ux;
  };
  const spacing = relation.kind === "spacing";
  add(p, s);
  add(q, spacing ? -s : s);
  if (!spacing) for (const hub of ["hubFL", "hubFR", "hubRL", "hubRR"]) add(hub, -s / 2);
  // The datum's own direction hangs on the two points that give it.
  const from = a.points.find((x) => x.id === frame.directionFrom)!;
  const end = a.points.find((x) => x.id === frame.directionTo)!;
  const square = (end.xMm - from.xMm) ** 2 + (end.yMm - from.yMm) ** 2;
  const [mx, my] = [-(end.yMm - from.yMm) / square, (end.xMm - from.xMm) / square];
  for (const [id, sign] of [
    [frame.directionTo, 1],
    [frame.directionFrom, -1],
  ] as const) {
    const row = index[id];
    if (row === undefined) continue;
    jacobian[row]! += sign * turned * mx;
    jacobian[row + 1]! += sign * turned * my;
  }
  return relation.kind === "spacing"
    ? {
        error: value - (relation.minMm + relation.maxMm) / 2,
        half: (relation.maxMm - relation.minMm) / 2,
        jacobian,
      }
    : left({ error: value, half: relation.toleranceMm, jacobian });
}
