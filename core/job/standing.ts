import {
  firstTarget,
  setupOf,
  standingWith,
  standsAlong,
  targetOf,
  targetsOf,
  type Target,
} from "@/core/sheet";
import { carries, HANDS, isByHand, type Stand } from "@/core/setout";
import { currentStep, replayRun, type RunState } from "@/core/run";
import { viewOf, type CalibrationGround, type JobGround } from "./ground";
import { checkStanding, eventsOf, runLogOf, settlementStanding, type JobEvent } from "./job";
import { calibrationIn, targetIn } from "./scope";
import { lastStay, stayEvents, staysOf } from "./stays";

/**
 * A calibration's own part of the log, with what belongs to the job as a whole. Changes of place of
 * other calibrations stay in it: they may send its stand away.
 */
export const calibrationLog = (g: CalibrationGround, events: readonly JobEvent[]): JobEvent[] =>
  g.calibrations.length === 1
    ? [...events]
    : events.filter((e) => {
        const of = calibrationIn(e.body);
        return of === null || of === g.calibrationId || e.body.kind === "position";
      });

/**
 * The target that is worked on where nobody says which: the one that was last read, touched or gone
 * to; the first where nothing was done.
 */
export function targetInHand(g: CalibrationGround, events: readonly JobEvent[]): Target {
  const last = events.findLast(
    (e) => calibrationIn(e.body) === g.calibrationId && targetIn(e.body) !== null,
  );
  return targetOf(g.sheet, (last && targetIn(last.body)) ?? "");
}

/**
 * The target one person works on. Boards go where the stand goes; of mats that lie there together
 * each person keeps the own one, and somebody new is given the first that is not proved.
 */
export function targetFor(
  g: CalibrationGround,
  events: readonly JobEvent[],
  personId: string,
): Target {
  const now = targetInHand(g, events);
  if (!isByHand(now)) return now;
  const mine = events.findLast(
    (e) =>
      e.by.id === personId &&
      calibrationIn(e.body) === g.calibrationId &&
      targetIn(e.body) !== null,
  );
  if (mine) return targetOf(g.sheet, targetIn(mine.body)!);
  const { targets } = setupOf(g.sheet, now.id);
  return targets.find((t) => !standingAt(g, events, t.id)?.settled) ?? now;
}

/**
 * The calibration that is worked on where nobody says which: the one this person last did something
 * of, or anybody.
 */
export function calibrationInHand(
  ground: JobGround,
  events: readonly JobEvent[],
  personId: string | null = null,
): CalibrationGround {
  const last =
    events.findLast((e) => e.by.id === personId && calibrationIn(e.body) !== null) ??
    events.findLast((e) => calibrationIn(e.body) !== null);
  return viewOf(ground, last ? calibrationIn(last.body) : null);
}

/** A target that stands: on which stand, what was done there, and what still holds of it. */
export type Standing = {
  target: Target;
  standId: string;
  /** What carries it, by its own name in the job. */
  carrier: string;
  /** The lines of its stay, and what was done elsewhere that reaches it. */
  events: JobEvent[];
  /** Whether anything was done at it yet. */
  begun: boolean;
  settled: ReturnType<typeof settlementStanding>;
  board: ReturnType<typeof checkStanding>;
};

/** A target as it stands now; null where it was not brought, or was taken away. */
export function standingAt(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Standing | null {
  const stay = lastStay(g, events, targetId);
  if (!stay || stay.until !== Infinity) return null;
  const own = stayEvents(g, events, stay);
  return {
    target: stay.target,
    standId: stay.standId,
    carrier: stay.carrier,
    events: own,
    begun: own.some((e) => targetIn(e.body) === targetId),
    settled: settlementStanding(own),
    board: checkStanding(own),
  };
}

/**
 * The targets that stand together with one, in the sheet's order. One that stays beside is proved
 * until something reaches it: the car, or a struck reading.
 */
export const standingNow = (
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Standing[] => standingWith(g.sheet, targetId).flatMap((t) => standingAt(g, events, t.id) ?? []);

/**
 * Whether a board hangs on a stand that is finished by hanging it, and nobody has looked which one it
 * is: then it is not called set.
 */
export const boardUnchecked = (
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): boolean =>
  g.boards !== undefined &&
  (standAt(g, events, targetId).lastActs ?? []).includes("hung") &&
  !standingAt(g, events, targetId)?.board;

/** The stand that carries a target, or would carry it. */
export function standAt(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Stand {
  if (isByHand(targetOf(g.sheet, targetId))) return HANDS;
  const id = lastStay(g, events, targetId)?.standId;
  return g.stands?.find((s) => s.id === id) ?? g.stand;
}

/**
 * The target the routine wants proved at a step: where the last step before it sent the board.
 */
export const targetWanted = (g: CalibrationGround, stepIndex: number): Target =>
  targetOf(
    g.sheet,
    g.sheet.run
      .slice(0, stepIndex)
      .reduce((at, s) => (s.kind === "position" ? s.to : at), firstTarget(g.sheet).id),
  );

/** The targets that have to be proved for a step, where each does, or does not stand yet. */
export function wantedNow(
  g: CalibrationGround,
  events: readonly JobEvent[],
  stepIndex: number,
): { target: Target; standing: Standing | null }[] {
  if (targetsOf(g.sheet).length === 0) return [];
  return standingWith(g.sheet, targetWanted(g, stepIndex).id).map((target) => ({
    target,
    standing: standingAt(g, events, target.id),
  }));
}

/** Where the routine is, and the step it waits at. */
export function runOf(
  g: CalibrationGround,
  events: readonly JobEvent[],
): { state: RunState; step: ReturnType<typeof currentStep> } {
  const state = replayRun(runLogOf(calibrationLog(g, events)), g.sheet.run);
  return { state, step: currentStep(state, g.sheet.run) };
}

/**
 * Where in the log the look began from which the vehicle learned; beyond its end until it has. What is
 * read or touched later unsettles nothing of it.
 */
export function lookedAt(g: CalibrationGround, events: readonly JobEvent[]): number {
  if (runOf(g, events).state.status !== "passed") return Infinity;
  const started = eventsOf(calibrationLog(g, events), "run").findLast(
    (e) => e.body.event.type === "routine-started",
  );
  return started?.seq ?? Infinity;
}

/**
 * Whether what the routine needs is proved in place; once the vehicle has learned, whether it was
 * when the vehicle looked: boards may go their way afterwards.
 */
export function allProved(g: CalibrationGround, events: readonly JobEvent[]): boolean {
  const { state } = runOf(g, events);
  if (state.status !== "passed") return provedAt(g, events, state.stepIndex);
  const looked = lookedAt(g, events);
  const then = events.filter((e) => e.seq < looked);
  return provedAt(g, then, runOf(g, then).state.stepIndex);
}

/** The same at a step: everything it wants, and what is set out for the step to come. */
function provedAt(g: CalibrationGround, events: readonly JobEvent[], stepIndex: number): boolean {
  const wanted = wantedNow(g, events, stepIndex);
  const here =
    targetsOf(g.sheet).length === 0 ? [] : standingNow(g, events, targetInHand(g, events).id);
  return [...wanted.map((w) => w.standing), ...here].every((s) => s !== null && s.settled !== null);
}

/** Whether a target needs a stand of its own: others of its setup stand there already. */
export const standsBeside = (g: CalibrationGround, targetId: string): boolean => {
  const { targets } = setupOf(g.sheet, targetId);
  const at = targets.findIndex((t) => t.id === targetId);
  return at > 0 && !standsAlong(targets[at]!);
};

/**
 * The stands that could carry a board beside those that stand already: not one of theirs, and high
 * enough.
 */
export function freeStands(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Stand[] {
  const before = standingWith(g.sheet, targetId).filter((t) => t.id !== targetId);
  const taken = new Set(
    staysOf(g, events)
      .filter(
        (s) => s.calibrationId === g.calibrationId && before.some((t) => t.id === s.target.id),
      )
      .map((s) => s.standId),
  );
  const target = targetOf(g.sheet, targetId);
  return (g.stands ?? []).filter((s) => !taken.has(s.id) && carries(s, target));
}

/** The stand that last carried a target, where that was not the calibration's own. */
export const standUsedFor = (
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): string | undefined => {
  const id = lastStay(g, events, targetId)?.standId;
  return id === g.stand.id || id === HANDS.id ? undefined : id;
};

/** Whether a sheet has this target. */
export const hasTarget = (g: Pick<CalibrationGround, "sheet">, targetId: string): boolean =>
  targetsOf(g.sheet).some((t) => t.id === targetId);
