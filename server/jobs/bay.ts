import {
  boosterBefore,
  calibrationLog,
  checksOf,
  eventsOf,
  fittedTo,
  isOfStay,
  itemOf,
  itemsOf,
  lastStay,
  movesVehicle,
  planFor,
  putRight,
  isAboutVehicle,
  runLogOf,
  runOf,
  scanLogOf,
  standAt,
  standingNow,
  staysOf,
  strikes,
  targetIn,
  targetInHand,
  type CalibrationGround,
  type EventOf,
  type JobEvent,
  viewOf,
  viewsOf,
} from "@/core/job";
import { bayWallsOf } from "@/core/job/parked";
import { lastAnswer } from "@/core/job/causes";
import { unmaintained } from "@/core/job/supply";
import type { RunEvent } from "@/core/run";
import { scanState } from "@/core/scan";
import {
  DEFAULT_THRESHOLDS,
  HANDS,
  isByHand,
  slotsFor,
  standsOf,
  withBooster,
  type SetOutPlan,
} from "@/core/setout";
import { standSpots } from "@/core/ready";
import { targetsOf, type Disturber, type Measure, type Target } from "@/core/sheet";
import { readReadiness, stanceNow } from "@/devices/bench/readiness";
import {
  eyesOf,
  leanedOn,
  learnView,
  readSteps,
  type CabinView,
} from "@/devices/vehicle/cabin-view";
import { mannersOf, type Circumstances } from "@/devices/vehicle/manners";
import type { NetworkState } from "@/devices/vehicle/network";
import {
  act,
  beforeNextCar,
  measure,
  openBay,
  parkIn,
  type BayAct,
  type BenchWorld,
} from "@/devices/bench/world";
import {
  matSeen,
  simulatedScanTool,
  type BesideWorld,
  type Cabin,
} from "@/devices/scan-tool/simulated";
import type { ScanTool } from "@/devices/scan-tool/scan-tool";
import { eventsAfter } from "./log";
import { findJob, type JobRow } from "./store";
import { armsSeen } from "./mirror-bay";
import { articulationOf, couplingOf, holdTapes } from "./trailer-bay";

/** What happens in a bay, before it is known by which line. */
type What = BayAct extends infer A ? (A extends BayAct ? Omit<A, "id"> : never) : never;

/**
 * The simulated bay as one target sees it, as the log has left it: the vehicle all targets stand
 * about, and what carries this one. A struck act was never done.
 */
export function bayOf(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): BenchWorld {
  const struck = strikes(events);
  const stays = staysOf(view, events);
  const stay = lastStay(view, events, targetId);
  const mates = stays.filter((s) => s.carrier === stay?.carrier);
  const from = Math.min(stay?.from ?? 0, ...mates.map((m) => m.from));
  const bay = bayWallsOf(events);
  const brought = planAtBringing(view, events, targetId, from);
  const open = openBay(job.seed, bay ? { ...brought, bay } : brought);
  return events.reduce((world, e) => {
    const { body } = e;
    // Before it was brought here, only the vehicle was there; it takes what stands along.
    if (e.seq <= from)
      return body.kind === "parked" && body.walls && !struck.has(e.id)
        ? parkIn(world, body.walls, String(e.seq))
        : world;
    // What hands do varies with the line, not with the name a tablet gave it: the same log in the
    // same bay is the same world.
    const done = (what: What): BenchWorld => act(world, { ...what, id: String(e.seq) });
    if (body.kind === "rear-toe" && movesVehicle(body))
      return done({ kind: "touch", touch: "moved-car" });
    if (struck.has(e.id)) return world;
    if (body.kind === "parked")
      return body.walls ? parkIn(world, body.walls, String(e.seq)) : world;
    if (movesVehicle(body)) return done({ kind: "touch", touch: "moved-car" });
    if (!mates.some((s) => isOfStay(s, e))) return world;
    // Another board of the same beam went along the rail: this one only felt the beam move.
    if (body.kind === "move" && body.move.kind === "rail" && targetIn(body) !== targetId)
      return done({ kind: "move", move: { ...body.move, leftMm: 0 } });
    if (body.kind === "move") return done({ kind: "move", move: body.move });
    if (body.kind === "touch") return done({ kind: "touch", touch: body.touch });
    if (body.kind === "kept") return beforeNextCar(world, standOf(body, e.at), job.seed);
    return body.kind === "bump" ? done({ kind: "bump" }) : world;
  }, open);
}

/** A stand as it truly stands where another job left it, with what nobody noticed since. */
function standOf(
  { from, calibrationId, targetId }: EventOf<"kept">["body"],
  at: string,
): BenchWorld["stand"] {
  const other = findJob(from.jobId)!;
  const log = eventsAfter(other.id).filter((e) => e.seq <= from.seq || e.at <= at);
  return bayOf(other, viewOf(other.ground, calibrationId ?? null), log, targetId!).stand;
}

/** The plan as it was when the carrier was brought: by eye, with what was under its mast then. */
function planAtBringing(
  view: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
  from: number,
): SetOutPlan {
  const then = events.filter((e) => ["position", "move"].includes(e.body.kind));
  const plan = planFor(view, then, targetId);
  const stay = staysOf(view, then).find((s) => s.from === from && s.target.id === targetId);
  const booster = stay && boosterBefore(view, then, stay);
  return { ...plan, stand: withBooster(standAt(view, then, targetId), booster ?? null) };
}

/**
 * What the simulated instrument at a slot of a target shows next.
 *
 * @param anew what the reading goes through is seated anew first
 */
export function holdInstrument(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
  slotId: string,
  anew = false,
): number {
  const all = eventsOf(events, "reading").filter((e) => e.body.slotId === slotId);
  const before = all.filter((e) => e.body.targetId === targetId).length;
  const world = bayOf(job, view, events, targetId);
  const slots = slotsFor(world.plan);
  const seatOf = (id: string) => slots.find((s) => s.id === id)?.seat?.id;
  const seated = eventsOf(events, "reading").filter(
    (e) => e.body.anew && seatOf(e.body.slotId) === seatOf(slotId),
  );
  const seating = seated.length + (anew ? 1 : 0);
  const mateId = slots.find((s) => s.id === slotId)?.mate;
  const mate = targetsOf(view.sheet).find((t) => t.id === mateId);
  const beside = world.mat && mate ? bayOf(job, view, events, mate.id) : null;
  return measure(world, slotId, before, beside, seating);
}

/** The scan tool plugged into this job's vehicle, for one calibration. `pace` scales its delays. */
export function scanToolFor(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  pace = 1,
): ScanTool {
  const run = eventsOf(events, "run").map((e) => e.body.event);
  const turns = run.filter((e) => e.type === "ignition");
  const supply = itemsOf(view, "ready").find((i) => i.measure?.kind === "battery")?.id ?? "";
  const maintainer = checksOf(events, "ready").get(supply);
  const coupling = couplingOf(job, events);
  const spoke = run.findLast((e) => e.type !== "connect-failed")?.at;
  const off = unmaintained(view, events);
  // Without a maintainer it drains from the first turn of the key on, or from when that was taken off.
  const from = off ? Date.parse(off.since) : 0;
  // What is made up answers at once, at a time of its own.
  const now = pace === 0 ? events.at(-1)!.at : new Date().toISOString();
  const on = turns.reduce((sum, t, i) => {
    const until = Date.parse(turns[i + 1]?.at ?? now);
    const seconds = (until - Math.max(from, Date.parse(t.at))) / 1000;
    return t.to === "off" ? sum : sum + Math.max(0, seconds);
  }, 0);
  const cabin: Cabin = {
    ignition: turns.at(-1)?.to ?? "off",
    unplugged: off !== null,
    maintained:
      putRight(events, supply) > 0 ||
      (maintainer !== undefined && maintainer.body.outcome !== "accepted"),
    ignitionOnSeconds: on,
    connectionsBefore: run.filter((e) => e.type === "connected" || e.type === "connect-failed")
      .length,
    vin: pluggedInto(job, events),
    holdsBefore: run.filter((e) => e.type === "held").length,
    silentSeconds: spoke ? (Date.now() - Date.parse(spoke)) / 1000 : null,
    learned: runOf(view, events).state.status === "passed",
    testsBefore: scanLogOf(events).filter((e) => e.type === "self-test").length,
    looksBefore: run.filter((e) => e.type === "routine-result").length,
    system: view.sheet.appliesTo.system,
    done: doneAbout(view, run),
    articulationRad: coupling && articulationOf(coupling),
    arms: armsSeen(job, view, events, (id) => bayOf(job, view, events, id)),
  };
  return simulatedScanTool(seenNow(job, view, events), cabin, pace);
}

/** What was done about the vehicle since the tool was last connected, as the log of the run says it. */
function doneAbout(view: CalibrationGround, run: readonly RunEvent[]): Circumstances {
  const from = run.findLastIndex((e) => e.type === "connected");
  const since = run.slice(Math.max(0, from));
  const wanted = since.flatMap((e) => {
    const step = e.type === "confirmed" && view.sheet.run.find((s) => s.id === e.step);
    return step && step.kind === "prompt" && step.wants ? [step.wants] : [];
  });
  const lamps = wanted.findLast((w) => w === "lamps-on" || w === "lamps-off");
  const before = run.slice(0, Math.max(0, from)).findLast((e) => e.type === "routine-result");
  const [first] = since;
  return {
    lamps: lamps ? (lamps === "lamps-on" ? "on" : "off") : null,
    twice: wanted.includes("left-and-entered-again"),
    buttons: since.some((e) => e.type === "held" && e.entered),
    // It was refused for this before, and somebody says what was changed.
    seenTo:
      before?.result.refused === "conditions" && first?.type === "connected" && !!first.changed,
  };
}

/**
 * In some bays the plug still lies in the vehicle next to this one, until the tool has said so: then
 * somebody has gone and moved it.
 */
function pluggedInto(job: JobRow, events: readonly JobEvent[]): string {
  const { vin } = job.ground.intake;
  const told = eventsOf(events, "scan").length + eventsOf(events, "run").length > 0;
  return !told && job.seed.includes("next-bay") ? neighbourOf(vin) : vin;
}

/** A vehicle of the same make and another number. */
const neighbourOf = (vin: string): string => `${vin.slice(0, -1)}${(Number(vin.at(-1)) + 1) % 10}`;

/** The bay as the vehicle sees it: once for each target that stands, the one in hand last. */
export function seenNow(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
): [...BesideWorld[], BesideWorld] {
  if (targetsOf(view.sheet).length === 0) {
    const other = viewsOf(view).find((v) => targetsOf(v.sheet).length > 0);
    return other ? seenNow(job, other, events) : [{ name: "nothing", world: bareBay(job) }];
  }
  const now = targetInHand(view, events);
  const trouble = troubleIn(job, view, events);
  const arches = itemsOf(view, "ready").find((i) => i.measure?.kind === "arches");
  const fixed = arches !== undefined && putRight(events, arches.id) > 0;
  const seen = (id: string, name: string): BesideWorld => {
    const world = bayOf(job, view, events, id);
    return { name, world: { ...world, trouble, stance: stanceNow(world, fixed) } };
  };
  const beside = standingNow(view, events, now.id)
    .filter((s) => s.begun && s.target.id !== now.id)
    .map((s) => seen(s.target.id, s.target.name));
  return [...beside, seen(now.id, now.name)];
}

/** Load in the boot lifts the nose, rad. */
const BOOT_LOAD_RAD = -0.032;

/**
 * Some bays hold what disturbs a camera, until somebody who was refused has looked for it and put it
 * away.
 */
function troubleIn(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
): NonNullable<BenchWorld["trouble"]> {
  const refused = lastAnswer(view, events)?.seq ?? Infinity;
  const isThere = (what: Disturber): boolean => {
    if (!job.seed.includes(what)) return false;
    const ids = itemsOf(view, "ready").flatMap((i) => (i.looksFor === what ? [i.id] : []));
    return !events.some(
      ({ seq, body }) =>
        seq > refused &&
        (body.kind === "check" || body.kind === "measured" || body.kind === "put-right") &&
        ids.includes(body.itemId),
    );
  };
  return {
    ...(isThere("clutter") && { clutter: true }),
    ...(isThere("glare") && { glare: true }),
    ...(isThere("load") && { loadRad: BOOT_LOAD_RAD }),
  };
}

/** Where nothing at all is set out: a vehicle in a bay, with a mat somewhere nobody looks at. */
function bareBay(job: JobRow): BenchWorld {
  const target: Target = {
    id: "nowhere",
    name: "nothing",
    kind: "mat",
    object: { code: "-", widthMm: 900, lengthMm: 1000, aheadMm: 500 },
    datum: "rear-axle-normal",
    distanceFrom: "front-hub-line",
    placement: { alongMm: 0, acrossMm: 1500, twistDeg: 0, heightMm: 0 },
    tolerance: {},
  };
  return openBay(job.seed, {
    vehicle: job.ground.vehicle,
    target,
    setup: { targets: [target] },
    stand: HANDS,
    instruments: [],
    rearToe: null,
    thresholds: DEFAULT_THRESHOLDS,
  });
}

/**
 * The vehicle and its floor, whatever is set out about it: as a board sees them where there is one,
 * since the floor is read at its stand too.
 */
export function anyBay(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
): BenchWorld {
  // What is measured from a trailer knows nothing of the vehicle.
  const of = (v: CalibrationGround): Target | undefined => targetsOf(v.sheet)[0];
  const views = viewsOf(view).filter((v) => of(v) && !of(v)!.frame);
  const first = views.find((v) => !isByHand(of(v)!)) ?? views[0];
  if (!first) return bareBay(job);
  const inHand = targetInHand(first, events);
  // The floor is read where the job's first board stands, on whichever side that is.
  const at = inHand.stands === of(first)!.stands ? inHand : of(first)!;
  return bayOf(job, first, events, at.id);
}

/** The bay with the boards of other sides than the first, by the fields of their floor. */
const baysElsewhere = (
  job: JobRow,
  events: readonly JobEvent[],
  measure: Measure,
): Record<string, BenchWorld> =>
  Object.fromEntries(
    (measure.kind === "floor" ? (measure.stands ?? []).slice(1) : []).flatMap((side) => {
      const view = viewsOf(job.ground).find((v) => targetsOf(v.sheet).some((t) => isAt(t, side)));
      const target = view && targetsOf(view.sheet).find((t) => isAt(t, side));
      return target ? [[standSpots(side)[0]![0], bayOf(job, view, events, target.id)]] : [];
    }),
  );

const isAt = (t: Target, side: string): boolean => isAboutVehicle(t) && standsOf(t) === side;

/** What the simulated instruments show for a measured readiness item. */
export function holdReadiness(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  itemId: string,
): Record<string, number> | null {
  const measure = itemOf(view, "ready", itemId)?.measure;
  if (!measure) return holdAfterwards(job, view, events, itemId);
  if (measure.kind === "articulation") return holdTapes(job, events, itemId);
  const checks = eventsOf(events, "check").filter((e) => e.body.itemId === itemId);
  const fixed = putRight(events, itemId) > 0 || checks.some((e) => e.body.outcome === "fixed");
  const before = eventsOf(events, "measured").filter((e) => e.body.itemId === itemId).length;
  const bay = anyBay(job, view, events);
  return readReadiness(bay, itemId, measure, fixed, before, baysElsewhere(job, events, measure));
}

/** The same for what is read after the routine: the steps in the cabin's picture. */
function holdAfterwards(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  itemId: string,
): Record<string, number> | null {
  if (itemOf(view, "prove", itemId)?.measure?.kind !== "seams") return null;
  const shown = cabinViewOf(job, view, events);
  const before = eventsOf(events, "measured").filter((e) => e.body.itemId === itemId).length;
  return shown && readSteps(shown, `${job.seed}/${view.calibrationId}/${before}`);
}

/**
 * The joined picture on the cabin's display, as the unit has it since it last learned; null before.
 * A camera that was put right after somebody leaned on it sits again as it sat when it learned.
 */
export function cabinViewOf(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
): CabinView | null {
  const own = calibrationLog(view, events);
  const learned = eventsOf(own, "run").findLast(
    (e) => e.body.event.type === "routine-result" && e.body.event.result.passed,
  );
  if (!learned || view.sheet.appliesTo.system !== "surround-view") return null;
  const then = events.filter((e) => e.seq <= learned.seq);
  const mats = seenNow(job, view, then).flatMap(matSeen);
  const seed = `${job.seed}/${view.calibrationId}`;
  const eyes = eyesOf(job.ground.vehicle, seed);
  const shown = learnView(job.ground.vehicle, eyes, mats, `${seed}/${learned.seq}`);
  const righted = view.sheet.prove.some((i) => i.measure && putRight(own, i.id) > 0);
  const now = righted ? eyes : leanedOn(eyes, seed);
  return {
    ...shown,
    eyes: {
      front: { ...shown.eyes.front, truly: now.front },
      left: { ...shown.eyes.left, truly: now.left },
      rear: { ...shown.eyes.rear, truly: now.rear },
      right: { ...shown.eyes.right, truly: now.right },
    },
  };
}

/** The vehicle's network as the log has left it. */
export function networkOf(job: JobRow, events: readonly JobEvent[], volts: number): NetworkState {
  const log = scanLogOf(events);
  const { ground } = job;
  const runs = viewsOf(ground).map((v) => ({
    system: v.sheet.appliesTo.system,
    passed: runOf(v, events).state.status === "passed",
    at: runLogOf(calibrationLog(v, events)).findLast((e) => e.type === "routine-result")?.at ?? "",
  }));
  const { gateway } = scanState(log, ground.vehicle.gateway);
  const clearedAt = log.findLast((e) => e.type === "cleared")?.at;
  const passed = runs.filter((r) => r.passed);
  const fitted = fittedTo(ground.vehicle, ground.intake.answers).map((f) => f.system);
  return {
    volts,
    open: gateway !== "locked",
    lost: runs.map((r) => r.system),
    learned: passed.map((r) => r.system),
    provesOnRoad: runs
      .map((r) => r.system)
      .filter((s) => mannersOf(ground.vehicle.id, s).provesOnRoad),
    driven: eventsOf(events, "road-check").some((e) => e.body.result !== "untried"),
    cleared: clearedAt !== undefined && passed.every((r) => clearedAt > r.at),
    // Some vehicles have more than whoever took them in was told.
    without: job.seed.includes("trim-other")
      ? []
      : ground.vehicle.fitted.map((f) => f.system).filter((s) => !fitted.includes(s)),
  };
}
