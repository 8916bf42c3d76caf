import { FIRST_PLACE } from "@/core/sheet/first-place";
import { sheetAt } from "@/core/sheet/places";
import { boosterFor, type Stand } from "@/core/setout";
import { eventsOf, piecesOf, placeOf, standingSettlement, strikes, type JobEvent } from "./job";
import type { JobGround } from "./ground";

/**
 * A board that stands now: at which place, on which stand, what was done there, and the settlement
 * that still holds.
 */
export type StandingBoard = {
  place: string;
  standId: string;
  /**
   * The place's piece of the log, and what was done later that reaches it: the car moved, a line
   * struck.
   */
  events: JobEvent[];
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
  g: Pick<JobGround, "stand" | "stands">,
  events: readonly JobEvent[],
): string | null {
  const struck = strikes(events);
  const here = standAt(g, events).id;
  const before = piecesOf(events)
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
  const pieces = piecesOf(events);
  const order = [FIRST_PLACE, ...(g.sheet.positions ?? []).map((p) => p.id)];
  const here = order.indexOf(placeOf(events).id);
  let from = here;
  while (from > 0 && g.sheet.positions![from - 1]!.beside) from--;
  return order.slice(from, here + 1).map((place): StandingBoard => {
    const piece =
      place === order[here] ? pieces.at(-1)! : pieces.findLast((p) => p.place === place);
    if (!piece) return { place, standId: g.stand.id, events: [], settled: null };
    const reaches = (e: JobEvent): boolean =>
      e.seq > piece.endSeq &&
      (e.body.kind === "strike" ||
        e.body.kind === "rear-toe" ||
        (e.body.kind === "touch" && e.body.touch === "moved-car"));
    const own = [...piece.events, ...events.filter(reaches)];
    return {
      place,
      standId: piece.standId ?? g.stand.id,
      events: own,
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
  place: string,
): Stand[] {
  const order = [FIRST_PLACE, ...(g.sheet.positions ?? []).map((p) => p.id)];
  const before = piecesOf(events).filter((p) => order.indexOf(p.place) < order.indexOf(place));
  const taken = new Set(before.map((p) => p.standId ?? g.stand.id));
  const { heightMm } = sheetAt(g.sheet, place).placement;
  return (g.stands ?? []).filter((s) => !taken.has(s.id) && boosterFor(s, heightMm) !== undefined);
}

/** Where the board belongs at a step of the routine: where the last step before it sent it. */
export const placeWanted = (g: Pick<JobGround, "sheet">, stepIndex: number): string =>
  g.sheet.run
    .slice(0, stepIndex)
    .reduce<string>((at, s) => (s.kind === "position" ? s.to : at), FIRST_PLACE);

/** The stand that last carried the board at a place, where that was not the job's own. */
export const standUsedAt = (events: readonly JobEvent[], place: string): string | undefined =>
  piecesOf(events).findLast((p) => p.place === place)?.standId ?? undefined;
