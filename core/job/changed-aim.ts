import type { RunState } from "@/core/run";
import { degToRad, formatNumber } from "@/core/units";

/** What a routine changed of a camera's aim, degrees, and what its yaw is at a distance, mm to the left. */
export type ChangedAim = { yawDeg: number; pitchDeg: number; rollDeg: number; leftAt60Mm: number };

const FAR_MM = 60_000;

/**
 * The aim a camera learned less the one its unit had stored before.
 *
 * @returns null while it has learned none, and where the vehicle does not tell what it had
 */
export function changedAim({ stored, result, status }: RunState): ChangedAim | null {
  const { learnedYawDeg: yaw, learnedPitchDeg: pitch, learnedRollDeg: roll } = result ?? {};
  if (!stored || status !== "passed" || yaw === undefined) return null;
  const yawDeg = yaw - stored.yawDeg;
  return {
    yawDeg,
    pitchDeg: (pitch ?? 0) - stored.pitchDeg,
    rollDeg: (roll ?? 0) - stored.rollDeg,
    leftAt60Mm: Math.tan(degToRad(yawDeg)) * FAR_MM,
  };
}

/** The same in a sentence. */
export function changedAimWords({ yawDeg, leftAt60Mm }: ChangedAim): string {
  const cm = Math.round(Math.abs(leftAt60Mm) / 10);
  const side = leftAt60Mm >= 0 ? "left" : "right";
  return cm === 0
    ? "This job changed its yaw by nothing that shows on the road."
    : `This job turned its aim by ${formatNumber(Math.abs(yawDeg), 2)}° to vehicle ${side}: ${formatNumber(cm)} cm at 60 m.`;
}
