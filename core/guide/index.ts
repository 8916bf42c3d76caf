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
export { AIM_AXES, boardBias, fitOfAim, foretellAim, UNREAD_ROLL, type AimAxis } from "./foretell";
