export { buildRecord } from "./build";
export { recordJsonSchema, recordSchema, type JobRecord } from "./schema";
export { readingFigures, resultLines, runLine, verdictLine } from "./words";
