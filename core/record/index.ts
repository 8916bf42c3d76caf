export { buildRecord } from "./build";
export { recordJsonSchema, recordSchema, type JobRecord } from "./schema";
export {
  aimLearned,
  arrivalLines,
  glassLine,
  readingFigures,
  standLines,
  resultLines,
  runLine,
  timeLines,
  verdictLine,
} from "./words";
