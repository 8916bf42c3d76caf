export { adjustNetwork, DETECTABLE } from "./adjust";
export { SurveyError } from "./errors";
export { predictReadings } from "./predict";
export type {
  Adjustment,
  Observation,
  ObservationResult,
  PointShift,
  Reading,
  SurveyBody,
  SurveyNetwork,
  SurveyNuisance,
  Tie,
} from "./types";
