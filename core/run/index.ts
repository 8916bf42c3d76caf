export type { AimState } from "./machine";
export {
  advanceRun,
  currentStep,
  mayConnect,
  replayRun,
  RUN_START,
  RunRefusal,
  type RoutineResult,
  type RunEvent,
  type RunState,
} from "./machine";
