import type { OwedLine } from "./owed";
import type { Order } from "./schema";

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

export type Edge = { from: number; to: number; order: Order };

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
 * Follows edges backwards among the lines that wait for each other until one repeats: that loop is
 * a contradiction.
 */
export function cycle(
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

/**
 * What contradicts itself in the orders of these lines, in words; null where they can be done one after
 * the other.
 */
export function orderProblem(
  lines: readonly OwedLine[],
  orders: readonly Order[],
): OrderCycleError | null {
  const edges = edgesOf(lines, orders);
  const left = new Set(lines.keys());
  for (;;) {
    const free = [...left].filter((i) => !edges.some((e) => e.to === i && left.has(e.from)));
    if (left.size === 0) return null;
    if (free.length === 0) return cycle(lines, edges, left);
    for (const i of free) left.delete(i);
  }
}
