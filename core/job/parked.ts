import type { BayFloor } from "@/core/ready";
import type { BayWalls } from "@/core/setout";
import type { JobGround } from "./ground";
import { lastOf, type EventOf, type JobEvent } from "./job";

/** Where the vehicle was last said to stand in a bay; null where nobody said, or it was struck. */
export const parkedOf = (events: readonly JobEvent[]): EventOf<"parked"> | null =>
  lastOf(events, "parked");

/** The walls about the vehicle where it was last said to stand; null where nobody said. */
export const bayWallsOf = (events: readonly JobEvent[]): BayWalls | null =>
  parkedOf(events)?.body.walls ?? null;

/** Floors that serve a job: that of the bay where it stands, as surveyed, before those kept of jobs. */
export function bayFloorsOf(ground: JobGround, events: readonly JobEvent[]): BayFloor[] {
  const own = parkedOf(events)?.body.floor;
  const kept = ground.bayFloors ?? [];
  return own ? [own, ...kept.filter((f) => f.bay !== own.bay)] : kept;
}
