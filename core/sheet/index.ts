export { readSheet, sheetJsonSchema, sheetSchema, type Operation, type Sheet, type SheetStep } from "./schema";
export { DISTANCE_FROM_NAMES, OPERATION_NAMES } from "./words";
