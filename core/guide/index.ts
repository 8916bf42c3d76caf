export { guideErrors, turnedErrors, type GuideError } from "./lines";
export { radarError, radarOff, type RadarError } from "./radar";
