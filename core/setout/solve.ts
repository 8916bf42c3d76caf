import type { Adjustment, ObservationResult, SurveyNetwork } from "@/core/survey";
import { vehiclePoints } from "@/core/vehicle";
import { aim, type PlanAim } from "./aim";
import { PRINTED_TOE_SIGMA, seesToe, TOE_SIGMA } from "./causes";
import { displacement, NOWHERE, settlesTilt, stateAfter } from "./displace";
import { estimate, type Estimate } from "./estimate";
import { isByHand } from "./hands";
import { beforeNextCar, type Kept } from "./kept";
import { afterLaser, afterMove } from "./last-acts";
import { LAST_ACT_IDS, type LastActId } from "./last-act-ids";
import {
  disturb,
  epochNow,
  keepStanding,
  leanAnew,
  leanNow,
  moveVehicle,
  newHistory,
  parkIn,
  readLean,
  readSince,
  seatNow,
  rollIn,
  ROLLED_IN,
  type History,
  type PlanReading,
} from "./history";
import type { BoardState, Move } from "./moves";
import { addDebt, NO_DEBT, owingParts, payDebt, type Debt, type PlanPart } from "./proof";
import {
  datumFrame,
  datumLine,
  nominalTarget,
  targetPose,
  wantedHeight,
  wantedRail,
  wantedTilt,
  type DatumFrame,
  type SetOutPlan,
} from "./plan";
import { planeFor, type Plane } from "./plane";
import {
  keepTrack,
  newTrack,
  setTrack,
  trackNow,
  widenTrack,
  type ScalarEstimate,
  type ScalarTrack,
} from "./scalar";
import { inSchool } from "./schools";
import type { ScalarId, Slot } from "./slot";
import { carrierPoints, slotsFor } from "./slots";
import { stateAtRest, withBooster, type StandState } from "./stand";
import {
  moveWidening,
  RAIL_LOOSE,
  railWidening,
  TOUCHES,
  WATCHED_MM,
  type TouchKind,
  type Widening,
} from "./touch";
import { BAY, type BayWalls } from "./walls";
import { slotValue } from "./words";

/**
 * What happened in a setup, in order. Struck readings are simply not in the list. `target` names
 * what was read, touched or moved where there is more than one; a moved vehicle reaches all.
 */
export type SetOutEntry = { target?: string } &
  /** `anew`: what it goes through was seated anew before it. */
  (
    | {
        kind: "reading";
        id: string;
        slotId: string;
        shown: number;
        sigma: number;
        anew?: boolean;
        /** Which instrument, where several of a kind are in use. */
        instrument?: string;
      }
    /** A reading that was struck, and what it went through was seated anew: that stays so. */
    | { kind: "seated"; id: string; slotId: string }
    | { kind: "touch"; id: string; touch: TouchKind }
    /** Nobody touched the stand since the last job set it out; the car is another one. */
    | { kind: "kept"; id: string; kept: Kept; goneMm: number }
    /** The vehicle was said to stand in a bay. */
    | { kind: "parked"; id: string; bay: BayWalls }
    /** A proposed move that was carried out; `rest` are the moves of the same plan still to do. */
    | { kind: "move"; id: string; move: Move; rest: Move[] }
  );

/** One reading as the solution sees it. */
export type ReadingState = {
  id: string;
  slotId: string;
  shown: number;
  sigma: number;
  /**
   * "counts": part of the present knowledge. "doubt": taken before something moved; it no longer
   * proves anything.
   */
  state: "counts" | "doubt";
  /** Statistics, while the reading counts. */
  result: ObservationResult | null;
};

/** Everything the readings say about one target. */
export type SetOutSolution = {
  /** Its name in the setup. */
  id: string;
  /** The body of the network that is its carrier's present epoch. */
  body: string;
  plan: SetOutPlan;
  slots: Slot[];
  frame: DatumFrame;
  network: SurveyNetwork;
  adjustment: Adjustment | null;
  /** Why there is no adjustment. */
  problem: string | null;
  /** Readings of this target that contradict the rest, likeliest first. */
  suspects: string[];
  /** A move or touch of its carrier did not end where it was told to; the readings since say where. */
  strayed: boolean;
  aim: PlanAim | null;
  scalars: Record<ScalarId, ScalarEstimate>;
  /** Best knowledge of the board; before any reading, the place the sheet wants. */
  board: BoardState;
  /** Covariance of its place in the plan: x mm, y mm, heading rad; null while nothing solves. */
  boardCovariance: number[][] | null;
  /** What is judged together in the plan; null while nothing solves. */
  plane: Plane | null;
  /** Bodies of the other targets its readings run to, by target. */
  mates: Record<string, string>;
  /** The seatings that readings of now go through, by what is seated. */
  seats: Record<string, string>;
  /** The names of its carrier's lean now; null for what lies on the floor. */
  leans: { pitch: string | null; roll: string | null };
  target: BoardState;
  readings: ReadingState[];
  standState: StandState;
  /** Its adjusters are to be put at their marks before anything is read. */
  toMarks: boolean;
  /** Moves of the last plan that are still to be done. */
  restMoves: Move[];
  /** Last acts of its stand that are still to be done, in their order. */
  lacking: LastActId[];
  /** The board hangs where the laser would sit: a reading by it takes the board off again. */
  laserOff: boolean;
  /** Quantities of which nothing was read since they were last disturbed. */
  unproved: ("plan" | ScalarId)[];
  /** Parts of the plan that were shifted noticeably and not seen by a reading since. */
  owing: PlanPart[];
  /**
   * How far the stand has gone since the last touch, as readings before and after it say; null
   * until they can.
   */
  shifted: Shift | null;
};

/**
 * A shift between two states of knowledge: its size, its standard uncertainty along it, and whether
 * it is beyond doubt.
 */
export type Shift = { mm: number; sigmaMm: number; turnRad: number; sure: boolean };

/**
 * One target of a setup: where it belongs, and which carrier holds it. `id` is its own in the scene;
 * the plan's target keeps the sheet's.
 */
export type ScenePlace = { id: string; carrier: string; plan: SetOutPlan };

/** The targets that stand at the same time, all about one vehicle. */
export type Scene = readonly [ScenePlace, ...ScenePlace[]];

/** What everything that was read in a setup says of each of its targets, and of all together. */
export type SceneSolution = { estimate: Estimate; targets: Map<string, SetOutSolution> };

/** What is known of one target while its history is walked. */
type Progress = ScenePlace & {
  slots: Map<string, Slot>;
  frame: DatumFrame;
  levels: Record<ScalarId, ScalarTrack>;
  adjusters: StandState;
  restMoves: Move[];
  /** Its adjusters were put at their marks. */
  atMarks: boolean;
  /** Last acts that were done and still stand. */
  finished: LastActId[];
  debt: Debt;
  /** The epoch in which it was last known before it was touched. */
  touchedAfter: string | null;
  doubted: Set<string>;
};

const bySlot = (plan: SetOutPlan): Map<string, Slot> =>
  new Map(slotsFor(plan).map((s) => [s.id, s]));

/** Numbers that belong to what carries a target, not to the target on it. */
const CARRIED = ["height", "pitch", "roll"] as const;

/**
 * A target before anything is read. One on a carrier that holds others shares its height and tilts
 * with them. @throws MissingThrustError
 */
function begin({ id, carrier, plan }: ScenePlace, before: readonly Progress[]): Progress {
  const tilt = wantedTilt(plan);
  const mate = before.find((x) => x.carrier === carrier);
  return {
    id,
    carrier,
    plan,
    slots: bySlot(plan),
    frame: datumFrame(plan),
    levels: {
      height: newTrack(wantedHeight(plan), ROLLED_IN.heightMm),
      pitch: newTrack(tilt.pitch.value, ROLLED_IN.tiltRad),
      roll: newTrack(tilt.roll.value, ROLLED_IN.tiltRad),
      ...(mate && Object.fromEntries(CARRIED.map((c) => [c, mate.levels[c]]))),
      rail: newTrack(wantedRail(plan.target), ROLLED_IN.railMm),
    },
    adjusters: stateAtRest(plan.stand),
    atMarks: false,
    restMoves: [],
    finished: [],
    debt: NO_DEBT,
    touchedAfter: null,
    doubted: new Set(),
  };
}

/**
 * What was read in the plan of what carries a target since that was last disturbed, for whichever of
 * the targets it holds.
 */
const freshReadings = (h: History, p: Progress) => {
  const { body } = epochNow(h, p.carrier);
  return h.readings.filter((r) => r.body === body || r.mate?.body === body);
};

/** Readings of the plan that are of what carries a target, at either of their ends. */
const ownReadings = (h: History, p: Progress): PlanReading[] => {
  const bodies = new Set(h.epochs.get(p.carrier)!.map((e) => e.body));
  return h.readings.filter((r) => bodies.has(r.body) || (r.mate && bodies.has(r.mate.body)));
};

/** The debt that the readings since the last disturbance leave standing. */
function settleDebt(h: History, p: Progress, known?: Estimate): Debt {
  const fresh = freshReadings(h, p);
  if (p.debt === NO_DEBT || fresh.length === 0) return p.debt;
  const { vehicle } = p.plan;
  const after = known ?? estimate(h, vehicle);
  // What another target contradicts itself in is none of this one's proof.
  const own = new Set(ownReadings(h, p).map((r) => r.id));
  if (!after.adjustment || after.suspects.some((id) => own.has(id))) return p.debt;
  const without = h.readings.filter((r) => !fresh.includes(r));
  const before = estimate(h, vehicle, without);
  if (!before.adjustment) return p.debt;
  const variances = (a: Adjustment): number[] =>
    aim(a, p.plan.target, p.frame, epochNow(h, p.carrier).body).covariance.map((row, i) => row[i]!);
  return payDebt(p.debt, variances(before.adjustment), variances(after.adjustment));
}

/** Whether nothing was read of a carrier yet, nor was it moved or touched. */
const isFresh = (h: History, p: Progress): boolean =>
  h.epochs.get(p.carrier)!.length === 1 &&
  ownReadings(h, p).length === 0 &&
  Object.values(p.levels).every((l) => l.readings.length === 0);

/** Takes down one reading. */
function read(
  h: History,
  p: Progress,
  mate: Mate | undefined,
  e: Extract<SetOutEntry, { kind: "reading" }>,
): void {
  const slot = p.slots.get(e.slotId);
  // A reading this plan cannot place stays in the log and on the slip, but proves nothing.
  if (!slot || (slot.mate !== undefined && !mate)) return;
  p.restMoves = [];
  // The laser sits where the board hangs: whoever reads it has taken the board off again.
  if (slot.instrument === "laser" && p.plan.stand.laserOn === "hook")
    p.finished = afterLaser(p.finished);
  if (slot.observes.in === "plan")
    h.readings.push({
      id: e.id,
      target: p.id,
      body: slot.ofVehicle ? mate!.body : epochNow(h, p.carrier).body,
      ...(mate ? { mate } : {}),
      slot,
      shown: e.shown,
      sigma: e.sigma,
      ...(e.instrument ? { instrument: e.instrument } : {}),
      ...(slot.seat ? { seat: seatNow(h, slot.seat.id, e.anew ?? false) } : {}),
    });
  else {
    const { in: part } = slot.observes;
    const reading = { id: e.id, value: slot.toModel(e.shown), sigma: e.sigma };
    const { against } = slot;
    p.levels[part].readings.push({ ...reading, sigma: Math.hypot(e.sigma, against?.sigma ?? 0) });
    if (part === "pitch" || part === "roll")
      readLean(h, p.carrier, part, { ...reading, ...(against ? { against } : {}) });
    if (part === "height") epochNow(h, p.carrier).heightMm = trackNow(p.levels.height).value;
  }
}

/** What a slot's readings go through is seated anew. */
function seated(h: History, p: Progress, slotId: string): void {
  const seat = p.slots.get(slotId)?.seat;
  if (seat) seatNow(h, seat.id, true);
}

/**
 * What a disturbance of a carrier does to what was known of all that it holds.
 *
 * @returns how far its lean was told to change
 */
function unsettle(
  h: History,
  [p, ...others]: readonly [Progress, ...Progress[]],
  widening: Widening,
  move: Move | null,
): { pitch: number; roll: number } {
  const now = {
    height: trackNow(p.levels.height).value,
    pitch: trackNow(p.levels.pitch).value,
    roll: trackNow(p.levels.roll).value,
  };
  const level = move && settlesTilt(move) ? move.after : null;
  const lifted = move?.kind === "crank" || move?.kind === "booster" ? move.upMm : 0;
  const widen = (id: (typeof CARRIED)[number], sigma: number, shift: number): void => {
    const gone = widenTrack(p.levels[id], sigma, shift);
    for (const o of [p, ...others]) for (const r of gone) o.doubted.add(r);
  };
  const leaned = {
    pitch: level ? level.pitchRad - now.pitch : 0,
    roll: level ? level.rollRad - now.roll : 0,
  };
  // What was watched on a live instrument is a reading of its own, and not told twice.
  if (move?.kind === "crank" && move.until && move.until.ended === undefined) {
    const gone = setTrack(p.levels.height, move.after.heightMm, WATCHED_MM);
    for (const o of [p, ...others]) for (const r of gone) o.doubted.add(r);
  } else widen("height", widening.heightMm, level ? level.heightMm - now.height : lifted);
  widen("pitch", widening.tiltRad, leaned.pitch);
  widen("roll", widening.tiltRad, leaned.roll);
  if (widening.planMm === 0) return leaned;
  for (const o of [p, ...others]) {
    o.debt = addDebt(settleDebt(h, o), widening.planMm, widening.headingRad);
    for (const r of freshReadings(h, o)) o.doubted.add(r.id);
  }
  return leaned;
}

/** A carrier stands in a new epoch: how high its board is then, and what became of its lean. */
function standAnew(
  h: History,
  p: Progress,
  widening: Widening,
  leaned: { pitch: number; roll: number },
): void {
  leanAnew(h, p.carrier, widening.tiltRad, leaned);
  epochNow(h, p.carrier).heightMm = trackNow(p.levels.height).value;
}

/** What becomes of where a target hangs on the rail of its beam. */
function unsettleRail(p: Progress, sigmaMm: number, byMm: number): void {
  for (const r of widenTrack(p.levels.rail, sigmaMm, byMm)) p.doubted.add(r);
}

/** What carries a target stands as the last job left it. Whatever was done before is not undone by it. */
function keep(h: History, p: Progress, { kept, goneMm }: Extract<SetOutEntry, { kind: "kept" }>) {
  if (!isFresh(h, p)) return;
  const now = beforeNextCar(kept, goneMm);
  keepStanding(h, p.carrier, now);
  for (const id of CARRIED) keepTrack(p.levels[id], now[id]);
  p.adjusters = { joints: [...now.adjusters] };
  p.atMarks = true;
  p.finished = [...now.finished];
}

/** A target's carrier is moved by hand. */
function carryOut(
  h: History,
  p: Progress,
  others: readonly Progress[],
  { move, rest }: Extract<SetOutEntry, { kind: "move" }>,
): void {
  if (move.kind === "zero") for (const o of [p, ...others]) o.atMarks = true;
  // Nothing is known of it yet that could be lost.
  if (move.kind === "zero" && isFresh(h, p)) {
    for (const o of [p, ...others]) o.adjusters = stateAfter(o.adjusters, move);
    p.restMoves = rest;
    return;
  }
  const widening = moveWidening(move);
  const at: BoardState = {
    pose: epochNow(h, p.carrier).start,
    heightMm: trackNow(p.levels.height).value,
    pitchRad: trackNow(p.levels.pitch).value,
    rollRad: trackNow(p.levels.roll).value,
  };
  const by = displacement(p.plan.stand, p.adjusters, move, at);
  const leaned = unsettle(h, [p, ...others], widening, move);
  // Only the board that is slid goes along the rail; the others of its beam stay on it.
  if (move.kind === "rail") unsettleRail(p, railWidening(move), move.leftMm);
  for (const o of [p, ...others]) {
    o.touchedAfter = null;
    o.adjusters = stateAfter(o.adjusters, move);
    o.finished = afterMove(o.finished, move);
    if (move.kind === "booster") {
      o.plan = { ...o.plan, stand: withBooster(o.plan.stand, move.booster) };
      o.slots = bySlot(o.plan);
    }
  }
  if (widening.planMm > 0) disturb(h, p.carrier, widening, by);
  standAnew(h, p, widening, leaned);
  p.restMoves = rest;
}

/** A carrier is touched, or the vehicle itself is moved. */
function touch(h: History, touched: readonly Progress[], kind: TouchKind): void {
  const { widening } = TOUCHES[kind];
  const act = LAST_ACT_IDS.find((id) => id === kind);
  for (const p of touched) {
    // Boards of one beam are hung at once: each would disturb what was proved of the others.
    if (act) p.finished = [...p.finished.filter((id) => id !== act), act];
    // Several touches in a row are measured from the last time it was known.
    if (readSince(h, p.carrier)) p.touchedAfter = epochNow(h, p.carrier).body;
    if (p.plan.target.beam) unsettleRail(p, RAIL_LOOSE[kind], 0);
    p.restMoves = [];
  }
  const carriers = [...new Set(touched.map((p) => p.carrier))];
  const firsts = carriers.map((carrier) => {
    const [first, ...others] = touched.filter((p) => p.carrier === carrier);
    return { first: first!, leaned: unsettle(h, [first!, ...others], widening, null) };
  });
  if (kind === "moved-car") {
    // How far its hubs are from the walls is another matter now.
    for (const r of h.readings)
      if (r.slot.ofVehicle) touched.find((p) => p.id === r.target)?.doubted.add(r.id);
    return moveVehicle(h, widening);
  }
  for (const { first, leaned } of firsts) {
    disturb(h, first.carrier, widening, NOWHERE);
    standAnew(h, first, widening, leaned);
  }
}

/**
 * Solves a setup from its history: one network of all its targets, every reading in the epoch of
 * its carrier it was taken in, vehicle points known once. A disturbance begins a new epoch tied to
 * the one before; the readings before it stop counting as proof, and go on bearing witness.
 *
 * @param scene the targets of the setup, all about one vehicle
 * @param only the one target that is asked for; all of them when not given
 * @throws MissingThrustError when a sheet's datum cannot be known
 */
export function solveScene(
  scene: Scene,
  entries: readonly SetOutEntry[],
  only?: string,
): SceneSolution {
  const all = scene.reduce<Progress[]>((before, place) => [...before, begin(place, before)], []);
  const h = newHistory(
    scene.some(({ plan }) => plan.target.datum === "thrust"),
    toeSigma(scene[0].plan),
  );
  for (const p of all) {
    if (h.epochs.has(p.carrier)) continue;
    const { pitch, roll } = wantedTilt(p.plan);
    const upright = {
      heightMm: wantedHeight(p.plan),
      pitchRad: pitch.value,
      rollRad: roll.value,
    };
    rollIn(
      h,
      p.carrier,
      nominalTarget(p.plan),
      carrierPoints(p.plan),
      isByHand(p.plan.target) ? null : upright,
      p.plan.target.kind === "mark",
    );
  }
  h.walls = wallsOf(all, entries);
  for (const e of entries) {
    const p = all.find((x) => x.id === e.target) ?? all[0]!;
    const onIt = all.filter((x) => x.carrier === p.carrier);
    if (e.kind === "reading") read(h, p, mateOf(h, all, p, p.slots.get(e.slotId)), e);
    else if (e.kind === "parked") parkIn(h, e.bay);
    else if (e.kind === "seated") seated(h, p, e.slotId);
    else if (e.kind === "kept") keep(h, p, e);
    else if (e.kind === "touch") touch(h, e.touch === "moved-car" ? all : onIt, e.touch);
    else
      carryOut(
        h,
        p,
        onIt.filter((x) => x !== p),
        e,
      );
  }
  const known = estimate(h, scene[0].plan.vehicle);
  const asked = only === undefined ? all : all.filter((p) => p.id === only);
  return {
    estimate: known,
    targets: new Map(asked.map((p) => [p.id, solutionOf(h, p, all, known, entries)])),
  };
}

/** Whether a reading says something of a target: taken of it, of what carries it, or running to it. */
function concerns(
  e: Extract<SetOutEntry, { kind: "reading" }>,
  p: Progress,
  all: readonly Progress[],
  mine: ReadonlySet<string>,
): boolean {
  if ((e.target ?? p.id) === p.id || mine.has(e.id)) return true;
  const at = all.find((x) => x.id === e.target);
  const of = at?.slots.get(e.slotId)?.observes.in;
  return at?.carrier === p.carrier && CARRIED.some((c) => c === of);
}

/** The target of the same setup that a reading runs to, where it stands too. */
const mateFor = (
  all: readonly Progress[],
  p: Progress,
  slot: Slot | undefined,
): Progress | undefined => (slot?.mate === undefined ? undefined : partner(all, p, slot.mate));

type Mate = NonNullable<PlanReading["mate"]>;

/** What a reading runs to, as it lies now. */
function mateOf(
  h: History,
  all: readonly Progress[],
  p: Progress,
  slot: Slot | undefined,
): Mate | undefined {
  if (slot?.mate === BAY)
    return h.bay === null ? undefined : { target: BAY, body: epochNow(h, h.bay).body };
  const mate = mateFor(all, p, slot);
  return mate && { target: mate.id, body: epochNow(h, mate.carrier).body };
}

/**
 * The walls that are to be looked at: those the way one sets out runs to, or that something was read to.
 * A bay nobody measures to would only make every estimate larger.
 */
function wallsOf(all: readonly Progress[], entries: readonly SetOutEntry[]): Set<string> {
  const read = new Set(
    entries.flatMap((e) => {
      const p = e.kind === "reading" && all.find((x) => x.id === e.target);
      return p ? (p.slots.get(e.slotId)?.wall?.id ?? []) : [];
    }),
  );
  return new Set([
    ...read,
    ...all.flatMap(({ plan, slots }) =>
      [...slots.values()].flatMap((s) => (s.wall && inSchool(plan, s) ? [s.wall.id] : [])),
    ),
  ]);
}

/** Another target of the setup by the sheet's own name for it. */
const partner = (all: readonly Progress[], p: Progress, targetId: string): Progress | undefined =>
  all.find((x) => x.plan.target.id === targetId && x.plan.setup === p.plan.setup);

/** Whether a slot runs to no wall, or to one that is looked at. */
const isLookedAt = (h: History, { wall }: Slot): boolean => !wall || h.walls.has(wall.id);

/** Whether anything was ever read of a target: before that nobody has laid it down. */
const isBegun = (h: History, p: Progress): boolean => ownReadings(h, p).length > 0;

/**
 * How well the toe of the rear wheels is known before anything is read of them: a printout is believed
 * where nothing in the kit could tell, and where there is none they point as cars are made.
 */
const toeSigma = ({ rearToe, rearToeSigmaRad, instruments }: SetOutPlan): number =>
  rearToeSigmaRad ??
  (!rearToe || instruments.some((i) => seesToe(i.kind)) ? TOE_SIGMA : PRINTED_TOE_SIGMA);

/** What the only target of a setup is called where nobody names it. */
const ONLY = "board";

/** Solves a set-out of one target on one stand. @throws MissingThrustError */
export const solveSetOut = (plan: SetOutPlan, entries: readonly SetOutEntry[]): SetOutSolution =>
  solveScene([{ id: ONLY, carrier: "stand", plan }], entries).targets.get(ONLY)!;

/** One target as the whole estimate knows it. */
function solutionOf(
  h: History,
  p: Progress,
  all: readonly Progress[],
  known: Estimate,
  entries: readonly SetOutEntry[],
): SetOutSolution {
  const { adjustment } = known;
  const { body, start } = epochNow(h, p.carrier);
  const placed = adjustment?.bodies.find((b) => b.id === body);
  const fresh = freshReadings(h, p);
  const mine = new Set(
    [...ownReadings(h, p), ...h.readings.filter((r) => r.target === p.id)].map((r) => r.id),
  );
  const scalars = {
    height: trackNow(p.levels.height),
    pitch: leanKnown(h, p, "pitch", known),
    roll: leanKnown(h, p, "roll", known),
    rail: trackNow(p.levels.rail),
  };
  const statistics = new Map<string, ObservationResult>();
  for (const r of [
    ...(adjustment?.residuals ?? []),
    ...Object.values(scalars).flatMap((s) => s.residuals),
  ])
    statistics.set(r.id, r);
  const { tolerance, beam } = p.plan.target;
  const needed: ("plan" | ScalarId)[] = ["plan"];
  if (tolerance.heightMm !== undefined) needed.push("height");
  if (beam) needed.push("rail");
  if (tolerance.pitchDeg !== undefined) needed.push("pitch");
  if (tolerance.rollDeg !== undefined) needed.push("roll");
  const tilt = wantedTilt(p.plan);
  const points = adjustment?.points ?? vehiclePoints(p.plan.vehicle);
  const lean = new Set([...scalars.pitch.residuals, ...scalars.roll.residuals].map((r) => r.id));
  const suspects = known.suspects.filter((id) => mine.has(id) || lean.has(id));
  const lacking = isByHand(p.plan.target)
    ? []
    : (p.plan.stand.lastActs ?? []).filter((id) => !p.finished.includes(id));
  /** A figure that was watched as it was set need not be read before the stand is finished, only after. */
  const proved = (q: ScalarId): boolean =>
    p.levels[q].readings.length > 0 ||
    p.levels[q].kept === true ||
    (p.levels[q].watched && lacking.length > 0);
  const mates = Object.fromEntries(
    [...p.slots.values()].flatMap((s) => {
      if (s.mate === BAY) return h.bay === null ? [] : [[BAY, epochNow(h, h.bay).body]];
      const mate = mateFor(all, p, s);
      return mate && isBegun(h, mate) ? [[s.mate!, epochNow(h, mate.carrier).body]] : [];
    }),
  );
  const rail = beam ? { mm: scalars.rail.value, variance: scalars.rail.variance } : null;
  const aimed = adjustment ? aim(adjustment, p.plan.target, p.frame, body, rail) : null;
  const bodyOf = (targetId: string): string | null => {
    const other = partner(all, p, targetId);
    const counts = targetId === p.plan.target.id || p.plan.against?.includes(targetId);
    return other && counts && isBegun(h, other) ? epochNow(h, other.carrier).body : null;
  };
  const wanted = targetPose(p.plan.target, datumLine(p.frame, points, adjustment?.nuisances));
  const judged = adjustment && aimed && planeFor(adjustment, aimed, p.frame, p.plan, body, bodyOf);
  return {
    id: p.id,
    body,
    plan: p.plan,
    slots: [...p.slots.values()].filter(
      (s) => s.mate === undefined || (s.mate in mates && isLookedAt(h, s)),
    ),
    frame: p.frame,
    network: known.network,
    adjustment,
    problem: adjustment ? null : unsolved(known.culprit, h),
    suspects,
    strayed: known.missed.includes(body),
    aim: aimed,
    plane: judged && judged.plane,
    mates,
    seats: Object.fromEntries([...h.seats.keys()].map((id) => [id, seatNow(h, id, false)])),
    leans: { pitch: leanNow(h, p.carrier, "pitch"), roll: leanNow(h, p.carrier, "roll") },
    scalars,
    board: {
      pose: placed ?? start,
      heightMm: scalars.height.value,
      pitchRad: scalars.pitch.value,
      rollRad: scalars.roll.value,
    },
    boardCovariance: placed?.covariance ?? null,
    target: {
      pose: judged?.pose ?? wanted,
      heightMm: wantedHeight(p.plan),
      pitchRad: tilt.pitch.value,
      rollRad: tilt.roll.value,
    },
    readings: entries.flatMap((e): ReadingState[] => {
      if (e.kind !== "reading" || !concerns(e, p, all, mine)) return [];
      const state = p.doubted.has(e.id) ? "doubt" : "counts";
      const { id, slotId, shown, sigma } = e;
      return [{ id, slotId, shown, sigma, state, result: statistics.get(id) ?? null }];
    }),
    standState: p.adjusters,
    toMarks:
      !isByHand(p.plan.target) && p.plan.stand.joints.length > 0 && !p.atMarks && isFresh(h, p),
    restMoves: p.restMoves,
    lacking,
    laserOff: p.plan.stand.laserOn === "hook" && p.finished.includes("hung"),
    unproved: needed.filter((q) => (q === "plan" ? fresh.length === 0 : !proved(q))),
    owing: owingParts(settleDebt(h, p, known), p.plan),
    shifted:
      adjustment && suspects.length === 0 && p.touchedAfter && fresh.length > 0
        ? shiftOf(adjustment, p.touchedAfter, body)
        : null,
  };
}

/**
 * A carrier's lean as the whole estimate knows it: what is read in the plan at two heights says
 * something of it too. By its own readings alone while nothing solves.
 */
function leanKnown(
  h: History,
  p: Progress,
  part: "pitch" | "roll",
  { adjustment, suspects }: Estimate,
): ScalarEstimate {
  const alone = trackNow(p.levels[part]);
  const name = leanNow(h, p.carrier, part);
  const cause = adjustment?.nuisances.find((n) => n.id === name);
  if (!cause) return alone;
  const own = new Set(p.levels[part].readings.map((r) => r.id));
  return {
    value: cause.value,
    variance: cause.sigma ** 2,
    residuals: adjustment!.residuals.filter((r) => own.has(r.id)),
    suspect: suspects.find((id) => own.has(id)) ?? null,
  };
}

/**
 * Why the readings do not solve, in the words of the reading at fault: its id is nobody's business.
 */
function unsolved(culprit: string | null, h: History): string {
  const reading = h.readings.find((r) => r.id === culprit);
  if (!reading)
    return "The readings do not fix where the board stands. Take the one that is asked for next.";
  const { slot, shown } = reading;
  return `The reading “${slot.name}”, ${slotValue(slot, shown)}, goes with no place of the board. Strike that line and read it again.`;
}

/**
 * The shift of a carrier from one epoch to another, with the uncertainty along its own direction;
 * sure beyond 3.29 sigma (0.1 %).
 */
function shiftOf(a: Adjustment, from: string, to: string): Shift {
  const { index, order, covariance, values } = a.joint;
  const [f, t] = [index[from]!, index[to]!];
  const [dx, dy, turnRad] = [0, 1, 2].map((i) => values[t + i]! - values[f + i]!) as [
    number,
    number,
    number,
  ];
  /** Covariance of two parts of the difference. */
  const cov = (i: number, j: number): number =>
    covariance[(t + i) * order + t + j]! +
    covariance[(f + i) * order + f + j]! -
    covariance[(t + i) * order + f + j]! -
    covariance[(f + i) * order + t + j]!;
  const mm = Math.hypot(dx, dy);
  const [ux, uy] = mm > 0 ? [dx / mm, dy / mm] : [1, 0];
  const variance = ux * ux * cov(0, 0) + 2 * ux * uy * cov(0, 1) + uy * uy * cov(1, 1);
  const sigmaMm = Math.sqrt(Math.max(0, variance));
  const sigmaTurn = Math.sqrt(Math.max(0, cov(2, 2)));
  const sure = mm > 3.29 * sigmaMm || Math.abs(turnRad) > 3.29 * sigmaTurn;
  return { mm, sigmaMm, turnRad, sure };
}
