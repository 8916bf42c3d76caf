export { poseOf, turnedBy, type FloorPoint, type Mount, type Turned } from "./mount";
export { CORNERS, SIDES, type CornerId, type SideId } from "./names";
export {
  bendOf,
  cameraFor,
  camerasAt,
  NoFloorError,
  rightRig,
  seamPoint,
  shownAt,
  stepsOf,
  type Outline,
  type Rig,
  type Seeing,
  type Step,
  type Steps,
} from "./view";
export { seamAct, type SeamAct } from "./advice";
export { learnedPose, marksOf, type MatForm, type MatPose, type Sighting } from "./learn";
export {
  forecastSteps,
  learnedRig,
  playCauses,
  weighCauses,
  type Cause,
  type CauseGroup,
  type Found,
  type Causes,
  type KnownMat,
  type SeamReading,
  type Seen,
  type StepForecast,
  type Surround,
  type Weighed,
} from "./cause";
