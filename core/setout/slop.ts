import { invertSpd } from "@/core/math/linear";
import { predictReadings, type Reading } from "@/core/survey";
import {
  hubCovariance,
  markPoint,
  vehiclePoints,
  type Vehicle,
  type VehiclePointId,
} from "@/core/vehicle";
import { centredProbability } from "./chance";
import type { SetOutSolution } from "./solve";
import { insideChance, scalarErrors, type Verdict } from "./verdict";

/**
 * How far one reading, or one mark of the vehicle, may be off from what it is taken for before the
 * chance falls below what "set" asks: where to be careful, and where not.
 */
export type Slop = {
  /** The reading, or the vehicle point with the way it is off. */
  id: string;
  of: "reading" | "mark";
  name: string;
  unit: "mm" | "rad";
  /** The most it may be off to the worse side; Infinity where it hardly matters. */
  most: number;
  /** To which side that is: the sign of what it shows too much, or lies too far ahead or to the left. */
  side: 1 | -1;
};

const MARK_NAMES = {
  hubFL: "front left hub",
  hubFR: "front right hub",
  hubRL: "rear left hub",
  hubRR: "rear right hub",
  badgeF: "front badge",
  badgeR: "rear badge",
} as const;

const markName = ({ centreMarks = [] }: Vehicle, id: VehiclePointId): string =>
  id in MARK_NAMES
    ? MARK_NAMES[id as keyof typeof MARK_NAMES]
    : (centreMarks.find((m) => markPoint(m.id) === id)?.name ?? id);

/** Nothing that is off by more than this is called careless any more: mm, rad. */
const ANYTHING = { mm: 100, rad: 0.1 };

/** What being off by one unit does: to the quantities of the plan, and to the numbers beside it. */
type Lever = { plan: number[]; scalars: number[] };

/**
 * Lists them, the most delicate first. Where the board is not set yet it is asked as if it were
 * nulled: what care the readings so far would need then. Empty while not even that would do.
 *
 * An observation that is off by d shifts the unknowns by P g d / s^2, with P their covariance, g its
 * gradient, s its standard deviation; a mark the book has d beside its place by P W e d, with W the
 * inverse of its prior.
 */
export function slopsOf(s: SetOutSolution, verdict: Verdict): Slop[] {
  const { adjustment: a, plane } = s;
  const { setChance } = s.plan.thresholds;
  if (!a || !plane) return [];
  const asIs = verdict.chance >= setChance;
  if (!asIs && verdict.chanceIfNulled < setChance) return [];
  const scalars = scalarErrors(s);
  const halves = plane.quantities.map((q) => q.half);
  const start = asIs ? plane.quantities.map((q) => q.error) : plane.nulled;
  const chanceAt = (lever: Lever, d: number): number =>
    scalars.reduce(
      (p, q, i) => p * insideChance((asIs ? q.error : 0) - lever.scalars[i]! * d, q.sigma, q.half),
      centredProbability(
        start.map((e, i) => e - lever.plan[i]! * d),
        plane.covariance,
        halves,
      ),
    );
  /** How far it may go to one side. */
  const reach = (lever: Lever, side: 1 | -1, far: number): number => {
    if (chanceAt(lever, side * far) >= setChance) return Infinity;
    let [low, high] = [0, far];
    while (high - low > 1e-4 * far) {
      const mid = (low + high) / 2;
      if (chanceAt(lever, side * mid) >= setChance) low = mid;
      else high = mid;
    }
    return low;
  };
  const slop = (id: string, of: Slop["of"], name: string, unit: Slop["unit"], lever: Lever) => {
    const [plus, minus] = [reach(lever, 1, ANYTHING[unit]), reach(lever, -1, ANYTHING[unit])];
    return [
      { id, of, name, unit, most: Math.min(plus, minus), side: plus <= minus ? 1 : -1 } as Slop,
    ];
  };

  const { covariance, order, index } = a.joint;
  /** What a shift of P v, per unit of v, does to the quantities. */
  const onPlan = (v: Float64Array): number[] => {
    const x = new Float64Array(order);
    for (let k = 0; k < order; k++)
      if (v[k] !== 0) for (let i = 0; i < order; i++) x[i]! += covariance[k * order + i]! * v[k]!;
    return plane.jacobian.map((row) => row.reduce((sum, g, i) => sum + g * x[i]!, 0));
  };
  const none = scalars.map(() => 0);

  const own = new Map(s.readings.filter((r) => r.state === "counts").map((r) => [r.id, r]));
  const inNetwork = s.network.observations.filter(
    (o): o is Reading => own.has(o.id) && o.kind !== "coincide" && o.kind !== "carried",
  );
  const levers = new Map<string, Lever>();
  predictReadings(s.network, a, inNetwork).forEach(({ gradient }, i) => {
    const { id, sigma } = inNetwork[i]!;
    levers.set(id, { plan: onPlan(gradient.map((g) => g / sigma ** 2)), scalars: none });
  });
  const readings = [...own.values()].flatMap((r): Slop[] => {
    const slot = s.slots.find((x) => x.id === r.slotId);
    if (!slot) return [];
    const { in: part } = slot.observes;
    const lever = levers.get(r.id) ?? { plan: plane.quantities.map(() => 0), scalars: none };
    if (part !== "plan" && part !== "rail")
      lever.scalars = scalars.map((q) =>
        q.id === part ? s.scalars[part].variance / r.sigma ** 2 : 0,
      );
    const unit = slot.quantity.dimension === "angle" ? "rad" : "mm";
    return slop(r.id, "reading", slot.name, unit, lever);
  });

  return [...readings, ...markSlops()].sort((x, y) => x.most - y.most);

  /** Marks that readings were taken of, or that the line of the sheet goes through. */
  function markSlops(): Slop[] {
    const { vehicle } = s.plan;
    const hubs = hubCovariance(vehicle);
    const weight = invertSpd(hubs.covariance);
    return vehiclePoints(vehicle).flatMap((p): Slop[] => {
      const row = index[p.id];
      if (row === undefined) return [];
      return ([0, 1] as const).flatMap((axis): Slop[] => {
        const v = new Float64Array(order);
        const at = hubs.ids.indexOf(p.id);
        if (at >= 0 && weight)
          hubs.ids.forEach((id, k) => {
            for (const other of [0, 1])
              v[index[id]! + other] = weight[2 * k + other]![2 * at + axis]!;
          });
        else v[row + axis] = 1 / p.sigmaMm ** 2;
        const plan = onPlan(v);
        // A mark that moves nothing by a thousandth of itself has no say.
        if (plan.every((x) => Math.abs(x) < 1e-3)) return [];
        const name = `${markName(vehicle, p.id)}, ${axis === 0 ? "fore and aft" : "to the side"}`;
        return slop(`${p.id}-${axis === 0 ? "x" : "y"}`, "mark", name, "mm", {
          plan,
          scalars: none,
        });
      });
    });
  }
}
