import type { Operation, Sheet } from "./schema";

/** What was done to the vehicle, as a technician says it. */
export const OPERATION_NAMES: Record<Operation, string> = {
  "windshield-replaced": "Windshield replaced",
  "camera-replaced": "Camera replaced",
  "bracket-touched": "Camera bracket touched",
  "wheel-alignment": "Wheels aligned",
};

export const DISTANCE_FROM_NAMES: Record<Sheet["distanceFrom"], string> = {
  "front-hub-line": "the front hub line",
  "front-badge": "the front badge",
  "bumper-face": "the bumper face",
  camera: "the camera",
};
