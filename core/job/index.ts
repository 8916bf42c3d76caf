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
  eventsOf,
  lastOf,
  measuredOf,
  scanLogOf,
  runLogOf,
  sentAt,
  standingBoard,
  standingHandOver,
  standingSettlement,
  strikes,
  type EventBody,
  type JobEvent,
} from "./job";
export { disturbedBy, isHeldBy, scopeOf, type LineScope } from "./scope";
export { itemOf, itemsOf } from "./items";
export { itemLacks, itemReading, itemSettled, putRight, type ItemReading } from "./item";
export { fittedTo, jobOwed, jobRedoneBy, type JobOwed, type JobOwedLine } from "./owed";
export {
  allProved,
  boardsStanding,
  freeStands,
  hasTarget,
  piecesOf,
  standsBeside,
  targetNow,
  targetWanted,
  standAt,
  standUsedFor,
  type StandingBoard,
} from "./standing";
export type { JobGround } from "./ground";
export { upcastGround } from "./ground-upcast";
export { judgeJob, planFor, sceneNow, setOutEntries } from "./set-out";
export { gateWords, runGate, type RunGate } from "./run-gate";
export { settledQuantities, settlementOf } from "./settle";
export { slipLines, type SlipLine } from "./slip";
export {
  JOB_STATES,
  jobState,
  STAGES,
  stageStates,
  type JobState,
  type StageId,
  type StageState,
} from "./stages";
export { runEventWords } from "./words";
export { LIST, ticketOf, type JobTicket } from "./ticket";
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
