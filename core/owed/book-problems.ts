import { plainly, problemsIn, type Problem } from "@/core/book";
import type { SystemId } from "./names";
import { SYSTEMS } from "./names";
import type { OwedLine } from "./owed";
import { edgesOf, OrderCycleError } from "./order";
import { planOwed } from "./plan";
import { ruleBookSchema, type Order, type RuleBook } from "./schema";

/** Every line the book could ever owe: orders that contradict each other do so among these. */
const everyLine = (): OwedLine[] =>
  (Object.keys(SYSTEMS) as SystemId[]).flatMap((system) =>
    (["static", "dynamic", "learn"] as const).map((kind) => ({
      id: `${system}/${kind}`,
      system,
      kind,
      places: [],
      because: [],
    })),
  );

/**
 * Whether no two lines that could ever be owed fit an order: it would be obeyed by doing nothing.
 */
const neverApplies = (order: Order): boolean => edgesOf(everyLine(), [order]).length === 0;

/**
 * What keeps a rule book from being used: fields the schema refuses, and orders that go round in a
 * circle.
 */
export function ruleBookProblems(
  json: unknown,
): { book: RuleBook; problems: [] } | { book: null; problems: Problem[] } {
  const parsed = ruleBookSchema.safeParse(json, plainly);
  if (!parsed.success) return { book: null, problems: problemsIn(parsed.error, "rule book") };
  const idle = parsed.data.orders.findIndex((o) => neverApplies(o));
  if (idle >= 0)
    return {
      book: null,
      problems: [
        {
          field: `orders.${idle}`,
          message:
            "can never apply: nothing that is ever owed fits both its first and its second part. Change it or take it out.",
        },
      ],
    };
  try {
    planOwed(everyLine(), parsed.data);
  } catch (error) {
    if (!(error instanceof OrderCycleError)) throw error;
    return { book: null, problems: [{ field: "orders", message: error.message }] };
  }
  return { book: parsed.data, problems: [] };
}
