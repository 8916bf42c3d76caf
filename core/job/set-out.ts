import { floorOf } from "@/core/ready";
import {
  DEFAULT_THRESHOLDS,
  goneMm,
  isByHand,
  misses,
  nextAct,
  nominalTarget,
  onFloor,
  OWN_FLOOR,
  standsOf,
  ROLLED_TOE_SIGMA,
  solveScene,
  targetOn,
  withBooster,
  type Judged,
  type Scene,
  type ScenePlace,
  type SetOutEntry,
  type SetOutPlan,
} from "@/core/setout";
import { setupOf, targetOf, type Target } from "@/core/sheet";
import { degToRad } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import { boardSides } from "./board-sides";
import { viewOf, type CalibrationGround, type JobGround } from "./ground";
import { itemsOf } from "./items";
import { eventsOf, lastOf, measuredOf, strikes, type JobEvent } from "./job";
import { bayWallsOf } from "./parked";
import { movesVehicle, ofOneCarrier, targetIn } from "./scope";
import { calibrationLog, standAt, standingAt, standingNow } from "./standing";
import { boosterBefore, isOfStay, lastStay, staysOf, type Stay } from "./stays";

declare module "@/core/setout/on-floor" {
  interface FloorParts {
    /** A trailer by itself, as a vehicle is taken. @throws RangeError */
    trailerAlone: (vehicle: Vehicle) => Vehicle;
  }
}

/**
 * The plan core/setout works on for one target; the log gives it the floor, where one was measured.
 */
export function planFor(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): SetOutPlan {
  const stay = lastStay(g, events, targetId);
  const bare = standAt(g, events, targetId);
  const stand = withBooster(bare, stay && boosterBefore(g, events, stay));
  const target = targetOn(targetOf(g.sheet, targetId), stand);
  const setup = setupOf(g.sheet, targetId);
  const school = eventsOf(calibrationLog(g, events), "school").at(-1)?.body.school;
  const toe = lastOf(events, "rear-toe")?.body;
  const rearToe = toe ? { left: toe.leftDeg, right: toe.rightDeg } : g.intake.rearToeDeg;
  const bay = bayWallsOf(events);
  const plan: SetOutPlan = {
    vehicle: frameOf(g.vehicle, target),
    target,
    setup,
    against: (setup.relations?.length ? setup.targets : [])
      .filter((t) => t.id !== targetId && standingAt(g, events, t.id)?.settled)
      .map((t) => t.id),
    stand,
    ...instrumentsInHand(g, events),
    rearToe: rearToe && { leftRad: degToRad(rearToe.left), rightRad: degToRad(rearToe.right) },
    thresholds: DEFAULT_THRESHOLDS,
    ...(toe?.how === "rolled" ? { rearToeSigmaRad: ROLLED_TOE_SIGMA } : {}),
    ...(school && !misses(school, target) ? { school } : {}),
    ...(bay && !target.frame ? { bay } : {}),
  };
  if (target.frame) return { ...plan, floorStepMm: OWN_FLOOR };
  const floor = isByHand(target) ? null : measuredFloor(g, plan, events);
  if (!floor) return plan;
  return {
    ...plan,
    floorSlopeRad: { ahead: floor.slopeAhead, left: floor.slopeLeft },
    ...(floor.correction ? { floorStepMm: floor.correction } : {}),
  };
}

/** What a target is set out about: the vehicle, or its trailer by itself. @throws RangeError */
const frameOf = (vehicle: Vehicle, { frame }: Pick<Target, "frame">): Vehicle =>
  frame === "trailer" ? onFloor().trailerAlone(vehicle) : vehicle;

/** The kit with what was taken in hand in this job first of its kind; the last choice wins. */
function instrumentsInHand(
  g: CalibrationGround,
  events: readonly JobEvent[],
): Pick<SetOutPlan, "instruments" | "severalOfAKind"> {
  const taken = eventsOf(events, "instrument").map((e) => e.body.instrumentId);
  if (taken.length === 0) return { instruments: g.instruments };
  const rank = (id: string): number => -taken.lastIndexOf(id);
  return {
    instruments: g.instruments.toSorted((a, b) => rank(a.id) - rank(b.id)),
    severalOfAKind: true,
  };
}

/** The floor under the vehicle and at the board's place, from the standing floor measurement. */
function measuredFloor(
  g: CalibrationGround,
  plan: SetOutPlan,
  events: readonly JobEvent[],
): ReturnType<typeof floorOf> {
  const item = itemsOf(g, "ready").find((i) => i.measure?.kind === "floor");
  const measured = item && measuredOf(events).get(item.id);
  if (!measured || (plan.target.datum === "thrust" && !plan.rearToe)) return null;
  const stands = standsOf(plan.target);
  return floorOf(
    measured.body.values,
    plan.vehicle,
    nominalTarget(plan),
    measured.body.bay?.days ?? null,
    // At the first board with its two feet; a board on another side has a reading of its own.
    stands === boardSides(g)[0] ? null : stands,
  );
}

const HOUR_MS = 3_600_000;

/** What an event means to the set-out; nothing for most. */
function entryOf(e: JobEvent, struck: boolean, named: boolean): SetOutEntry[] {
  const { id, body: b } = e;
  // A car that was rolled has moved, whatever became of what was read while it rolled.
  if (b.kind === "rear-toe" && b.how === "rolled")
    return [{ kind: "touch", id, touch: "moved-car" }];
  if (struck)
    return b.kind === "reading" && b.anew ? [{ kind: "seated", id, slotId: b.slotId }] : [];
  if (b.kind === "reading")
    return [
      {
        kind: "reading",
        id,
        slotId: b.slotId,
        shown: b.shown,
        sigma: b.sigma,
        ...(b.anew ? { anew: true } : {}),
        ...(named ? { instrument: b.instrumentId } : {}),
      },
    ];
  if (b.kind === "kept") {
    const hours = Math.max(0, (Date.parse(e.at) - Date.parse(b.from.at)) / HOUR_MS);
    return [{ kind: "kept", id, kept: b.standing, goneMm: goneMm(hours) }];
  }
  if (b.kind === "parked") return b.walls ? [{ kind: "parked", id, bay: b.walls }] : [];
  if (b.kind === "touch") return [{ kind: "touch", id, touch: b.touch }];
  if (b.kind === "move") return [{ kind: "move", id, move: b.move, rest: b.rest }];
  return [];
}

/**
 * Whether a line disturbs what a reading was taken of: its own carrier, or the vehicle. A slide along
 * the rail of a beam is of the one board alone.
 */
const disturbs = (g: JobGround, { body }: JobEvent, reading: JobEvent): boolean =>
  (movesVehicle(body) ||
    body.kind === "touch" ||
    (body.kind === "move" &&
      (body.move.kind !== "rail" || targetIn(body) === targetIn(reading.body)))) &&
  ofOneCarrier(g, body, reading.body);

/**
 * The log in the order things were done: a reading whose reader did not know of somebody else's
 * disturbance counts as taken before it.
 */
export function asDone(g: JobGround, events: readonly JobEvent[]): readonly JobEvent[] {
  let out: JobEvent[] | null = null;
  for (const e of events) {
    if (e.body.kind !== "reading" || e.seen === undefined) continue;
    const { seen } = e;
    const first = events.find(
      (d) => d.seq > seen && d.seq < e.seq && d.by.id !== e.by.id && disturbs(g, d, e),
    );
    if (!first) continue;
    out ??= [...events];
    out.splice(out.indexOf(e), 1);
    out.splice(out.indexOf(first), 0, e);
  }
  return out ?? events;
}

/** What a target is called where those of several calibrations are worked out together. */
const sceneId = (s: Stay): string =>
  `${s.calibrationId}/${s.target.id}${s.until === Infinity ? "" : `@${s.from}`}`;

/**
 * Everything that stands about the vehicle now, as one scene: what was read of each, in the order it
 * was done, so that the vehicle they share is known from all of it.
 *
 * @returns the scene, its history, and what the target asked for is called in it
 */
export function sceneNow(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): { scene: Scene; entries: SetOutEntry[]; now: string } {
  const struck = strikes(events);
  const named = eventsOf(events, "instrument").length > 0;
  const all = staysOf(g, events);
  const open = all.filter((s) => s.until === Infinity);
  const own = standingNow(g, events, targetId).map((s) => s.carrier);
  const read = new Set(
    eventsOf(events, "reading").flatMap((e) => open.find((s) => isOfStay(s, e)) ?? []),
  );
  const asked = open.find((s) => s.calibrationId === g.calibrationId && s.target.id === targetId);
  // What nobody has come to yet tells nothing; the mates of a mat lie beside it all the same.
  const { frame } = targetOf(g.sheet, targetId);
  // A trailer has hubs of its own: what stands about it says nothing of the vehicle's.
  const places = all.filter(
    (s) =>
      s.target.frame === frame &&
      (s === asked ||
        read.has(s) ||
        (s.until === Infinity && isByHand(s.target) && own.includes(s.carrier)) ||
        (s.until !== Infinity && s.target.beam && own.includes(s.carrier))),
  );
  const scene = places.map((s): ScenePlace => {
    const view = viewOf(g, s.calibrationId);
    return { id: sceneId(s), carrier: s.carrier, plan: planFor(view, events, s.target.id) };
  });
  const now = asked ? sceneId(asked) : "";
  if (!asked) scene.push({ id: now, carrier: "nowhere", plan: planFor(g, events, targetId) });
  const entries = asDone(g, events).flatMap((e) => {
    const ofVehicle = movesVehicle(e.body) || (e.body.kind === "parked" && !frame);
    const target = ofVehicle ? now : places.find((s) => isOfStay(s, e));
    if (target === undefined) return [];
    const at = typeof target === "string" ? target : sceneId(target);
    return entryOf(e, struck.has(e.id), named).map((entry) => ({ ...entry, target: at }));
  });
  return { scene: scene as unknown as Scene, entries, now };
}

/**
 * What everything read so far says of one target of a calibration, and the next act: the one way for
 * tablet, shop and list. @throws MissingThrustError when the sheet's datum cannot be known
 */
export function judgeTarget(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Judged {
  const { scene, entries, now } = sceneNow(g, events, targetId);
  return nextAct(solveScene(scene, entries, now).targets.get(now)!);
}
