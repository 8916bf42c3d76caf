export {
  EVENT_PLACES,
  EVENTS,
  KINDS,
  PLACES,
  SYSTEMS,
  type EventId,
  type PlaceId,
  type SystemId,
} from "./names";
export { needConflicts, NEEDS, type NeedConflict } from "./needs";
export { EMPTY_MEMORY, owedFor, redoneBy, type Happening, type OwedLine } from "./owed";
export { OrderCycleError, orderProblem } from "./order";
export { planOwed, type OwedPlan, type PlanStep } from "./plan";
export {
  eventIdSchema,
  fittedSchema,
  placeIdSchema,
  ruleBookSchema,
  systemIdSchema,
  type Fitted,
  type Order,
  type Rule,
  type RuleBook,
} from "./schema";
export { happeningName, lineName, minutesWords } from "./words";
export { ruleBookProblems } from "./book-problems";
