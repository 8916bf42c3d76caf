import { nominalTarget } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import { boardSides, isAboutVehicle } from "./board-sides";
import { viewsOf, type JobGround } from "./ground";
import type { JobEvent } from "./job";
import { planFor } from "./set-out";
import { targetInHand } from "./standing";

/**
 * Where the stand of a job stands on the floor a bay keeps, mm ahead of the rear axle.
 *
 * @returns null where a kept floor does not serve: it was read before a vehicle, and here a board
 *   stands on another side, or none does
 */
export function bayStandX(ground: JobGround, events: readonly JobEvent[]): number | null {
  if (boardSides(ground).join() !== "ahead") return null;
  const view = viewsOf(ground).find((v) => targetsOf(v.sheet).some(isAboutVehicle))!;
  const inHand = targetInHand(view, events);
  const board = isAboutVehicle(inHand) ? inHand : targetsOf(view.sheet).find(isAboutVehicle)!;
  return nominalTarget(planFor(view, events, board.id)).xMm;
}
