export { buildRecord } from "./build";
export { recordJsonSchema, recordSchema, type JobRecord } from "./schema";
export { aimLearned, glassLine, readingFigures, resultLines, runLine, timeLines, verdictLine } from "./words";
