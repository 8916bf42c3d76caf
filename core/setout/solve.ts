import {
  adjustNetwork,
  SurveyError,
  type Adjustment,
  type Observation,
  type ObservationResult,
  type SurveyNetwork,
} from "@/core/survey";
import { degToRad } from "@/core/units";
import { vehiclePoints } from "@/core/vehicle";
import { aim, STAND, type PlanAim } from "./aim";
import type { BoardState, Move } from "./moves";
import { addDebt, NO_DEBT, owingParts, payDebt, type Debt, type PlanPart } from "./proof";
import {
  datumFrame,
  datumLine,
  nominalTarget,
  targetPose,
  wantedHeight,
  wantedTilt,
  type DatumFrame,
  type SetOutPlan,
} from "./plan";
import { estimateScalar, type ScalarEstimate } from "./scalar";
import type { ScalarId, Slot } from "./slot";
import { slotsFor, standPoints } from "./slots";
import {
  baseFor,
  boardAt,
  stateAtRest,
  withBooster,
  type PlanPose,
  type StandState,
} from "./stand";
import { slotValue } from "./words";
import { moveWidening, TOUCHES, type TouchKind, type Widening } from "./touch";

/** What happened at the stand, in order. Struck readings are simply not in the list. */
export type SetOutEntry =
  | { kind: "reading"; id: string; slotId: string; shown: number; sigma: number }
  | { kind: "touch"; id: string; touch: TouchKind }
  /** A proposed move that was carried out; `rest` are the moves of the same plan still to do. */
  | { kind: "move"; id: string; move: Move; rest: Move[] };

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

/** Everything the readings say about the board. */
export type SetOutSolution = {
  plan: SetOutPlan;
  slots: Slot[];
  frame: DatumFrame;
  network: SurveyNetwork;
  adjustment: Adjustment | null;
  /** Why there is no adjustment. */
  problem: string | null;
  aim: PlanAim | null;
  scalars: Record<ScalarId, ScalarEstimate>;
  /** Best knowledge of the board; before any reading, the place the sheet wants. */
  board: BoardState;
  target: BoardState;
  readings: ReadingState[];
  standState: StandState;
  /** Moves of the last plan that are still to be done. */
  restMoves: Move[];
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
 * Why the readings do not solve, in the words of the reading at fault: its id is nobody's business.
 */
function unsolved(
  error: SurveyError,
  readings: readonly Reading[],
  slots: ReadonlyMap<string, Slot>,
): string {
  const reading = readings.find((r) => r.id === error.culprit);
  const slot = reading && slots.get(reading.slotId);
  if (!reading || !slot)
    return "The readings do not fix where the board stands. Take the one that is asked for next.";
  return `The reading “${slot.name}”, ${slotValue(slot, reading.shown)}, goes with no place of the board. Strike that line and read it again.`;
}

/**
 * The stand was rolled in by eye: this is how well "about there" is known before the first reading.
 */
const ROLLED_IN = { planMm: 300, headingRad: degToRad(10), heightMm: 150, tiltRad: degToRad(2) };

type Reading = Extract<SetOutEntry, { kind: "reading" }>;
type Prior = { pose: PlanPose; covariance: number[][] };

const diagonal = (a: number, b: number, c: number): number[][] => [
  [a * a, 0, 0],
  [0, b * b, 0],
  [0, 0, c * c],
];

/**
 * The network of one epoch: vehicle points with their priors, the stand with its prior, the plan
 * readings.
 */
function networkFor(
  plan: SetOutPlan,
  slots: Map<string, Slot>,
  prior: Prior,
  readings: Reading[],
): SurveyNetwork {
  const observations = readings.flatMap((r): Observation[] => {
    const slot = slots.get(r.slotId);
    return slot?.observes.in === "plan"
      ? [slot.observes.observation(r.id, slot.toModel(r.shown), r.sigma)]
      : [];
  });
  return {
    points: vehiclePoints(plan.vehicle).map(({ id, xMm, yMm, sigmaMm }) => ({
      id,
      xMm,
      yMm,
      sigmaMm,
    })),
    bodies: [
      { id: STAND, ...prior.pose, points: standPoints(plan), priorCovariance: prior.covariance },
    ],
    observations,
  };
}

/**
 * Solves the set-out from its history.
 *
 * Between two disturbances (touches, moves) all readings of a quantity enter one adjustment. At a
 * disturbance the posterior becomes the prior of what follows, widened by the disturbance's own
 * covariance, and the readings before it stop counting as proof. What is neglected: the posterior
 * correlation between vehicle points and stand is dropped at a disturbance; that is at most the hub
 * uncertainty (about 1 mm), small against the widening.
 *
 * @throws MissingThrustError when the sheet's datum cannot be known
 */
export function solveSetOut(plan: SetOutPlan, entries: readonly SetOutEntry[]): SetOutSolution {
  // A booster changes the stand's own figures: the readings after it are those of the boosted
  // stand.
  let boosted = plan;
  let slots = slotsFor(plan);
  let slotById = new Map(slots.map((s) => [s.id, s]));
  const frame = datumFrame(plan);
  const nominal = nominalTarget(plan);
  const tilt = wantedTilt(plan);

  let prior: Prior = {
    pose: nominal,
    covariance: diagonal(ROLLED_IN.planMm, ROLLED_IN.planMm, ROLLED_IN.headingRad),
  };
  let planReadings: Reading[] = [];
  const loosest = {
    height: ROLLED_IN.heightMm ** 2,
    pitch: ROLLED_IN.tiltRad ** 2,
    roll: ROLLED_IN.tiltRad ** 2,
  };
  const scalarPrior: Record<ScalarId, { value: number; variance: number }> = {
    height: { value: wantedHeight(plan), variance: loosest.height },
    pitch: { value: tilt.pitch.value, variance: loosest.pitch },
    roll: { value: tilt.roll.value, variance: loosest.roll },
  };
  const scalarReadings: Record<ScalarId, Reading[]> = { height: [], pitch: [], roll: [] };
  const doubted = new Set<string>();
  let standState = stateAtRest(plan.stand);
  let restMoves: Move[] = [];
  let debt: Debt = NO_DEBT;
  let beforeTouch: { pose: PlanPose; covariance: number[][] } | null = null;

  const scalar = (id: ScalarId): ScalarEstimate =>
    estimateScalar(
      scalarPrior[id],
      scalarReadings[id].map((r) => ({
        id: r.id,
        value: slotById.get(r.slotId)!.toModel(r.shown),
        sigma: r.sigma,
      })),
    );

  /** Closes an epoch of the plan: what is known now, or null when the readings do not solve. */
  const closePlan = (): {
    adjustment: Adjustment | null;
    problem: string | null;
    network: SurveyNetwork;
  } => {
    const network = networkFor(plan, slotById, prior, planReadings);
    try {
      return { adjustment: adjustNetwork(network), problem: null, network };
    } catch (error) {
      if (!(error instanceof SurveyError)) throw error;
      return { adjustment: null, problem: unsolved(error, planReadings, slotById), network };
    }
  };

  /** The debt that the readings of this epoch leave standing. */
  const settleDebt = (adjustment: Adjustment | null): Debt => {
    if (!adjustment || adjustment.suspect || planReadings.length === 0 || debt === NO_DEBT)
      return debt;
    const variances = (a: Adjustment): number[] =>
      aim(a, plan.sheet, frame).covariance.map((row, i) => row[i]!);
    return payDebt(
      debt,
      variances(adjustNetwork(networkFor(plan, slotById, prior, []))),
      variances(adjustment),
    );
  };

  const widenScalar = (id: ScalarId, sigma: number, shift: number): void => {
    if (sigma === 0 && shift === 0) return;
    const now = scalar(id);
    // A suspect epoch hands on its value but none of its confidence.
    const variance = now.suspect ? loosest[id] : now.variance;
    scalarPrior[id] = { value: now.value + shift, variance: variance + sigma * sigma };
    for (const r of scalarReadings[id]) doubted.add(r.id);
    scalarReadings[id] = [];
  };

  const disturb = (widening: Widening, move: Move | null): void => {
    const before = closePlan();
    const body = before.adjustment?.bodies[0];
    const heightBefore = scalar("height").value;
    const tiltBefore = { pitch: scalar("pitch").value, roll: scalar("roll").value };
    const pose: PlanPose = body ?? prior.pose;
    if (widening.planMm > 0) {
      debt = addDebt(settleDebt(before.adjustment), widening.planMm, widening.headingRad);
      const known =
        body && !before.adjustment!.suspect ? body.covariance : diagonal(100, 100, degToRad(5));
      const extra = diagonal(widening.planMm, widening.planMm, widening.headingRad);
      const moved = move ? carry(plan, standState, pose, move) : pose;
      prior = {
        pose: moved,
        covariance: known.map((row, i) => row.map((v, j) => v + extra[i]![j]!)),
      };
      for (const r of planReadings) doubted.add(r.id);
      planReadings = [];
    }
    const level = move && settlesTilt(move);
    widenScalar(
      "height",
      widening.heightMm,
      move?.kind === "crank" || move?.kind === "booster"
        ? move.upMm
        : level
          ? move.after.heightMm - heightBefore
          : 0,
    );
    widenScalar("pitch", widening.tiltRad, level ? move.after.pitchRad - tiltBefore.pitch : 0);
    widenScalar("roll", widening.tiltRad, level ? move.after.rollRad - tiltBefore.roll : 0);
    if (move?.kind === "booster") {
      boosted = { ...plan, stand: withBooster(boosted.stand, move.booster) };
      slots = slotsFor(boosted);
      slotById = new Map(slots.map((s) => [s.id, s]));
    }
    if (move && "joint" in move) {
      const by = move.kind === "yaw" ? move.turnRad : move.byMm;
      standState = { joints: standState.joints.map((v, i) => (i === move.joint ? v + by : v)) };
    }
  };

  for (const entry of entries) {
    if (entry.kind === "reading") {
      const slot = slotById.get(entry.slotId);
      if (!slot) continue; // a reading this plan cannot place stays in the log and on the slip, but proves nothing
      if (slot.observes.in === "plan") planReadings.push(entry);
      else scalarReadings[slot.observes.in].push(entry);
      restMoves = [];
    } else if (entry.kind === "touch") {
      const known = closePlan().adjustment;
      // Several touches in a row are measured from the last time it was known.
      if (planReadings.length > 0)
        beforeTouch =
          known && !known.suspect
            ? { pose: known.bodies[0]!, covariance: known.bodies[0]!.covariance }
            : null;
      disturb(TOUCHES[entry.touch].widening, null);
      restMoves = [];
    } else {
      beforeTouch = null;
      disturb(moveWidening(entry.move), entry.move);
      restMoves = entry.rest;
    }
  }

  const { adjustment, problem, network } = closePlan();
  const scalars = { height: scalar("height"), pitch: scalar("pitch"), roll: scalar("roll") };
  const statistics = new Map<string, ObservationResult>();
  for (const r of [
    ...(adjustment?.residuals ?? []),
    ...Object.values(scalars).flatMap((s) => s.residuals),
  ])
    statistics.set(r.id, r);

  const pose: PlanPose = adjustment?.bodies[0] ?? prior.pose;
  const points = adjustment?.points ?? vehiclePoints(plan.vehicle);
  const needed: ("plan" | ScalarId)[] = ["plan", "height"];
  if (plan.sheet.tolerance.pitchDeg !== undefined) needed.push("pitch");
  if (plan.sheet.tolerance.rollDeg !== undefined) needed.push("roll");
  return {
    plan: boosted,
    slots,
    frame,
    network,
    adjustment,
    problem,
    aim: adjustment ? aim(adjustment, plan.sheet, frame) : null,
    scalars,
    board: {
      pose,
      heightMm: scalars.height.value,
      pitchRad: scalars.pitch.value,
      rollRad: scalars.roll.value,
    },
    target: {
      pose: targetPose(plan.sheet, datumLine(frame, points)),
      heightMm: wantedHeight(plan),
      pitchRad: tilt.pitch.value,
      rollRad: tilt.roll.value,
    },
    readings: entries.flatMap((e) =>
      e.kind === "reading"
        ? [
            {
              id: e.id,
              slotId: e.slotId,
              shown: e.shown,
              sigma: e.sigma,
              state: doubted.has(e.id) ? ("doubt" as const) : ("counts" as const),
              result: statistics.get(e.id) ?? null,
            },
          ]
        : [],
    ),
    standState,
    restMoves,
    unproved: needed.filter((q) => (q === "plan" ? planReadings : scalarReadings[q]).length === 0),
    owing: owingParts(settleDebt(adjustment), plan.sheet),
    shifted:
      adjustment && !adjustment.suspect && beforeTouch && planReadings.length > 0
        ? shiftOf(beforeTouch, adjustment.bodies[0]!)
        : null,
  };
}

/**
 * The shift from one pose to another, with the uncertainty along its own direction; sure beyond
 * 3.29 sigma (0.1 %).
 */
function shiftOf(
  a: { pose: PlanPose; covariance: number[][] },
  b: PlanPose & { covariance: number[][] },
): Shift {
  const [dx, dy] = [b.xMm - a.pose.xMm, b.yMm - a.pose.yMm];
  const mm = Math.hypot(dx, dy);
  const [ux, uy] = mm > 0 ? [dx / mm, dy / mm] : [1, 0];
  const along = (c: number[][]): number =>
    ux * ux * c[0]![0]! + 2 * ux * uy * c[0]![1]! + uy * uy * c[1]![1]!;
  const sigmaMm = Math.sqrt(along(a.covariance) + along(b.covariance));
  const turnRad = b.headingRad - a.pose.headingRad;
  const sigmaTurn = Math.sqrt(a.covariance[2]![2]! + b.covariance[2]![2]!);
  return {
    mm,
    sigmaMm,
    turnRad,
    sure: mm > 3.29 * sigmaMm || Math.abs(turnRad) > 3.29 * sigmaTurn,
  };
}

/**
 * Whether this foot is the last of its levelling. Logs older than the mark only know levellings to
 * plumb.
 */
const settlesTilt = (move: Move): boolean =>
  move.kind === "level" && (move.last ?? (move.after.pitchRad === 0 && move.after.rollRad === 0));

/** Where the board goes when `move` is carried out from `pose`, as far as the plan is concerned. */
function carry(plan: SetOutPlan, state: StandState, pose: PlanPose, move: Move): PlanPose {
  const base = baseFor(plan.stand, pose, state);
  switch (move.kind) {
    case "roll":
      return boardAt(
        plan.stand,
        {
          xMm: base.xMm + move.awayMm,
          yMm: base.yMm + move.leftMm,
          headingRad: base.headingRad + move.turnRad,
        },
        state,
      );
    case "yaw":
    case "slide": {
      const by = move.kind === "yaw" ? move.turnRad : move.byMm;
      return boardAt(plan.stand, base, {
        joints: state.joints.map((v, i) => (i === move.joint ? v + by : v)),
      });
    }
    case "level":
      // Only the last foot of a levelling brings the board to rest; its plan is the only one that
      // says where.
      return settlesTilt(move) ? { ...move.after.pose, headingRad: pose.headingRad } : pose;
    case "crank":
    case "booster":
      return pose;
  }
}
