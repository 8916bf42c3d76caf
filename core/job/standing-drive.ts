import { eventsOf, strikes, type EventOf, type JobEvent } from "./job";
import type { CalibrationGround } from "./ground";
import { calibrationLog } from "./standing";

/**
 * The drive that stands: the vehicle said on it that it has learned, and its routine has not run again
 * since. Null while there is none.
 */
export function standingDrive(
  view: CalibrationGround,
  events: readonly JobEvent[],
): EventOf<"drive-end"> | null {
  const own = calibrationLog(view, events);
  const struck = strikes(events);
  const ran = eventsOf(own, "run").findLast((e) => e.body.event.type === "routine-result");
  const last = eventsOf(own, "drive-end").findLast((e) => !struck.has(e.id));
  return last?.body.outcome === "learned" && last.seq > (ran?.seq ?? 0) ? last : null;
}
