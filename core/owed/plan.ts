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
 * Orders the lines: topological (Kahn 1962); among those that are free, one that shares the set-up
 * just placed comes first, then static before learn before dynamic, then as they were given. Totals
 * count a shared set-up once for its longest member plus a fifth of each further one: the stand is
 * already there.
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
  const waiting = lines.map((_, i) => edges.filter((e) => e.to === i).length);
  const rank = { learn: 0, static: 1, dynamic: 2 } as const;
  const done: number[] = [];
  const left = new Set(lines.keys());
  while (left.size > 0) {
    const free = [...left].filter((i) => waiting[i] === 0);
    if (free.length === 0) throw cycle(lines, edges, left);
    const placed = done.length > 0 ? effort[done.at(-1)!]?.setUp : null;
    const key = (i: number): number[] => [
      placed && effort[i]?.setUp === placed ? 0 : 1,
      rank[lines[i]!.kind],
      i,
    ];
    free.sort((a, b) => {
      const [x, y] = [key(a), key(b)];
      return x[0]! - y[0]! || x[1]! - y[1]! || x[2]! - y[2]!;
    });
    const next = free[0]!;
    left.delete(next);
    done.push(next);
    for (const e of edges) if (e.from === next) waiting[e.to]!--;
  }
  const steps = done.map((i): PlanStep => {
    const setUp = effort[i]?.setUp;
    const first = new Map(
      edges.filter((e) => e.to === i).map((e) => [lines[e.from]!.id, e.order.why]),
    );
    return {
      line: lines[i]!,
      effort: effort[i]!,
      after: [...first].map(([id, why]) => ({ id, why })),
      shares: setUp
        ? done.filter((k) => k !== i && effort[k]?.setUp === setUp).map((k) => lines[k]!.id)
        : [],
    };
  });
  return { steps, ...totals(steps) };
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

function totals(steps: readonly PlanStep[]): Omit<OwedPlan, "steps"> {
  const groups = new Map<string, number[]>();
  for (const s of steps) {
    if (!s.effort) continue;
    const key = s.effort.setUp ?? s.line.id;
    groups.set(key, [...(groups.get(key) ?? []), s.effort.bayMinutes]);
  }
  let bayMinutes = 0;
  for (const minutes of groups.values()) {
    const longest = Math.max(...minutes);
    bayMinutes += longest + 0.2 * (minutes.reduce((a, b) => a + b, 0) - longest);
  }
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
