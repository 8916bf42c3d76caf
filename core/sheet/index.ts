export { readSheet, sheetJsonSchema, sheetSchema, type Measure, type Sheet, type SheetStep } from "./schema";
export { DISTANCE_FROM_NAMES } from "./words";
