import { cycle, edgesOf, type Edge } from "./order";
import type { OwedLine } from "./owed";
import type { Effort, RuleBook } from "./schema";

/** One step of the plan, in order. `alignment` is work that must precede, not a calibration. */
export type PlanStep = {
  line: OwedLine;
  effort: Effort | null;
  /** Ids of the lines that come first, each with its reason. */
  after: { id: string; why: string }[];
  /** Ids of lines that can share its set-up. */
  shares: string[];
  /** Ids of lines whose things are in its way and are cleared away before it. */
  clears: string[];
  /** Ids of lines whose things may stay where they stand. */
  stay: string[];
  /** Which way the vehicle is turned before it; null where it stays as it stands. */
  turn: "in" | "out" | null;
};

export type OwedPlan = {
  steps: PlanStep[];
  /** All of it, with what clearing away and turning the vehicle take. */
  bayMinutes: number;
  /** Of them fetching, walking and setting up; clearing away; turning the vehicle. */
  setUpMinutes: number;
  clearMinutes: number;
  turnMinutes: number;
  roadMinutes: number;
  boards: string[];
  /** Room the largest of them needs, metres. */
  roomM: { ahead: number; behind: number; sides: number };
  /** Lines whose effort the shop has not entered: the totals lack them. */
  unknown: string[];
};

/**
 * Orders the lines so that the bay is taken up for the fewest minutes, as the orders allow. A set-up
 * that is shared stands only as long as its members follow each other; where several ways take as
 * long, learn and static come before dynamic, then as they were given.
 *
 * @throws OrderCycleError naming the orders that contradict each other
 */
export function planOwed(
  lines: readonly OwedLine[],
  book: Pick<RuleBook, "orders" | "efforts" | "turnMinutes">,
): OwedPlan {
  const edges = edgesOf(lines, book.orders);
  const effort = lines.map(
    (l) => book.efforts.find((e) => e.system === l.system && e.kind === l.kind) ?? null,
  );
  const turning = book.turnMinutes ?? TURN_MINUTES;
  const acts = orderOf(lines, edges, effort, turning);
  const runs = runsOf(acts, effort);
  const idOf = (i: number): string => lines[i]!.id;
  const steps = acts.map(({ line: i, clears, stay, turn }): PlanStep => {
    const first = new Map(edges.filter((e) => e.to === i).map((e) => [idOf(e.from), e.order.why]));
    return {
      line: lines[i]!,
      effort: effort[i]!,
      after: [...first].map(([id, why]) => ({ id, why })),
      shares: runs.find((r) => r.includes(i))!.flatMap((k) => (k === i ? [] : [idOf(k)])),
      clears: clears.map(idOf),
      stay: stay.map(idOf),
      turn,
    };
  });
  const moving = {
    clearMinutes: acts.flatMap((x) => x.clears).reduce((t, k) => t + clearing(effort[k]!), 0),
    turnMinutes: turning * acts.filter((x) => x.turn).length,
  };
  return { steps, ...totals(steps, runs, effort, moving), ...moving };
}

/** What turning a vehicle round in the bay takes where the shop does not say, minutes. */
const TURN_MINUTES = 15;
/** What taking away the things of a calibration takes where the shop does not say, minutes. */
const CLEAR_MINUTES = 4;
const clearing = (e: Effort | null): number => e?.clearMinutes ?? CLEAR_MINUTES;

/** Of so many lines every order is weighed; beyond, the next best one is taken each time. */
const MOST_WEIGHED = 10;
const RANK = { learn: 0, static: 1, dynamic: 2 } as const;

/**
 * Minutes that doing a line adds where it follows others of its set-up, the longest of which takes
 * `longest`: the stand is there already, so that a fifth of each but the longest is left.
 */
const added = (minutes: number, longest: number): number =>
  0.2 * minutes + 0.8 * Math.max(0, minutes - longest);

/** How the bay is left by what was done in it. */
type Bay = {
  /** What was done last, and the longest of the set-up that stands; -1 before anything was. */
  last: number;
  top: number;
  nose: "in" | "out" | null;
  /** Lines whose things still stand. */
  standing: readonly number[];
};

/** One line done, with what had to be done to the bay before it. */
type Act = { line: number; clears: number[]; stay: number[]; turn: "in" | "out" | null };

/** What doing a line costs in a bay that was left so, and how it leaves it. */
function doneIn(
  bay: Bay,
  i: number,
  effort: readonly (Effort | null)[],
  turning: number,
): { minutes: number; bay: Bay; act: Act } {
  const e = effort[i] ?? null;
  const minutes = (k: number): number => effort[k]?.bayMinutes ?? 0;
  const turn = e?.nose && bay.nose && e.nose !== bay.nose ? e.nose : null;
  // What stood about a vehicle that is driven out and in again stands about another place.
  const standing = turn ? [] : bay.standing;
  const clears = standing.filter((k) => effort[k]?.stands?.some((s) => e?.clear?.includes(s)));
  const stay = standing.filter((k) => !clears.includes(k));
  const shares = !turn && bay.last >= 0 && !!e?.setUp && e.setUp === effort[bay.last]?.setUp;
  return {
    minutes:
      (shares ? added(minutes(i), minutes(bay.top)) : minutes(i)) +
      (turn ? turning : 0) +
      clears.reduce((t, k) => t + clearing(effort[k] ?? null), 0),
    bay: {
      last: i,
      top: shares && minutes(bay.top) >= minutes(i) ? bay.top : i,
      nose: e?.nose ?? bay.nose,
      standing: e?.stands?.length ? [...stay, i] : stay,
    },
    act: { line: i, clears, stay, turn },
  };
}

/**
 * The order itself: by dynamic programming over what is done and how it has left the bay (Held & Karp
 * 1962, with more than the last place in the state), then read off from the front, so that of equals
 * the first by rank and place is taken.
 */
function orderOf(
  lines: readonly OwedLine[],
  edges: readonly Edge[],
  effort: readonly (Effort | null)[],
  turning: number,
): Act[] {
  const n = lines.length;
  const before = lines.map((_, i) => new Set(edges.filter((e) => e.to === i).map((e) => e.from)));
  const free = (done: ReadonlySet<number>): number[] =>
    lines
      .flatMap((_, i) => (!done.has(i) && [...before[i]!].every((k) => done.has(k)) ? [i] : []))
      .sort((a, b) => RANK[lines[a]!.kind] - RANK[lines[b]!.kind] || a - b);

  const known = new Map<string, number>();
  const sorted = (list: Iterable<number>): string => [...list].sort((a, b) => a - b).join();
  const rest = (done: ReadonlySet<number>, bay: Bay): number => {
    if (done.size === n) return 0;
    const key = `${sorted(done)}/${bay.last}/${bay.top}/${bay.nose}/${sorted(bay.standing)}`;
    const worked = known.get(key);
    if (worked !== undefined) return worked;
    const least = Math.min(...free(done).map((i) => through(done, bay, i)));
    known.set(key, least);
    return least;
  };
  const through = (done: ReadonlySet<number>, bay: Bay, i: number): number => {
    const next = doneIn(bay, i, effort, turning);
    return next.minutes + rest(new Set([...done, i]), next.bay);
  };

  const done = new Set<number>();
  const acts: Act[] = [];
  let bay: Bay = { last: -1, top: -1, nose: null, standing: [] };
  while (done.size < n) {
    const next = free(done);
    if (next.length === 0)
      throw cycle(lines, edges, new Set(lines.flatMap((_, i) => (done.has(i) ? [] : [i]))));
    const cost = (i: number): number =>
      n <= MOST_WEIGHED ? through(done, bay, i) : doneIn(bay, i, effort, turning).minutes;
    const costs = next.map(cost);
    const best = next[costs.findIndex((c) => c <= Math.min(...costs) + 1e-9)]!;
    const taken = doneIn(bay, best, effort, turning);
    acts.push(taken.act);
    bay = taken.bay;
    done.add(best);
  }
  return acts;
}

/** What follows each other about one set-up: it stands so long. */
function runsOf(acts: readonly Act[], effort: readonly (Effort | null)[]): number[][] {
  const runs: number[][] = [];
  for (const { line: i, turn } of acts) {
    const setUp = effort[i]?.setUp;
    const last = runs.at(-1)?.at(-1);
    if (!turn && setUp && last !== undefined && effort[last]?.setUp === setUp) runs.at(-1)!.push(i);
    else runs.push([i]);
  }
  return runs;
}

function totals(
  steps: readonly PlanStep[],
  runs: readonly number[][],
  effort: readonly (Effort | null)[],
  moving: { clearMinutes: number; turnMinutes: number },
): Omit<OwedPlan, "steps" | "clearMinutes" | "turnMinutes"> {
  /** What follows each other about one set-up takes the longest of it, and a fifth of the rest. */
  const shared = (minutes: (e: Effort) => number): number =>
    runs.reduce((sum, run) => {
      const each = run.map((i) => (effort[i] ? minutes(effort[i]) : 0));
      const longest = Math.max(...each);
      return sum + longest + 0.2 * (each.reduce((x, y) => x + y, 0) - longest);
    }, 0);
  const bayMinutes = shared((e) => e.bayMinutes) + moving.clearMinutes + moving.turnMinutes;
  const known = steps.flatMap((s) => (s.effort ? [s.effort] : []));
  const most = (side: "ahead" | "behind" | "sides"): number =>
    Math.max(0, ...known.map((e) => e.roomM[side]));
  return {
    bayMinutes: Math.round(bayMinutes),
    setUpMinutes: Math.round(shared((e) => e.setUpMinutes ?? 0)),
    roadMinutes: Math.max(0, ...known.map((e) => e.roadMinutes)),
    boards: [...new Set(known.flatMap((e) => e.boards))],
    roomM: { ahead: most("ahead"), behind: most("behind"), sides: most("sides") },
    unknown: steps.filter((s) => !s.effort).map((s) => s.line.id),
  };
}
