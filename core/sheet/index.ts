export { standsAlong } from "./along";
export { doubtfulFigures, type Doubt } from "./magnitude";
export {
  CAUTION_MOMENTS,
  WANTS,
  type Want,
  type CautionMoment,
  type BoardSide,
  type Disturber,
  type Measure,
  type Picture,
  type Relation,
} from "./parts";
export { ownTolerance, USUAL_EFFECT, type OwnLimit } from "./own-limit";
export {
  cautionAt,
  firstTarget,
  placeName,
  setupOf,
  standingWith,
  targetOf,
  targetsOf,
  wantsThrust,
} from "./places";
export {
  draftProblems,
  readSheet,
  sheetJsonSchema,
  sheetSchema,
  signSheet,
  type Setup,
  type CheckItem,
  type Sheet,
  type SheetStep,
  type Target,
} from "./schema";
export { sheet1Schema } from "./schema-1";
export { upcastSheet } from "./upcast";
export { datumName, DISTANCE_FROM_NAMES, distanceName, fieldName, ownLimitWords } from "./words";
