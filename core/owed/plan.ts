import type { Effort, Order, RuleBook } from "./schema";
import type { OwedLine } from "./owed";

/** One step of the plan, in order. `alignment` is work that must precede, not a calibration. */
export type PlanStep = {
  line: OwedLine;
  effort: Effort | null;
  /** Ids of the lines that come first, each with its reason. */
  after: { id: string; why: string }[];
  /** Ids of lines that can share its set-up. */
  shares: string[];
};

export type OwedPlan = {
  steps: PlanStep[];
  bayMinutes: number;
  roadMinutes: number;
  boards: string[];
  /** Room the largest of them needs, metres. */
  roomM: { ahead: number; behind: number; sides: number };
  /** Lines whose effort the shop has not entered: the totals lack them. */
  unknown: string[];
};

/** The shop's orders contradict each other. The message names them. */
export class OrderCycleError extends Error {
  override readonly name = "OrderCycleError";
  constructor(
    readonly orders: string[],
    readonly lines: string[],
  ) {
    super(
      `The orders ${orders.map((o) => `"${o}"`).join(", ")} go round in a circle over ${lines.join(", ")}. Take one of them out of the rule book.`,
    );
  }
}

const fits = (line: OwedLine, s: Order["first"]): boolean =>
  (s.system === undefined || s.system === line.system) &&
  (s.kind === undefined || s.kind === line.kind);

type Edge = { from: number; to: number; order: Order };

/** Every pair of lines that an order puts one before the other. */
export function edgesOf(lines: readonly OwedLine[], orders: readonly Order[]): Edge[] {
  const edges: Edge[] = [];
  for (const order of orders)
    lines.forEach((a, from) =>
      lines.forEach((b, to) => {
        if (from === to || !fits(a, order.first) || !fits(b, order.then)) return;
        if (order.sameSystem && a.system !== b.system) return;
        edges.push({ from, to, order });
      }),
    );
  return edges;
}

/**
 * Orders the lines so that the bay is taken up for the fewest minutes, as the orders allow. A set-up
 * that is shared stands only as long as its members follow each other; where several ways take as
 * long, learn and static come before dynamic, then as they were given.
 *
 * @throws OrderCycleError naming the orders that contradict each other
 */
export function planOwed(
  lines: readonly OwedLine[],
  book: Pick<RuleBook, "orders" | "efforts">,
): OwedPlan {
  const edges = edgesOf(lines, book.orders);
  const effort = lines.map(
    (l) => book.efforts.find((e) => e.system === l.system && e.kind === l.kind) ?? null,
  );
  const done = orderOf(lines, edges, effort);
  const runs = runsOf(done, effort);
  const steps = done.map((i): PlanStep => {
    const first = new Map(
      edges.filter((e) => e.to === i).map((e) => [lines[e.from]!.id, e.order.why]),
    );
    return {
      line: lines[i]!,
      effort: effort[i]!,
      after: [...first].map(([id, why]) => ({ id, why })),
      shares: runs.find((r) => r.includes(i))!.flatMap((k) => (k === i ? [] : [lines[k]!.id])),
    };
  });
  return { steps, ...totals(steps, runs, effort) };
}

/** Of so many lines every order is weighed; beyond, the next best one is taken each time. */
const MOST_WEIGHED = 10;
const RANK = { learn: 0, static: 1, dynamic: 2 } as const;

/**
 * Minutes that doing a line adds where it follows others of its set-up, the longest of which takes
 * `longest`: the stand is there already, so that a fifth of each but the longest is left.
 */
const added = (minutes: number, longest: number): number =>
  0.2 * minutes + 0.8 * Math.max(0, minutes - longest);

/**
 * The order itself: by dynamic programming over what is done, what was done last, and the longest of
 * the set-up that stands (Held & Karp 1962), then read off from the front, so that of equals the
 * first by rank and place is taken.
 */
function orderOf(
  lines: readonly OwedLine[],
  edges: readonly Edge[],
  effort: readonly (Effort | null)[],
): number[] {
  const n = lines.length;
  const before = lines.map((_, i) => new Set(edges.filter((e) => e.to === i).map((e) => e.from)));
  const minutes = (i: number): number => effort[i]?.bayMinutes ?? 0;
  const stays = (i: number, last: number): boolean =>
    last >= 0 && !!effort[i]?.setUp && effort[i]!.setUp === effort[last]?.setUp;
  const costOf = (i: number, last: number, top: number): number =>
    stays(i, last) ? added(minutes(i), minutes(top)) : minutes(i);
  const topOf = (i: number, last: number, top: number): number =>
    stays(i, last) && minutes(top) >= minutes(i) ? top : i;
  const free = (done: ReadonlySet<number>): number[] =>
    lines
      .flatMap((_, i) => (!done.has(i) && [...before[i]!].every((k) => done.has(k)) ? [i] : []))
      .sort((a, b) => RANK[lines[a]!.kind] - RANK[lines[b]!.kind] || a - b);

  const known = new Map<string, number>();
  const rest = (done: ReadonlySet<number>, last: number, top: number): number => {
    if (done.size === n) return 0;
    const key = `${[...done].sort((a, b) => a - b).join()}/${last}/${top}`;
    const worked = known.get(key);
    if (worked !== undefined) return worked;
    const least = Math.min(
      ...free(done).map(
        (i) => costOf(i, last, top) + rest(new Set([...done, i]), i, topOf(i, last, top)),
      ),
    );
    known.set(key, least);
    return least;
  };

  const done = new Set<number>();
  let [last, top] = [-1, -1];
  while (done.size < n) {
    const next = free(done);
    if (next.length === 0)
      throw cycle(lines, edges, new Set(lines.flatMap((_, i) => (done.has(i) ? [] : [i]))));
    const cost = (i: number): number =>
      costOf(i, last, top) +
      (n <= MOST_WEIGHED ? rest(new Set([...done, i]), i, topOf(i, last, top)) : 0);
    const least = Math.min(...next.map(cost));
    const best = next.find((i) => cost(i) <= least + 1e-9)!;
    [top, last] = [topOf(best, last, top), best];
    done.add(best);
  }
  return [...done];
}

/** What follows each other about one set-up: it stands so long. */
function runsOf(order: readonly number[], effort: readonly (Effort | null)[]): number[][] {
  const runs: number[][] = [];
  for (const i of order) {
    const setUp = effort[i]?.setUp;
    const last = runs.at(-1)?.at(-1);
    if (setUp && last !== undefined && effort[last]?.setUp === setUp) runs.at(-1)!.push(i);
    else runs.push([i]);
  }
  return runs;
}

/**
 * Follows edges backwards among the lines that wait for each other until one repeats: that loop is
 * a contradiction.
 */
function cycle(
  lines: readonly OwedLine[],
  edges: readonly Edge[],
  left: ReadonlySet<number>,
): OrderCycleError {
  const path: Edge[] = [];
  let at = [...left][0]!;
  const seen = new Map<number, number>();
  while (!seen.has(at)) {
    seen.set(at, path.length);
    const back = edges.find((e) => e.to === at && left.has(e.from))!;
    path.push(back);
    at = back.from;
  }
  const loop = path.slice(seen.get(at));
  return new OrderCycleError(
    [...new Set(loop.map((e) => e.order.id))],
    [...new Set(loop.map((e) => lines[e.to]!.id))],
  );
}

function totals(
  steps: readonly PlanStep[],
  runs: readonly number[][],
  effort: readonly (Effort | null)[],
): Omit<OwedPlan, "steps"> {
  const bayMinutes = runs.reduce((sum, run) => {
    const each = run.map((i) => effort[i]?.bayMinutes ?? 0);
    const longest = Math.max(...each);
    return sum + longest + 0.2 * (each.reduce((x, y) => x + y, 0) - longest);
  }, 0);
  const known = steps.flatMap((s) => (s.effort ? [s.effort] : []));
  const most = (side: "ahead" | "behind" | "sides"): number =>
    Math.max(0, ...known.map((e) => e.roomM[side]));
  return {
    bayMinutes: Math.round(bayMinutes),
    roadMinutes: Math.max(0, ...known.map((e) => e.roadMinutes)),
    boards: [...new Set(known.flatMap((e) => e.boards))],
    roomM: { ahead: most("ahead"), behind: most("behind"), sides: most("sides") },
    unknown: steps.filter((s) => !s.effort).map((s) => s.line.id),
  };
}
