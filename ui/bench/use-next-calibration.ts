import { useJob } from "./job-store";

/** What turns to the next calibration of the job, round and round; null where there is one only. */
export function useNextCalibration(): (() => void) | null {
  const { ground, turnTo } = useJob();
  const { calibrations, calibrationId } = ground;
  if (calibrations.length < 2) return null;
  const at = calibrations.findIndex((c) => c.id === calibrationId);
  return () => turnTo(calibrations[(at + 1) % calibrations.length]!.id);
}
