export type { AimState } from "./machine";
export {
  advanceRun,
  currentStep,
  mayConnect,
  replayRun,
  RUN_START,
  RunRefusal,
  REFUSAL_CODES,
  type RefusalCode,
  type StoredAim,
  type Told,
  type RoutineResult,
  type RunEvent,
  type RunState,
} from "./machine";
