import { problemsIn, type Problem } from "@/core/book";
import type { SystemId } from "./names";
import { SYSTEMS } from "./names";
import type { OwedLine } from "./owed";
import { OrderCycleError, planOwed } from "./plan";
import { ruleBookSchema, type RuleBook } from "./schema";

/** Every line the book could ever owe: orders that contradict each other do so among these. */
const everyLine = (): OwedLine[] =>
  (Object.keys(SYSTEMS) as SystemId[]).flatMap(
    (system) =>
    (["static", "dynamic", "learn"] as const).map((kind) => ({ id: `${system}/${kind}`, system, kind, places: [], because: [] })), // prettier-ignore
  );

/** What keeps a rule book from being used: fields the schema refuses, and orders that go round in a circle. */
export function ruleBookProblems(
  json: unknown,
): { book: RuleBook; problems: [] } | { book: null; problems: Problem[] } {
  const parsed = ruleBookSchema.safeParse(json);
  if (!parsed.success) return { book: null, problems: problemsIn(parsed.error, "rule book") };
  try {
    planOwed(everyLine(), parsed.data);
  } catch (error) {
    if (!(error instanceof OrderCycleError)) throw error;
    return { book: null, problems: [{ field: "orders", message: error.message }] };
  }
  return { book: parsed.data, problems: [] };
}
