import type { AimSigma, AimTask } from "@/core/mirror";
import { solveScene } from "@/core/setout";
import type { SheetStep } from "@/core/sheet";
import { degToRad } from "@/core/units";
import { sideCameras } from "@/core/vehicle";
import type { CalibrationGround } from "./ground";
import { itemsOf } from "./items";
import { measuredOf, type JobEvent } from "./job";
import { sceneNow } from "./set-out";

/** How well a camera on its arm is known to sit where the book has it, mm; its height was measured. */
const ARM_SIGMA_MM = 4;
/** A cross is read on a display between two divisions to a fifth of one. */
const READ_SIGMA = 0.2;

/**
 * One camera that is aimed at its mark: where the mark lies as everything read says, where the camera
 * sits as the book has it, at the height that was measured. Null where the book has no camera at that
 * side, or nothing says where the mark lies.
 */
export function aimTaskOf(
  view: CalibrationGround,
  events: readonly JobEvent[],
  step: Extract<SheetStep, { kind: "aim" }>,
): { task: AimTask; sigma: AimSigma } | null {
  const found = sideCameras(view.vehicle).find((c) => c.side === step.side);
  if (!found) return null;
  const { scene, entries } = sceneNow(view, events, step.mark);
  const mark = [...solveScene(scene, entries).targets.values()].find(
    (s) => s.plan.target.id === step.mark,
  );
  if (!mark) return null;
  const { pose } = mark.board;
  const places = itemsOf(view, "ready").find((i) => i.measure?.kind === "camera-places");
  const high = places && measuredOf(events).get(places.id)?.body.values[`height-${step.side}`];
  const { xMm, yMm, zMm } = found.sensor;
  const variance = mark.boardCovariance;
  return {
    task: {
      side: step.side,
      camera: { xMm, yMm, zMm: high ?? zMm },
      mark: { xMm: pose.xMm, yMm: pose.yMm, zMm: 0 },
      divisionRad: degToRad(step.scale.divisionDeg),
      wanted: step.at,
      stepRad: { pan: degToRad(step.steps.panDeg), tilt: degToRad(step.steps.tiltDeg) },
      within: step.within,
    },
    sigma: {
      markMm: variance ? Math.sqrt((variance[0]![0]! + variance[1]![1]!) / 2) : 50,
      cameraMm: ARM_SIGMA_MM,
      divisions: READ_SIGMA,
    },
  };
}
