export { buildRecord } from "./build";
export { recordJsonSchema, recordSchema, type JobRecord } from "./schema";
export { aimLearned, readingFigures, resultLines, runLine, verdictLine } from "./words";
