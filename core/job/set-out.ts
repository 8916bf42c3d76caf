import { floorOf } from "@/core/ready";
import {
  DEFAULT_THRESHOLDS,
  misses,
  nextAct,
  nominalTarget,
  solveScene,
  targetOn,
  withBooster,
  type Judged,
  type Scene,
  type ScenePlace,
  type SetOutEntry,
  type SetOutPlan,
  type Stand,
} from "@/core/setout";
import type { Target } from "@/core/sheet";
import { degToRad } from "@/core/units";
import type { JobGround } from "./ground";
import { itemsOf } from "./items";
import { boardsStanding, boosterBefore, standAt, targetNow } from "./standing";
import { eventsOf, lastOf, measuredOf, sentAt, strikes, type JobEvent } from "./job";

/** One target and the stand that carries it, with what is under its mast. */
type Placed = Pick<SetOutPlan, "target" | "stand">;

const placed = (target: Target, stand: Stand, booster: string | null): Placed => {
  const boosted = withBooster(stand, booster);
  return { target: targetOn(target, boosted), stand: boosted };
};

const placedNow = (g: JobGround, events: readonly JobEvent[]): Placed =>
  placed(targetNow(g, events), standAt(g, events), boosterBefore(g, events));

/**
 * The plan core/setout works on; the log gives it the floor, where one was measured.
 *
 * @param on the target that is set out now, when it is not said
 */
export function planFor(
  g: JobGround,
  events: readonly JobEvent[] = [],
  on = placedNow(g, events),
): SetOutPlan {
  const school = eventsOf(events, "school").at(-1)?.body.school;
  const toe = lastOf(events, "rear-toe")?.body;
  const rearToe = toe ? { left: toe.leftDeg, right: toe.rightDeg } : g.intake.rearToeDeg;
  const plan: SetOutPlan = {
    vehicle: g.vehicle,
    ...on,
    instruments: g.instruments,
    rearToe: rearToe && { leftRad: degToRad(rearToe.left), rightRad: degToRad(rearToe.right) },
    thresholds: DEFAULT_THRESHOLDS,
    ...(school && !misses(school, on.target) ? { school } : {}),
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
  return events.flatMap((e) => (e.seq < seq ? [] : entryOf(e, struck.has(e.id))));
}

/** What an event means to the set-out; nothing for most. */
function entryOf(e: JobEvent, struck: boolean): SetOutEntry[] {
  const { id, body: b } = e;
  // A car that was rolled has moved, whatever became of what was read while it rolled.
  if (b.kind === "rear-toe" && b.how === "rolled")
    return [{ kind: "touch", id, touch: "moved-car" }];
  if (struck) return [];
  if (b.kind === "reading")
    return [{ kind: "reading", id, slotId: b.slotId, shown: b.shown, sigma: b.sigma }];
  if (b.kind === "touch") return [{ kind: "touch", id, touch: b.touch }];
  if (b.kind === "move") return [{ kind: "move", id, move: b.move, rest: b.rest }];
  return [];
}

/**
 * The targets that stand now, as one scene: what was read of each, in the order it was done, so that
 * the vehicle they share is known from all of it. The one that is set out now is the last.
 */
export function sceneNow(
  g: JobGround,
  events: readonly JobEvent[],
): { scene: Scene; entries: SetOutEntry[]; now: string } {
  const struck = strikes(events);
  const standing = boardsStanding(g, events);
  const now = standing.at(-1)!;
  const begun = standing.filter((b) => b === now || b.events.length > 0);
  const places = begun.map(({ target, standId, endSeq }): ScenePlace => {
    if (target === now.target)
      return { id: target.id, carrier: target.id, plan: planFor(g, events) };
    const until = events.filter((e) => e.seq <= endSeq);
    const stand = g.stands?.find((s) => s.id === standId) ?? g.stand;
    const on = placed(target, stand, boosterBefore(g, until));
    return { id: target.id, carrier: target.id, plan: planFor(g, events, on) };
  });
  const owner = new Map(
    [...begun].reverse().flatMap((b) => b.events.map((e) => [e.id, b.target.id] as const)),
  );
  const entries = events.flatMap((e) => {
    const target = owner.get(e.id);
    return target === undefined
      ? []
      : entryOf(e, struck.has(e.id)).map((entry) => ({ ...entry, target }));
  });
  return { scene: places as unknown as Scene, entries, now: now.target.id };
}

/**
 * What everything read so far says of the target that is set out now, and the next act: the one way
 * for tablet, shop and list. @throws MissingThrustError when the sheet's datum cannot be known
 */
export function judgeJob(g: JobGround, events: readonly JobEvent[]): Judged {
  const { scene, entries, now } = sceneNow(g, events);
  return nextAct(solveScene(scene, entries).targets.get(now)!);
}
