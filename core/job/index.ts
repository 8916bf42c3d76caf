export { documentsOnTheSpot, onTheSpotSchema, type OnTheSpot } from "./on-the-spot";
export { typedFigures } from "./second-look";
export { otherCar } from "./other-car";
export { isAboutVehicle } from "./board-sides";
export { bayStandX } from "./bay-stand";
export { aimAdvice, aimFits, aimForetold, type AimForetold } from "./foretold";
export { releaseOf, releaseProblem, type ReleaseProblem, type ReleaseState } from "./release";
export { ANYONE_RELEASES, type ReleaseRule } from "./release-rule";
export { codesAfter, wordKey, type CodesAfter } from "./codes-after";
export { askedFor } from "./asked-for";
export { jobClock, type JobClock } from "./clock";
export {
  intakeSchema,
  tabletEventSchema,
  type Intake,
  type Settlement,
  type TabletEvent,
} from "./events";
export {
  checksOf,
  checkStanding,
  eventsOf,
  lastOf,
  measuredOf,
  scanLogOf,
  runLogOf,
  settlementStanding,
  standingHandOver,
  strikes,
  type EventBody,
  type EventOf,
  type JobEvent,
} from "./job";
export {
  calibrationIn,
  conflicts,
  disturbedBy,
  isHeldBy,
  movesVehicle,
  SCOPES,
  scopedLog,
  targetIn,
  type LineScope,
} from "./scope";
export { boosterBefore, isOfStay, lastStay, stayEvents, staysOf, type Stay } from "./stays";
export { itemOf, itemsOf } from "./items";
export { itemLacks, itemReading, itemSettled, putRight, type ItemReading } from "./item";
export {
  doesLine,
  fittedTo,
  unnamedSystems,
  jobRedoneBy,
  owedLines,
  sheetsFor,
  type SheetChoice,
  type JobOwedLine,
} from "./owed";
export { jobOwed, type JobOwed } from "./owed-plan";
export {
  allProved,
  calibrationInHand,
  calibrationLog,
  freeStands,
  hasTarget,
  lookedAt,
  runOf,
  standAt,
  boardUnchecked,
  standingAt,
  standingNow,
  standsBeside,
  standUsedFor,
  targetFor,
  targetInHand,
  type Standing,
} from "./standing";
export {
  viewOf,
  viewsOf,
  type Calibration,
  type CalibrationGround,
  type JobGround,
} from "./ground";
export { upcastGround, type StoredGround } from "./ground-upcast";
export { judgeTarget, planFor, sceneNow } from "./set-out";
export { seamCauses, stepsAhead } from "./seams";
export { gateWords, runGate, type RunGate } from "./run-gate";
export { settledQuantities, settlementOf } from "./settle";
export { slipLines, type SlipLine } from "./slip";
export {
  JOB_STATES,
  calibrationStages,
  calibrationState,
  jobState,
  stageStates,
  type CalibrationState,
  type JobState,
  type StageState,
} from "./stages";
export { runEventWords, shownWords, stepsWords } from "./words";
export { LIST } from "./list";
export { STAGES, type StageId } from "./stage-list";
export { ticketOf, type JobTicket } from "./ticket";
export {
  CONSENT_WORDS,
  FUNCTIONS,
  functionsOf,
  LAMPS,
  MOUNT_PARTS,
  PHOTO_SUBJECTS,
  readOdometer,
  type FunctionId,
  type LampId,
  type MountPart,
  type PhotoSubject,
} from "./walk";
export { ageOf, driftSightsOf, witnessOf, type Age, type Witness } from "./afterwards";
export { knownToes, type KnownToe } from "./toe";
