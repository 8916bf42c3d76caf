export { buildRecord } from "./build";
export {
  recordJsonSchema,
  recordSchema,
  type CalibrationRecord,
  type JobRecord,
  type TargetRecord,
} from "./schema";
export { record1JsonSchema, record1Schema } from "./schema-1";
export { readRecord } from "./upcast";
export { customerWords, type CustomerWords } from "./customer";
export {
  aimForetoldLine,
  changedAimLine,
  driveLine,
  refusalLine,
  roadLine,
  aimLearned,
  arrivalLines,
  checkLine,
  halvesLine,
  sourceLine,
  witnessLine,
  glassLine,
  owedLine,
  readingFigures,
  resultLines,
  runLine,
  standLines,
  codeLines,
  timeLines,
  verdictLine,
} from "./words";
