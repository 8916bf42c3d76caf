export { boardErrors, guideErrors, turnedErrors, type GuideError, type SpacePoint } from "./lines";
export { radarError, radarOff, type RadarError } from "./radar";
export {
  rankCauses,
  type Cause,
  type CauseEvidence,
  type Looked,
  type RankedCause,
} from "./causes";
export { BOARD_QUANTITIES, type BoardQuantity } from "./effects";
export {
  AIM_AXES,
  boardBias,
  fitOfAim,
  foretellAim,
  stanceBias,
  UNREAD_ROLL,
  UNREAD_STANCE,
  type AimAxis,
  type BodyStance,
} from "./foretell";
