import { floorOf } from "@/core/ready";
import {
  DEFAULT_THRESHOLDS,
  misses,
  nominalTarget,
  withBooster,
  type SetOutEntry,
  type SetOutPlan,
} from "@/core/setout";
import { degToRad } from "@/core/units";
import type { JobGround } from "./ground";
import { itemsOf } from "./items";
import { boosterBefore, standAt, targetNow } from "./standing";
import { eventsOf, lastOf, measuredOf, sentAt, strikes, type JobEvent } from "./job";

/** The plan core/setout works on; the log gives it the floor, where one was measured. */
export function planFor(g: JobGround, events: readonly JobEvent[] = []): SetOutPlan {
  const school = eventsOf(events, "school").at(-1)?.body.school;
  const toe = lastOf(events, "rear-toe")?.body;
  const rearToe = toe ? { left: toe.leftDeg, right: toe.rightDeg } : g.intake.rearToeDeg;
  const target = targetNow(g, events);
  const plan: SetOutPlan = {
    vehicle: g.vehicle,
    target,
    stand: withBooster(standAt(g, events), boosterBefore(g, events)),
    instruments: g.instruments,
    rearToe: rearToe && { leftRad: degToRad(rearToe.left), rightRad: degToRad(rearToe.right) },
    thresholds: DEFAULT_THRESHOLDS,
    ...(school && !misses(school, target) ? { school } : {}),
  };
  const floor = measuredFloor(g, plan, events);
  if (!floor) return plan;
  return {
    ...plan,
    floorSlopeRad: { ahead: floor.slopeAhead, left: floor.slopeLeft },
    ...(floor.correction ? { floorStepMm: floor.correction } : {}),
  };
}

/** The floor under the vehicle and at the board's place, from the standing floor measurement. */
function measuredFloor(
  g: JobGround,
  plan: SetOutPlan,
  events: readonly JobEvent[],
): ReturnType<typeof floorOf> {
  const item = itemsOf(g, "ready").find((i) => i.measure?.kind === "floor");
  const measured = item && measuredOf(events).get(item.id);
  if (!measured || (plan.target.datum === "thrust" && !plan.rearToe)) return null;
  return floorOf(
    measured.body.values,
    plan.vehicle,
    nominalTarget(plan).xMm,
    measured.body.bay?.days ?? null,
  );
}

/**
 * What happened at the stand since the board was sent to its present place, without what was
 * struck.
 */
export function setOutEntries(events: readonly JobEvent[]): SetOutEntry[] {
  const struck = strikes(events);
  const seq = sentAt(events);
  return events.flatMap((e): SetOutEntry[] => {
    const b = e.body;
    // A car that was rolled has moved, whatever became of what was read while it rolled.
    if (b.kind === "rear-toe" && b.how === "rolled" && e.seq >= seq)
      return [{ kind: "touch", id: e.id, touch: "moved-car" }];
    if (struck.has(e.id) || e.seq < seq) return [];
    if (b.kind === "reading")
      return [{ kind: "reading", id: e.id, slotId: b.slotId, shown: b.shown, sigma: b.sigma }];
    if (b.kind === "touch") return [{ kind: "touch", id: e.id, touch: b.touch }];
    if (b.kind === "move") return [{ kind: "move", id: e.id, move: b.move, rest: b.rest }];
    return [];
  });
}
