export { doubtfulFigures, type Doubt } from "./magnitude";
export {
  draftProblems,
  readSheet,
  sheetJsonSchema,
  sheetSchema,
  signSheet,
  type Measure,
  type Sheet,
  type SheetStep,
} from "./schema";
export { DISTANCE_FROM_NAMES, fieldName } from "./words";
export { FIRST_PLACE } from "./first-place";
export { placeName, sheetAt } from "./places";
