import {
  calibrationInHand,
  targetInHand,
  viewOf,
  type CalibrationGround,
  type JobEvent,
} from "@/core/job";
import { targetsOf } from "@/core/sheet";
import { JobRefusal } from "./refusal";
import type { JobRow } from "./store";

/**
 * Which calibration a request is of: the one it names, else the one in hand.
 */
export function viewAsked(
  asked: URLSearchParams,
  job: JobRow,
  events: readonly JobEvent[],
): CalibrationGround {
  const named = asked.get("calibration");
  return named ? viewOf(job.ground, named) : calibrationInHand(job.ground, events);
}

/** Which target of it. @throws JobRefusal where it has none of that name */
export function targetAsked(
  asked: URLSearchParams,
  view: CalibrationGround,
  events: readonly JobEvent[],
): string {
  const named = asked.get("target");
  if (named === null) return targetInHand(view, events).id;
  if (!targetsOf(view.sheet).some((t) => t.id === named))
    throw new JobRefusal(`target: nothing called “${named}” stands in this job.`);
  return named;
}
