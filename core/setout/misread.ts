import { centredProbability } from "./chance";
import type { Hidden, Weighed } from "./reliability";
import type { SetOutSolution } from "./solve";

/**
 * People misread now and then, by more than any instrument's uncertainty. Where a reading stands out
 * among the others, though not by enough to be named a slip, the chance of "set" counts with both:
 * that it is one of the many good ones, and that it is one of the few that are wrong (a mixture of
 * contaminated normals, Tukey 1960; one reading at a time).
 */
export type Doubted = {
  /** Chance that every quantity of the plan is inside. */
  chance: number;
  /** The readings that cost it, the dearest first. */
  doubts: Hidden[];
};

/** One reading in fifty is misread: our assumption, on the side of caution. */
const MISREAD = 0.02;
/** By so many of its own standard deviations, as a standard deviation: 14 mm of a tape. */
const FAR = 8;
/** What cannot cost more than this is not worked out. */
const NOTHING = 2e-5;

/**
 * The chance that the plan's quantities are inside, counting with one reading that may be misread.
 *
 * Left out, a reading with residual v (adjusted less observed) and redundancy r takes the unknowns to
 * x + Q a v / (sigma^2 r), known as well as Q + Q a a' Q / (sigma^2 r) (Cook & Weisberg 1982): no
 * other adjustment is needed.
 *
 * @param hidden what could be misread, as {@link reliabilityOf} lists it
 */
export function countingMisreads(s: SetOutSolution, hidden: readonly Hidden[]): Doubted {
  const plane = s.plane!;
  const { residuals, nuisances } = s.adjustment!;
  const results = new Map(residuals.map((r) => [r.id, r]));
  for (const n of nuisances) if (n.result) results.set(n.id, n.result);
  const error = plane.quantities.map((q) => q.error);
  const half = plane.quantities.map((q) => q.half);
  const good = centredProbability(error, plane.covariance, half);
  let [weights, sum] = [1, good];
  const costs: { of: Hidden; cost: number }[] = [];
  for (const h of hidden) {
    const w = results.get(h.id)?.w;
    if (!h.plan || w === undefined) continue;
    const left = h.sigma ** 2 - h.plan.variance;
    if (left <= 0) continue;
    // How far it is from what all others say of it, and how far a misread one would be.
    const apart = h.sigma ** 2 / Math.sqrt(left);
    const far = Math.hypot(apart, FAR * h.sigma);
    const odds = ((MISREAD * apart) / far) * Math.exp(0.5 * w * w * (1 - (apart / far) ** 2));
    if (odds < NOTHING) continue;
    const moved = plane.jacobian.map((row) =>
      row.reduce((all, v, k) => all + v * h.plan!.with[k]!, 0),
    );
    const without = centredProbability(
      error.map((e, i) => e + (moved[i]! * w) / Math.sqrt(left)),
      plane.covariance.map((row, i) => row.map((v, k) => v + (moved[i]! * moved[k]!) / left)),
      half,
      "rank",
    );
    weights += odds;
    sum += odds * without;
    costs.push({ of: h, cost: odds * (good - without) });
  }
  return {
    chance: Math.min(good, sum / weights),
    doubts: costs
      .filter((c) => c.cost > 0)
      .sort((a, b) => b.cost - a.cost)
      .map((c) => c.of),
  };
}

/** How many times too far it is taken to carry, so that what shortens it can be told apart. */
const AS_TOO_FAR = 3;

/**
 * A doubted reading as it is weighed where readings are chosen: its room so small that a slip that
 * hides in it would carry too far.
 *
 * @param ratio how far it carries with all the room there is, as `carries` has it
 */
export function asTooFar(w: Weighed, ratio: number): Weighed {
  const by = Math.min(1, ratio / AS_TOO_FAR);
  return { ...w, room: { plan: w.room.plan.map((r) => r * by), height: w.room.height * by } };
}
