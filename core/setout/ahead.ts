import { normalCdf } from "@/core/math/distributions";
import { DETECTABLE } from "@/core/survey";
import type { Move } from "./moves";
import { moveWidening } from "./touch";
import type { ScalarId } from "./slot";
import type { SetOutSolution } from "./solve";
import { insideChance, scalarErrors } from "./verdict";

/**
 * Looking ahead: how long it is likely to take from here to a sure "set", by reading on, or by moving
 * now or after a few readings more. Nothing of it is judged by; it only chooses what to do first, and
 * says how long it may be.
 *
 * Readings are played through by what they do to the covariance, which does not hang on their values.
 * After a move the error is what the knowledge of before lets it be; how likely that calls for a second
 * move is counted in. Chances are products of single ones here: a bound that is cheap, and the same for
 * every way compared.
 */

/** A reading that could be taken, as it is played through. */
export type Playable = {
  id: string;
  /** Derivatives by the unknowns; null for a reading of the height. */
  gradient: Float64Array | null;
  part: "plan" | ScalarId;
  /** The reading's own uncertainty, and what a seat adds that the next seating does not share. */
  sigma: number;
  seat: number;
  seconds: number;
  /** How often it was read already since the last disturbance. */
  taken: number;
};

/** What to do first, with which reading, and how long it is likely to be until "set", seconds. */
export type Ahead =
  { first: "read"; slotId: string | null; seconds: number } | { first: "move"; seconds: number };

/** What a hand on the stand costs: walking there, loosening, moving, locking. */
export const MOVE_SECONDS = 25;
/** Taking off what is clamped and seating it anew. */
export const SEAT_SECONDS = 25;
/** Nobody reads on for longer than this without moving. */
const MOST_READINGS = 10;
/** Readings before a move are played through up to this many. */
const MOST_BEFORE = 5;

type Sparse = { rows: number[]; values: number[] };

const sparse = (g: Float64Array): Sparse => {
  const rows: number[] = [];
  const values: number[] = [];
  for (let k = 0; k < g.length; k++)
    if (g[k] !== 0) {
      rows.push(k);
      values.push(g[k]!);
    }
  return { rows, values };
};

type Limit = { g: Sparse | null; error: number; half: number; extra: number };
type Single = { g: Sparse | null; sigma: number };

/** What is known at one moment of the play. */
type State = {
  q: Float64Array;
  heightVariance: number;
  limits: Limit[];
  /** Readings of now, each of which could be wrong and hide. */
  taken: Single[];
  times: Map<string, number>;
};

const dot = (a: Sparse, v: Float64Array): number => {
  let sum = 0;
  for (let i = 0; i < a.rows.length; i++) sum += a.values[i]! * v[a.rows[i]!]!;
  return sum;
};

function times(q: Float64Array, order: number, g: Sparse): Float64Array {
  const out = new Float64Array(order);
  for (let i = 0; i < g.rows.length; i++) {
    const [at, v] = [g.rows[i]! * order, g.values[i]!];
    for (let j = 0; j < order; j++) out[j]! += q[at + j]! * v;
  }
  return out;
}

/**
 * @param moves that would be made now; none where nothing is to be moved
 * @param prove readings that are taken after a move in any case: what was shifted is measured again
 * @returns with a long time where no way leads to "set" by what can be read
 */
export function lookAhead(
  s: SetOutSolution,
  readings: readonly Playable[],
  moves: readonly Move[],
  prove = 0,
): Ahead {
  const a = s.adjustment!;
  const { order, covariance, index } = a.joint;
  const { setChance } = s.plan.thresholds;
  const leanRow = (part: "pitch" | "roll"): number | undefined => index[s.leans[part] ?? ""];
  const unit = (row: number): Sparse => ({ rows: [row], values: [1] });
  const plane = s.plane!;
  const start: State = {
    q: Float64Array.from(covariance),
    heightVariance: s.scalars.height.variance,
    limits: [
      ...plane.quantities.map(({ error, half }, i) => ({
        g: sparse(plane.jacobian[i]!),
        error,
        half,
        extra: 0,
      })),
      ...scalarErrors(s).map((c): Limit => {
        const row = c.id === "height" ? undefined : leanRow(c.id);
        const own = s.scalars[c.id].variance;
        return {
          g: row === undefined ? null : unit(row),
          error: c.error,
          half: c.half,
          extra: Math.max(0, c.sigma ** 2 - own),
        };
      }),
    ],
    taken: [],
    times: new Map(readings.map((r) => [r.id, r.taken])),
  };
  const playable = readings.map((r) => ({
    ...r,
    g: r.gradient ? sparse(r.gradient) : null,
    whole: Math.hypot(r.sigma, r.seat),
  }));
  type Play = (typeof playable)[number];
  const counted = new Map(playable.map((p) => [p.id, p]));
  for (const r of s.readings) {
    const p = counted.get(r.slotId);
    if (r.state === "counts" && p) start.taken.push({ g: p.g, sigma: r.sigma });
  }

  // A covariance never changes once it is there; limits and readings ask it the same again and again.
  const products = new WeakMap<Float64Array, Map<Sparse, Float64Array>>();
  const product = (q: Float64Array, g: Sparse): Float64Array => {
    let known = products.get(q);
    if (!known) products.set(q, (known = new Map()));
    let out = known.get(g);
    if (!out) known.set(g, (out = times(q, order, g)));
    return out;
  };

  /** What one more reading would take off, as far as a limit or another reading sees it. */
  type Gain = { with: Float64Array; per: number } | null;
  const gainOf = (state: State, p: Play): Gain => {
    if (!p.g) return null;
    const qg = product(state.q, p.g);
    return { with: qg, per: 1 / (p.whole ** 2 + dot(p.g, qg)) };
  };
  const heightAfter = (state: State, p: Play): number =>
    1 / (1 / state.heightVariance + 1 / p.whole ** 2);

  /** Standard deviation of a limited quantity, after a reading where one is given. */
  const sigmaOf = (state: State, l: Limit, p: Play | null = null, gain: Gain = null): number => {
    let variance: number;
    if (!l.g) variance = p && !p.g ? heightAfter(state, p) : state.heightVariance;
    else {
      variance = dot(l.g, product(state.q, l.g));
      if (gain) variance -= dot(l.g, gain.with) ** 2 * gain.per;
    }
    return Math.sqrt(Math.max(1e-18, variance + l.extra));
  };
  const chance = (state: State, p: Play | null = null, gain: Gain = null): number =>
    state.limits.reduce((c, l) => c * insideChance(l.error, sigmaOf(state, l, p, gain), l.half), 1);

  /**
   * The sum of logarithms by which slips that could hide carry too far, after a reading where one is
   * given; 0 when none does.
   */
  const hiding = (state: State, p: Play | null = null, gain: Gain = null): number => {
    const room = (l: Limit): number => Math.max(0.05 * l.half, l.half - Math.abs(l.error));
    const excess = (t: Single): number => {
      let worst = 0;
      if (!t.g) {
        const height = p && !p.g ? heightAfter(state, p) : state.heightVariance;
        const redundancy = Math.max(1e-9, 1 - height / t.sigma ** 2);
        const by = (DETECTABLE * height) / (t.sigma * Math.sqrt(redundancy));
        for (const l of state.limits) if (!l.g) worst = Math.max(worst, by / room(l));
        return worst;
      }
      const qa = product(state.q, t.g);
      const shared = gain ? dot(t.g, gain.with) : 0;
      const left = dot(t.g, qa) - (gain ? shared * shared * gain.per : 0);
      const slip = DETECTABLE / (t.sigma * Math.sqrt(Math.max(1e-9, 1 - left / t.sigma ** 2)));
      for (const l of state.limits) {
        if (!l.g) continue;
        const moved = dot(l.g, qa) - (gain ? shared * gain.per * dot(l.g, gain.with) : 0);
        worst = Math.max(worst, (Math.abs(moved) * slip) / room(l));
      }
      return worst;
    };
    let sum = 0;
    for (const t of state.taken) sum += Math.log(Math.max(1, excess(t)));
    if (p) sum += Math.log(Math.max(1, excess({ g: p.g, sigma: p.whole })));
    return sum;
  };

  const secondsOf = (state: State, p: Play): number =>
    p.seconds + ((state.times.get(p.id) ?? 0) > 0 && p.seat > 0 ? SEAT_SECONDS : 0);
  const read = (state: State, p: Play): State => {
    const next: State = {
      ...state,
      times: new Map(state.times).set(p.id, (state.times.get(p.id) ?? 0) + 1),
      taken: [...state.taken, { g: p.g, sigma: p.whole }],
    };
    const gain = gainOf(state, p);
    if (!gain) return { ...next, heightVariance: heightAfter(state, p) };
    const q = Float64Array.from(state.q);
    for (let i = 0; i < order; i++) {
      const f = gain.with[i]! * gain.per;
      if (f !== 0) for (let j = 0; j < order; j++) q[i * order + j]! -= f * gain.with[j]!;
    }
    return { ...next, q };
  };
  const nulled = (state: State): State => ({
    ...state,
    limits: state.limits.map((l) => ({ ...l, error: 0 })),
  });
  /** The reading that brings most for its time, or null when none brings anything. */
  const best = (state: State, centred: boolean): Play | null => {
    const at = centred ? nulled(state) : state;
    const now = chance(at);
    const sure = now >= setChance;
    const before = sure ? hiding(state) : Math.log(Math.max(now, 1e-300));
    let found: Play | null = null;
    let most = 1e-6;
    for (const p of playable) {
      const n = state.times.get(p.id) ?? 0;
      if (n >= 3) continue;
      const gain = gainOf(state, p);
      const by = sure
        ? before - hiding(state, p, gain)
        : Math.log(Math.max(chance(at, p, gain), 1e-300)) - before;
      const worth = by / secondsOf(state, p) / (1 + (p.seat > 0 ? 0 : n));
      if (worth > most) [found, most] = [p, worth];
    }
    return found;
  };
  /** The quickest reading of the plan that was not taken yet. */
  const quickest = (state: State): Play | null =>
    playable
      .filter((p) => p.part === "plan" && !state.times.get(p.id))
      .reduce<Play | null>((a, b) => (a && a.seconds <= b.seconds ? a : b), null);
  const done = (state: State): boolean => chance(state) >= setChance && hiding(state) === 0;

  /** Reading on until it is done; seconds, and the state then. Long where it does not come to an end. */
  const readOn = (
    from: State,
    least = 0,
  ): { seconds: number; state: State; first: string | null } => {
    let state = from;
    let seconds = 0;
    let first: string | null = null;
    for (let n = 0; n < MOST_READINGS; n++) {
      if (n >= least && done(state)) return { seconds, state, first };
      const p = best(state, false) ?? (n < least ? quickest(state) : null);
      if (!p) break;
      first ??= p.id;
      seconds += secondsOf(state, p);
      state = read(state, p);
    }
    return { seconds: done(state) ? seconds : seconds + LONG, state, first };
  };

  const body = index[s.body]!;
  const moved = (state: State): State => {
    const q = Float64Array.from(state.q);
    let heightVariance = state.heightVariance;
    const widen = (row: number | undefined, sigma: number): void => {
      if (row !== undefined) q[row * order + row]! += sigma * sigma;
    };
    for (const m of moves) {
      const w = moveWidening(m);
      widen(body, w.planMm);
      widen(body + 1, w.planMm);
      widen(body + 2, w.headingRad);
      widen(leanRow("pitch"), w.tiltRad);
      widen(leanRow("roll"), w.tiltRad);
      if (m.kind === "crank" && m.until) heightVariance = w.heightMm ** 2;
      else heightVariance += w.heightMm ** 2;
    }
    const at = nulled({ ...state, q, heightVariance });
    // What was read before the move bears witness, and is not read of where it stands now.
    return { ...at, taken: prove > 0 ? state.taken : [], times: new Map() };
  };
  /** Moving in this state and reading on, with what a second move would cost as often as it is called for. */
  const moveThen = (state: State): number => {
    const at = moved(state);
    const on = readOn(at, prove);
    let fine = 1;
    at.limits.forEach((l, i) => {
      const [before, after] = [sigmaOf(at, l), sigmaOf(on.state, on.state.limits[i]!)];
      const shows = Math.sqrt(Math.max(1e-12, before ** 2 - after ** 2));
      const room = Math.max(0, l.half - 2.4 * after);
      fine *= 2 * normalCdf(room / shows) - 1;
    });

    const once = moves.length * MOVE_SECONDS + on.seconds;
    return once + (1 - fine) * (2 * MOVE_SECONDS + 0.6 * on.seconds);
  };

  const still = readOn(start);
  const reading = { first: "read", slotId: still.first, seconds: still.seconds } as const;
  if (moves.length === 0) return reading;
  let shortest: Ahead = { first: "move", seconds: moveThen(start) };

  if (still.seconds < shortest.seconds) shortest = reading;
  let state = start;
  let seconds = 0;
  let slotId: string | null = null;
  for (let n = 0; n < MOST_BEFORE; n++) {
    const p = best(state, true);
    if (!p) break;
    slotId ??= p.id;
    seconds += secondsOf(state, p);
    state = read(state, p);
    const total = seconds + moveThen(state);

    if (total < shortest.seconds) shortest = { first: "read", slotId, seconds: total };
  }
  return shortest;
}

/** Where reading alone does not come to an end, seconds. */
export const LONG = 3600;
