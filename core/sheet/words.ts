import type { Sheet } from "./schema";

export const DISTANCE_FROM_NAMES: Record<Sheet["distanceFrom"], string> = {
  "front-hub-line": "the front hub line",
  "front-badge": "the front badge",
  "bumper-face": "the bumper face",
  camera: "the camera",
};
