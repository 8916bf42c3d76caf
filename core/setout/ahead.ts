import { normalCdfFast } from "@/core/math/distributions";
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
  | {
      first: "read";
      slotId: string | null;
      seconds: number;
      /** The readings one after another, where it is by reading alone. */
      path?: string[];
    }
  | { first: "move"; seconds: number };

/** What a hand on the stand costs: walking there, loosening, moving, locking. */
export const MOVE_SECONDS = 25;
/** Taking off what is clamped and seating it anew. */
export const SEAT_SECONDS = 25;
/** Nobody reads on for longer than this without moving. */
const MOST_READINGS = 10;
/** Readings before a move are played through up to this many. */
const MOST_BEFORE = 5;

/**
 * A limited quantity or a reading by its place among the functionals that are played with: no other
 * unknown of the network matters here.
 */
type Limit = { f: number | null; error: number; half: number; extra: number };
type Single = { f: number | null; sigma: number };

/** What is known at one moment of the play. */
type State = {
  /** Covariance of all functionals with each other, row by row. */
  q: Float64Array;
  heightVariance: number;
  limits: Limit[];
  /** Readings of now, each of which could be wrong and hide. */
  taken: Single[];
  times: Map<string, number>;
};

/** G Q G' of functionals G, few of whose derivatives are not nought. */
function carried(
  functionals: readonly Float64Array[],
  covariance: Float64Array,
  order: number,
): Float64Array {
  const n = functionals.length;
  const rows = functionals.map((g) => {
    const list: number[] = [];
    for (let k = 0; k < order; k++) if (g[k] !== 0) list.push(k);
    return list;
  });
  const out = new Float64Array(n * n);
  const with1 = new Float64Array(order);
  for (let i = 0; i < n; i++) {
    const g = functionals[i]!;
    with1.fill(0);
    for (const k of rows[i]!) {
      const [at, v] = [k * order, g[k]!];
      for (let j = 0; j < order; j++) with1[j]! += covariance[at + j]! * v;
    }
    for (let j = 0; j <= i; j++) {
      const h = functionals[j]!;
      let sum = 0;
      for (const k of rows[j]!) sum += h[k]! * with1[k]!;
      out[i * n + j] = out[j * n + i] = sum;
    }
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
  const plane = s.plane!;
  const functionals: Float64Array[] = [];
  const functional = (g: Float64Array): number => functionals.push(g) - 1;
  const unit = (row: number): Float64Array => {
    const g = new Float64Array(order);
    g[row] = 1;
    return g;
  };
  const start: State = {
    q: new Float64Array(0),
    heightVariance: s.scalars.height.variance,
    limits: [
      ...plane.quantities.map(({ error, half }, i) => ({
        f: functional(new Float64Array(plane.jacobian[i]!)),
        error,
        half,
        extra: 0,
      })),
      ...scalarErrors(s).map((c): Limit => {
        const row = c.id === "height" ? undefined : leanRow(c.id);
        const own = s.scalars[c.id].variance;
        return {
          f: row === undefined ? null : functional(unit(row)),
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
    f: r.gradient ? functional(r.gradient) : null,
    whole: Math.hypot(r.sigma, r.seat),
  }));
  type Play = (typeof playable)[number];
  const counted = new Map(playable.map((p) => [p.id, p]));
  for (const r of s.readings) {
    const p = counted.get(r.slotId);
    if (r.state === "counts" && p) start.taken.push({ f: p.f, sigma: r.sigma });
  }
  const many = functionals.length;
  start.q = carried(functionals, covariance, order);

  /** What one more reading would take off, as far as a limit or another reading sees it. */
  type Gain = { at: number; per: number } | null;
  const gainOf = ({ q }: State, p: Play): Gain =>
    p.f === null ? null : { at: p.f * many, per: 1 / (p.whole ** 2 + q[p.f * many + p.f]!) };
  const heightAfter = (state: State, p: Play): number =>
    1 / (1 / state.heightVariance + 1 / p.whole ** 2);

  /** Standard deviation of a limited quantity, after a reading where one is given. */
  const sigmaOf = (state: State, l: Limit, p: Play | null = null, gain: Gain = null): number => {
    let variance: number;
    const { q } = state;
    if (l.f === null) variance = p && p.f === null ? heightAfter(state, p) : state.heightVariance;
    else {
      variance = q[l.f * many + l.f]!;
      if (gain) variance -= q[gain.at + l.f]! ** 2 * gain.per;
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
    const { q } = state;
    const room = (l: Limit): number => Math.max(0.05 * l.half, l.half - Math.abs(l.error));
    const excess = (t: Single): number => {
      let worst = 0;
      if (t.f === null) {
        const height = p && p.f === null ? heightAfter(state, p) : state.heightVariance;
        const redundancy = Math.max(1e-9, 1 - height / t.sigma ** 2);
        const by = (DETECTABLE * height) / (t.sigma * Math.sqrt(redundancy));
        for (const l of state.limits) if (l.f === null) worst = Math.max(worst, by / room(l));
        return worst;
      }
      const row = t.f * many;
      const shared = gain ? q[gain.at + t.f]! : 0;
      const left = q[row + t.f]! - (gain ? shared * shared * gain.per : 0);
      const slip = DETECTABLE / (t.sigma * Math.sqrt(Math.max(1e-9, 1 - left / t.sigma ** 2)));
      for (const l of state.limits) {
        if (l.f === null) continue;
        const moved = q[row + l.f]! - (gain ? shared * gain.per * q[gain.at + l.f]! : 0);
        worst = Math.max(worst, (Math.abs(moved) * slip) / room(l));
      }
      return worst;
    };
    let sum = 0;
    for (const t of state.taken) sum += Math.log(Math.max(1, excess(t)));
    if (p) sum += Math.log(Math.max(1, excess({ f: p.f, sigma: p.whole })));
    return sum;
  };

  const secondsOf = (state: State, p: Play): number =>
    p.seconds + ((state.times.get(p.id) ?? 0) > 0 && p.seat > 0 ? SEAT_SECONDS : 0);
  const read = (state: State, p: Play): State => {
    const next: State = {
      ...state,
      times: new Map(state.times).set(p.id, (state.times.get(p.id) ?? 0) + 1),
      taken: [...state.taken, { f: p.f, sigma: p.whole }],
    };
    const gain = gainOf(state, p);
    if (!gain) return { ...next, heightVariance: heightAfter(state, p) };
    const q = state.q.slice();
    const seen = state.q.subarray(gain.at, gain.at + many);
    for (let i = 0, at = 0; i < many; i++, at += many) {
      const f = seen[i]! * gain.per;
      if (f !== 0) for (let j = 0; j < many; j++) q[at + j]! -= f * seen[j]!;
    }
    return { ...next, q };
  };
  const nulled = (state: State): State => ({
    ...state,
    limits: state.limits.map((l) => ({ ...l, error: 0 })),
  });
  /**
   * How far from "set" a state is: its chance, and where that is enough what could hide.
   *
   * @param at the same with other errors, whose chance counts
   */
  const standing = (state: State, at = state): { at: State; now: number; hidden: number } => {
    const now = chance(at);
    return { at, now, hidden: now >= setChance ? hiding(state) : 0 };
  };
  const isDone = ({ now, hidden }: ReturnType<typeof standing>): boolean =>
    now >= setChance && hidden === 0;
  /** The reading that brings most for its time, or null when none brings anything. */
  const best = (state: State, { at, now, hidden }: ReturnType<typeof standing>): Play | null => {
    const sure = now >= setChance;
    if (sure && hidden === 0) return null;
    const before = Math.log(Math.max(now, 1e-300));
    let found: Play | null = null;
    let most = 1e-6;
    for (const p of playable) {
      const n = state.times.get(p.id) ?? 0;
      if (n >= 3) continue;
      const gain = gainOf(state, p);
      const by = sure
        ? hidden - hiding(state, p, gain)
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

  /**
   * Reading on until it is done; seconds, and the state then. Long where it does not come to an end;
   * not played to the end where it takes `longest` or more.
   */
  const readOn = (
    from: State,
    least: number,
    longest: number,
  ): { seconds: number; state: State; path: string[] } => {
    let state = from;
    let seconds = 0;
    const path: string[] = [];
    for (let n = 0; n < MOST_READINGS; n++) {
      const how = standing(state);
      if (n >= least && isDone(how)) return { seconds, state, path };
      const p = best(state, how) ?? (n < least ? quickest(state) : null);
      if (!p) break;
      path.push(p.id);
      seconds += secondsOf(state, p);
      if (seconds >= longest) return { seconds, state, path };
      state = read(state, p);
    }
    return { seconds: isDone(standing(state)) ? seconds : seconds + LONG, state, path };
  };

  const body = index[s.body]!;
  const moved = (state: State): State => {
    const q = state.q.slice();
    let heightVariance = state.heightVariance;
    const widen = (row: number | undefined, sigma: number): void => {
      if (row === undefined || sigma === 0) return;
      for (let i = 0; i < many; i++) {
        const by = functionals[i]![row]! * sigma * sigma;
        if (by !== 0) for (let j = 0; j < many; j++) q[i * many + j]! += by * functionals[j]![row]!;
      }
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
  /**
   * Moving in this state and reading on, with what a second move would cost as often as it is called
   * for; not worked out to the end where it takes longer than `longest` in any case.
   */
  const moveThen = (state: State, longest = Infinity): number => {
    const at = moved(state);
    const spent = moves.length * MOVE_SECONDS;
    const on = readOn(at, prove, longest - spent);
    if (spent + on.seconds >= longest) return longest;
    let fine = 1;
    at.limits.forEach((l, i) => {
      const [before, after] = [sigmaOf(at, l), sigmaOf(on.state, on.state.limits[i]!)];
      const shows = Math.sqrt(Math.max(1e-12, before ** 2 - after ** 2));
      const room = Math.max(0, l.half - 2.4 * after);
      fine *= 2 * normalCdfFast(room / shows) - 1;
    });
    return spent + on.seconds + (1 - fine) * (2 * MOVE_SECONDS + 0.6 * on.seconds);
  };

  const readOnly = (longest = Infinity): Ahead => {
    const still = readOn(start, 0, longest);
    const { path, seconds } = still;
    return { first: "read", slotId: path[0] ?? null, seconds, path };
  };
  if (moves.length === 0) return readOnly();
  let shortest: Ahead = { first: "move", seconds: moveThen(start) };
  // Reading brings nothing inside that is outside.
  if (start.limits.every((l) => Math.abs(l.error) < l.half)) {
    const reading = readOnly(shortest.seconds);
    if (reading.seconds < shortest.seconds) shortest = reading;
  }
  let state = start;
  let seconds = 0;
  let slotId: string | null = null;
  for (let n = 0; n < MOST_BEFORE; n++) {
    const p = best(state, standing(state, nulled(state)));
    if (!p) break;
    slotId ??= p.id;
    seconds += secondsOf(state, p);
    // The moves take their time whatever is known by then.
    if (seconds + moves.length * MOVE_SECONDS >= shortest.seconds) break;
    state = read(state, p);
    const total = seconds + moveThen(state, shortest.seconds - seconds);
    if (total < shortest.seconds) shortest = { first: "read", slotId, seconds: total };
  }
  return shortest;
}

/** Where reading alone does not come to an end, seconds. */
export const LONG = 3600;
