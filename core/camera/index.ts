export {
  OutOfSightError,
  project,
  unproject,
  type Camera,
  type Lens,
  type Pixel,
  type Vec3,
} from "./model";
export {
  apply,
  LoosePoseError,
  multiply,
  planarPose,
  refinePose,
  rotation,
  type Pose,
} from "./pose";
export { boardInVehicle } from "./board";
export type { BoardError, Setting } from "./setting";
export { laneOffsetMm, learnedTurn, rangeErrorMm, type Turn } from "./road";
export { EFFECT_AT_MM, limitsFor, worstEffect, type PoseLimits, type RoadEffect } from "./limits";
export {
  ADJUSTMENTS,
  gains,
  ROAD_DISTANCES_MM,
  roadOutcome,
  type BoardKnowledge,
  type Gain,
  type RoadOutcome,
  type Spread,
} from "./monte-carlo";
