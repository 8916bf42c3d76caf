export { boardErrors, guideErrors, turnedErrors, type GuideError, type SpacePoint } from "./lines";
export { radarError, radarOff, type RadarError } from "./radar";
