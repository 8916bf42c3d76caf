export { boardErrors, guideErrors, turnedErrors, type GuideError, type SpacePoint } from "./lines";
export { radarError, radarOff, type RadarError } from "./radar";
export { AIM_AXES, boardBias, fitOfAim, foretellAim, UNREAD_ROLL, type AimAxis } from "./foretell";
