import { DETECTABLE, predictReadings, type Reading } from "@/core/survey";
import { seesToe, TOE_LEFT, TOE_RIGHT } from "./causes";
import type { SetOutSolution } from "./solve";

/**
 * External reliability (Baarda 1968): a slip that the readings could just hide must not carry any
 * limited quantity out of its tolerance. "Just hide" is alpha 0.1 % and power 80 %.
 */

/** What could be wrong and hide: one reading, or a seating that several readings went through. */
export type Hidden = {
  /** The reading's own id, or the cause's name. */
  id: string;
  /** The readings it is in. */
  readings: readonly string[];
  sigma: number;
  /** Of the plan: covariance of every unknown with what the reading shows, and its own variance. */
  plan: { with: Float64Array; variance: number } | null;
  /** Of the height: nothing but the reading itself. */
  height: boolean;
};

/** One more reading, as far as it would find hidden slips. */
export type Witness =
  /** `with`: covariance of every unknown with what it would show, and `variance` its own. */
  | { of: "plan"; gradient: Float64Array; with: Float64Array; variance: number; sigma: number }
  | { of: "height"; sigma: number };

/**
 * How far each quantity may still go before it is out: the half-width less the present error, and a
 * share of what is not known of it.
 */
type Room = { plan: number[]; height: number };

/** Everything that could be wrong of a target's readings, prepared to be weighed. */
export type Reliability = { hidden: Hidden[]; room: Room };

/** A quantity that is nearly out leaves no room to speak of, but never none. */
const LEAST_ROOM = 1e-9;
/**
 * Of its own standard deviation this much is taken off the room beside a slip: the two may go the same
 * way.
 */
const BESIDE = 0.3;
/** What nothing at all would show counts as this many times too much. */
const UNBOUNDED = 1e6;

/** Lists what could be wrong of a target's readings. Empty while nothing solves. */
export function reliabilityOf(
  s: SetOutSolution,
  height: { error: number; sigma: number; half: number } | null,
): Reliability {
  const { adjustment: a, plane, network } = s;
  if (!a || !plane) return { hidden: [], room: { plan: [], height: Infinity } };
  const own = new Set(s.readings.map((r) => r.id));
  const readings = network.observations.filter(
    (o): o is Reading => own.has(o.id) && o.kind !== "coincide" && o.kind !== "carried",
  );
  const { covariance, order, index } = a.joint;
  const hidden: Hidden[] = predictReadings(network, a, readings).map(({ gradient: g }, i) => {
    const q = new Float64Array(order);
    for (let k = 0; k < order; k++)
      if (g[k] !== 0) for (let j = 0; j < order; j++) q[j]! += covariance[j * order + k]! * g[k]!;
    let variance = 0;
    for (let k = 0; k < order; k++) variance += g[k]! * q[k]!;
    const { id, sigma } = readings[i]!;
    return { id, readings: [id], sigma, plan: { with: q, variance }, height: false };
  });
  const column = (id: string): { with: Float64Array; variance: number } => {
    const row = index[id]!;
    const q = new Float64Array(order);
    for (let j = 0; j < order; j++) q[j] = covariance[j * order + row]!;
    return { with: q, variance: q[row]! };
  };
  const through = (cause: string): string[] =>
    readings.flatMap((r) =>
      "causes" in r && r.causes?.some((c) => c.cause === cause) ? [r.id] : [],
    );
  const onThrust = s.frame.turnBy !== undefined;
  for (const n of network.nuisances ?? []) {
    const stale = onThrust && (n.id === TOE_LEFT || n.id === TOE_RIGHT);
    // A printout is only doubted where something at hand could tell.
    if (!n.maySlip && !(stale && s.slots.some((x) => seesToe(x.instrument)))) continue;
    const by = through(n.id);
    if (n.maySlip && by.length === 0) continue;
    hidden.push({ id: n.id, readings: by, sigma: n.sigma!, plan: column(n.id), height: false });
  }
  if (height)
    for (const r of s.readings) {
      const slot = s.slots.find((x) => x.id === r.slotId);
      if (slot?.observes.in !== "height" || r.state !== "counts") continue;
      hidden.push({ id: r.id, readings: [r.id], sigma: r.sigma, plan: null, height: true });
    }
  return {
    hidden,
    room: {
      plan: plane.quantities.map((q, i) =>
        roomOf(q.half, q.error, Math.sqrt(plane.covariance[i]![i]!)),
      ),
      height: height ? roomOf(height.half, height.error, height.sigma) : Infinity,
    },
  };
}

const roomOf = (half: number, error: number, sigma: number): number =>
  Math.max(LEAST_ROOM, half - Math.abs(error) - BESIDE * sigma);

/**
 * How many times too far a hidden slip of this kind could carry the quantity it moves most: above 1
 * it could carry it out of its tolerance.
 *
 * A reading l with residual variance sigma^2 r hides a slip of 4.13 sigma / sqrt(r), which shifts
 * the unknowns by Q a / sigma^2 times as much.
 *
 * @param witness one more reading, as if it had been taken
 */
export function carries(
  { hidden: h, room, s, heightVariance }: Weighed,
  witness: Witness | null = null,
): number {
  if (h.height) {
    if (room.height === Infinity) return 0;
    let weight = 1 / heightVariance;
    if (witness?.of === "height") weight += 1 / witness.sigma ** 2;
    const redundancy = 1 - 1 / h.sigma ** 2 / weight;
    return bounded(
      DETECTABLE / (h.sigma * weight * Math.sqrt(Math.max(0, redundancy))) / room.height,
    );
  }
  const { with: q, variance } = h.plan!;
  let left = variance;
  let shared = 0;
  let gain: { per: number; with: Float64Array } | null = null;
  if (witness?.of === "plan") {
    const { gradient: g } = witness;
    for (let k = 0; k < g.length; k++) if (g[k] !== 0) shared += g[k]! * q[k]!;
    const per = shared / (witness.sigma ** 2 + witness.variance);
    left -= shared * per;
    gain = { per, with: witness.with };
  }
  const redundancy = 1 - left / h.sigma ** 2;
  const slip = DETECTABLE / (h.sigma * Math.sqrt(Math.max(0, redundancy)));
  let most = 0;
  s.plane!.jacobian.forEach((row, i) => {
    let moved = 0;
    for (let k = 0; k < row.length; k++)
      if (row[k] !== 0) moved += row[k]! * (q[k]! - (gain ? gain.per * gain.with[k]! : 0));
    most = Math.max(most, (Math.abs(moved) * slip) / room.plan[i]!);
  });
  return bounded(most);
}

const bounded = (ratio: number): number => (ratio < UNBOUNDED ? ratio : UNBOUNDED);

/** One hidden slip with all that it is weighed by. */
export type Weighed = {
  hidden: Hidden;
  room: Room;
  s: SetOutSolution;
  heightVariance: number;
};

/** What could be wrong, hide, and carry a quantity out of its tolerance, the farthest first. */
export function weakIn(s: SetOutSolution, r: Reliability): Weighed[] {
  const heightVariance = s.scalars.height.variance;
  return r.hidden
    .map((hidden) => ({ hidden, room: r.room, s, heightVariance }))
    .map((w) => ({ w, ratio: carries(w) }))
    .filter(({ ratio }) => ratio > 1)
    .sort((a, b) => b.ratio - a.ratio)
    .map(({ w }) => w);
}
