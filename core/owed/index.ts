export { EMPTY_MEMORY, owedFor, redoneBy, type Happening, type OwedLine } from "./owed";
export { OrderCycleError, planOwed, type OwedPlan, type PlanStep } from "./plan";
export { EVENTS, KINDS, PLACES, ruleBookSchema, SYSTEMS, type EventId, type Fitted, type Order, type PlaceId, type Rule, type RuleBook, type SystemId } from "./schema"; // prettier-ignore
export { happeningName, lineName, minutesWords } from "./words";
