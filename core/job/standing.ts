import { firstTarget, standingWith, targetOf, targetsOf, type Target } from "@/core/sheet";
import { boosterFor, lacksReference, targetOn, type Stand } from "@/core/setout";
import { eventsOf, standingSettlement, strikes, type JobEvent } from "./job";
import type { JobGround } from "./ground";

/** The target that is set out now: where the board is, or is on its way to. */
export const targetNow = (g: Pick<JobGround, "sheet">, events: readonly JobEvent[]): Target =>
  targetOf(g.sheet, eventsOf(events, "position").at(-1)?.body.to ?? "");

/**
 * What was done while one target was set out; `standId` where another stand than the job's carries
 * it.
 */
export type Piece = { target: Target; standId: string | null; endSeq: number; events: JobEvent[] };

/** The log cut where the board was sent to another target's place, each piece with its target. */
export function piecesOf(g: Pick<JobGround, "sheet">, events: readonly JobEvent[]): Piece[] {
  const pieces: Piece[] = [{ target: firstTarget(g.sheet), standId: null, endSeq: 0, events: [] }];
  for (const e of events) {
    if (e.body.kind === "position")
      pieces.push({
        target: targetOf(g.sheet, e.body.to),
        standId: e.body.standId ?? null,
        endSeq: e.seq,
        events: [],
      });
    else pieces.at(-1)!.events.push(e);
    pieces.at(-1)!.endSeq = e.seq;
  }
  return pieces;
}

/**
 * A board that stands now: at which place, on which stand, what was done there, and the settlement
 * that still holds.
 */
export type StandingBoard = {
  target: Target;
  standId: string;
  /**
   * The target's piece of the log, and what was done later that reaches it: the car moved, a line
   * struck.
   */
  events: JobEvent[];
  /** The last place of the log in its own piece. */
  endSeq: number;
  settled: ReturnType<typeof standingSettlement>;
};

/** The stand that carries the board at the present place. */
export function standAt(
  g: Pick<JobGround, "stand" | "stands">,
  events: readonly JobEvent[],
): Stand {
  const id = eventsOf(events, "position").at(-1)?.body.standId;
  return g.stands?.find((s) => s.id === id) ?? g.stand;
}

/**
 * The booster under that stand when it came to its present place: what its last piece of the log
 * left there.
 */
export function boosterBefore(
  g: Pick<JobGround, "sheet" | "stand" | "stands">,
  events: readonly JobEvent[],
): string | null {
  const struck = strikes(events);
  const here = standAt(g, events).id;
  const before = piecesOf(g, events)
    .slice(0, -1)
    .filter((p) => (p.standId ?? g.stand.id) === here);
  const moves = before.flatMap((p) => eventsOf(p.events, "move")).filter((e) => !struck.has(e.id));
  const last = moves.findLast((e) => e.body.move.kind === "booster")?.body.move;
  return last?.kind === "booster" ? last.booster : null;
}

/**
 * The boards that stand now, in the sheet's order: the one at the present place, and, where the
 * sheet puts it beside the one before, that one too. A board beside stays proved until something
 * reaches it: the car, or a struck reading.
 */
export function boardsStanding(
  g: Pick<JobGround, "sheet" | "stand">,
  events: readonly JobEvent[],
): StandingBoard[] {
  const pieces = piecesOf(g, events);
  const here = targetNow(g, events);
  return standingWith(g.sheet, here.id).map((target): StandingBoard => {
    const piece =
      target.id === here.id ? pieces.at(-1)! : pieces.findLast((p) => p.target.id === target.id);
    if (!piece) return { target, standId: g.stand.id, events: [], endSeq: 0, settled: null };
    const reaches = (e: JobEvent): boolean =>
      e.seq > piece.endSeq &&
      (e.body.kind === "strike" ||
        e.body.kind === "rear-toe" ||
        (e.body.kind === "touch" && e.body.touch === "moved-car"));
    const own = [...piece.events, ...events.filter(reaches)];
    return {
      target,
      standId: piece.standId ?? g.stand.id,
      events: own,
      endSeq: piece.endSeq,
      settled: standingSettlement(own),
    };
  });
}

/** Whether every board that stands now is proved in place. */
export const allProved = (
  g: Pick<JobGround, "sheet" | "stand">,
  events: readonly JobEvent[],
): boolean => boardsStanding(g, events).every((b) => b.settled !== null);

/**
 * The stands that could carry a board beside those that stand already: not one of theirs, and high
 * enough.
 */
export function freeStands(
  g: Pick<JobGround, "sheet" | "stand" | "stands">,
  events: readonly JobEvent[],
  targetId: string,
): Stand[] {
  const before = standingWith(g.sheet, targetId)
    .slice(0, -1)
    .map((t) => t.id);
  const taken = new Set(
    piecesOf(g, events)
      .filter((p) => before.includes(p.target.id))
      .map((p) => p.standId ?? g.stand.id),
  );
  const target = targetOf(g.sheet, targetId);
  const carries = (s: Stand): boolean =>
    !lacksReference(target, s) &&
    boosterFor(s, targetOn(target, s).placement.heightMm) !== undefined;
  return (g.stands ?? []).filter((s) => !taken.has(s.id) && carries(s));
}

/** Whether a target stands beside another one that is already there: it needs a stand of its own. */
export const standsBeside = (g: Pick<JobGround, "sheet">, targetId: string): boolean =>
  standingWith(g.sheet, targetId).length > 1;

/** The target that the routine wants proved at a step: where the last step before it sent the board. */
export const targetWanted = (g: Pick<JobGround, "sheet">, stepIndex: number): Target =>
  targetOf(
    g.sheet,
    g.sheet.run
      .slice(0, stepIndex)
      .reduce((at, s) => (s.kind === "position" ? s.to : at), firstTarget(g.sheet).id),
  );

/** The stand that last carried a target, where that was not the job's own. */
export const standUsedFor = (
  g: Pick<JobGround, "sheet">,
  events: readonly JobEvent[],
  targetId: string,
): string | undefined =>
  piecesOf(g, events).findLast((p) => p.target.id === targetId)?.standId ?? undefined;

/** Whether a sheet has this target. */
export const hasTarget = (g: Pick<JobGround, "sheet">, targetId: string): boolean =>
  targetsOf(g.sheet).some((t) => t.id === targetId);
