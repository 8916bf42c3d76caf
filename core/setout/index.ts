export { ROLLED_TOE_SIGMA } from "./causes";
export {
  nextAct,
  outOfReach,
  proposeMoves,
  secondsToSet,
  type Judged,
  type NextAct,
  type ProposedMove,
} from "./act";
export { aim, type PlanAim } from "./aim";
export { boxProbability } from "./chance";
export { planMoves, type BoardState, type Move, type Watched } from "./moves";
export { instrumentFor, predictedReadings, rankReadings, type Candidate } from "./next";
export {
  datumFrame,
  datumLine,
  DEFAULT_THRESHOLDS,
  MissingThrustError,
  nominalTarget,
  floorStep,
  facing,
  wantedRail,
  OWN_FLOOR,
  wantedHeight,
  type SetOutPlan,
} from "./plan";
export { agree, decideByThird, disagreeing, likelyCause } from "./suspicion";
export {
  readCaught,
  takeReading,
  type Caught,
  type TakenReading,
  type ToldReading,
} from "./reading";
export { pairOf, readPair } from "./pair";
export { parseShown, plainFigure, sideKeys, slotUnit, typedFigure } from "./level-slots";
export type { Instrument } from "./instrument";
export type { Slot } from "./slot";
export { seatSigma } from "./causes";
export { carSeen } from "./car-seen";
export { readingsToSet } from "./few-readings";
export { keptFrom } from "./kept-from";
export { goneMm, ON_MARKS, type Kept } from "./kept";
export { readingSigma, slotsFor } from "./slots";
export { BAY, type BayWalls } from "./walls";
export {
  solveScene,
  solveSetOut,
  type Scene,
  type ScenePlace,
  type SceneSolution,
  type ReadingState,
  type SetOutEntry,
  type SetOutSolution,
  type Shift,
} from "./solve";
export { standSchema } from "./stand-schema";
export {
  boosterFor,
  stateAtRest,
  withBooster,
  type PlanPose,
  type Stand,
  type StandState,
} from "./stand";
export { LAST_ACT_IDS, type LastActId } from "./last-act-ids";
export { LAST_ACTS } from "./last-acts";
export { suffers, touchesOf, touchName, TOUCHES, type TouchKind } from "./touch";
export { carries, standsFor } from "./carries";
export { onFloor } from "./on-floor";
export { standsOf, thingOf } from "./thing";
export { HANDS, isByHand, isLabelled, sideOf } from "./hands";
export {
  QUANTITIES,
  quantitiesOf,
  sharesOfRisk,
  quantityWords,
  type Quantity,
  type QuantityId,
} from "./quantities";
export { insideChance, judgeSetOut, scalarErrors, type Verdict } from "./verdict";
export { actOf, moveWords, slotValue, type LengthSetting } from "./words";
export {
  isWalked,
  misses,
  SCHOOLS,
  schoolOf,
  schoolsFor,
  type School,
  type SchoolId,
} from "./schools";
export { findSwap, type Swap } from "./swap";
export { blindTo, lineViews, type LineView } from "./lines";
export {
  floorPlan,
  floorMarks,
  markOut,
  schoolChances,
  type FloorMark,
  type MarkOut,
  type MarkOutStep,
  type SchoolChance,
} from "./mark-out";
export { drawingLines, toDxf, toSvg } from "./drawing";
export { spanOf, wallsOf, type FloorSpot, type FloorWall } from "./span";
export {
  boardKnowledge,
  chanceByTolerance,
  roadSetting,
  toleranceCase,
  type ToleranceCase,
} from "./road";
export { followOwnLimits } from "./own-limits";
export { proofHalfWidths } from "./proof";
export { lacksReference, REFERENCES, targetOn } from "./reference";
export { slopsOf, type Slop } from "./slop";
export { namedHalves, splitHalves, type Halves } from "./halves";
export { bearWitness, witnessPlan, type Witnessed, type WitnessPlan } from "./witness";
export {
  aged,
  driftBandMm,
  driftedMm,
  learnDrift,
  type Aged,
  type Drift,
  type DriftSight,
} from "./ageing";
export { toeSeen } from "./toe";
