export { batteryTrend, type BatteryTrend } from "./battery";
export { glassSeatOf, glassWords, partProblem, type GlassPolicy } from "./glass";
export {
  asBayFloor,
  BAY_FLOOR_DAYS,
  bayFloorAge,
  bayFloorSigma,
  valuesFromBay,
  type BayFloor,
} from "./bay-floor";
export { asTyped, readField, readFields, type FieldRead } from "./read";
export { foundOf, judgeFully } from "./apart";
export { fieldsFor, judgeRead } from "./fields";
export { standSpots } from "./stand-spots";
export { floorOf, judgeMeasure, stanceFrom } from "./judge";
export type { Field } from "./field";
export { acrossId, acrossWords, alongId, alongWords, bentId, SEAM_NAMES } from "./seams";
export { pullAdvised } from "./trailer";
export type { Found, Judgement } from "./judgement";
export { byPlace, CHECK_PLACES, placeOfCheck } from "./place";
