import { HANDS, isByHand } from "@/core/setout";
import { setupOf, targetOf, type Target } from "@/core/sheet";
import type { CalibrationGround, JobGround } from "./ground";
import { viewsOf } from "./ground";
import { eventsOf, strikes, type JobEvent } from "./job";
import { calibrationIn, movesVehicle, targetIn } from "./scope";

/**
 * A target while something holds it at its place: from where in the log, and until where. A stand
 * that goes to another place ends it; a mat lies from the beginning, since hands need no bringing.
 */
export type Stay = {
  calibrationId: string;
  target: Target;
  /** The stand that carries it, or hands. */
  standId: string;
  /** What carries it, by a name of its own in the job: boards of one beam share it. */
  carrier: string;
  /** The place in the log of the line that brought it; 0 where it stood from the beginning. */
  from: number;
  /** The place of the line that took it away; Infinity while it stands. */
  until: number;
};

const key = (calibrationId: string, target: Pick<Target, "id">, from: number): string =>
  `${calibrationId}/${target.id}${from > 0 ? `@${from}` : ""}`;

/**
 * Every stay of a job's targets, of all its calibrations, in the order they began. A stand can stand
 * at one place only, whichever calibration sent it there.
 */
export function staysOf(ground: JobGround, events: readonly JobEvent[]): Stay[] {
  const stays: Stay[] = [];
  const views = viewsOf(ground);
  const standsNow = (standId: string): Stay[] =>
    stays.filter((s) => s.standId === standId && s.until === Infinity && !isByHand(s.target));
  /** Boards that come with one another: those of one beam in one setup, or the one alone. */
  const together = (view: CalibrationGround, target: Target): Target[] =>
    target.beam ? setupOf(view.sheet, target.id).targets.filter((t) => t.beam) : [target];
  const bring = (view: CalibrationGround, target: Target, standId: string, from: number): void => {
    const before = standsNow(standId);
    // A beam that carries several boards stays where it is while its boards go along the rail.
    const beam = target.beam
      ? before.find((s) => s.calibrationId === view.calibrationId && s.target.beam)?.carrier
      : undefined;
    for (const s of before) s.until = from;
    const carrier = beam ?? key(view.calibrationId, target, from);
    for (const t of together(view, target))
      stays.push({
        calibrationId: view.calibrationId,
        target: t,
        standId,
        carrier: target.beam ? carrier : key(view.calibrationId, t, from),
        from,
        until: Infinity,
      });
  };
  for (const view of views) {
    for (const target of view.sheet.setups.flatMap((s) => s.targets).filter(isByHand))
      stays.push({
        calibrationId: view.calibrationId,
        target,
        standId: HANDS.id,
        carrier: key(view.calibrationId, target, 0),
        from: 0,
        until: Infinity,
      });
    const first = view.sheet.setups[0]?.targets[0];
    if (first && !isByHand(first) && standsNow(view.stand.id).length === 0)
      bring(view, first, view.stand.id, 0);
  }
  for (const { seq, body } of eventsOf(events, "position")) {
    const view = views.find((v) => v.calibrationId === body.calibrationId) ?? views[0]!;
    const target = targetOf(view.sheet, body.to);
    const standId = body.standId ?? view.stand.id;
    const stands =
      !body.anew &&
      standsNow(standId).some(
        (s) => s.calibrationId === view.calibrationId && s.target.id === target.id,
      );
    if (!stands && !isByHand(target)) bring(view, target, standId, seq);
  }
  return stays;
}

/** A target's last stay; null where nothing ever brought it. */
export const lastStay = (
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Stay | null =>
  staysOf(g, events).findLast(
    (s) => s.calibrationId === g.calibrationId && s.target.id === targetId,
  ) ?? null;

/** Whether a line is of this stay: of its target, while it stood. */
export const isOfStay = (stay: Stay, e: JobEvent): boolean =>
  e.seq > stay.from &&
  e.seq < stay.until &&
  targetIn(e.body) === stay.target.id &&
  calibrationIn(e.body) === stay.calibrationId;

/** Whether a line reaches a stay without being of it: the vehicle moved, a line struck. */
const reaches = (stay: Stay, e: JobEvent): boolean =>
  e.seq > stay.from &&
  (e.body.kind === "strike" ||
    (e.seq < stay.until && (e.body.kind === "rear-toe" || movesVehicle(e.body))));

/**
 * Whether a line of another board of the same beam moved or touched them all; a slide along the rail
 * is that board's alone.
 */
const sharesBeam = (stay: Stay, e: JobEvent, mates: readonly Stay[]): boolean =>
  (e.body.kind === "touch" || (e.body.kind === "move" && e.body.move.kind !== "rail")) &&
  mates.some((m) => m !== stay && m.carrier === stay.carrier && isOfStay(m, e));

/** What was done at a stay, and what happened elsewhere that reaches it. */
export function stayEvents(g: JobGround, events: readonly JobEvent[], stay: Stay): JobEvent[] {
  const mates = stay.target.beam ? staysOf(g, events) : [];
  return events.filter((e) => isOfStay(stay, e) || reaches(stay, e) || sharesBeam(stay, e, mates));
}

/**
 * The booster under a stand when it came to a stay: what was left under its mast where it stood
 * before.
 */
export function boosterBefore(
  g: JobGround,
  events: readonly JobEvent[],
  stay: Stay,
): string | null {
  if (isByHand(stay.target)) return null;
  const before = staysOf(g, events).filter((s) => s.standId === stay.standId && s.from < stay.from);
  if (before.length === 0) return null;
  const struck = strikes(events);
  const last = eventsOf(events, "move").findLast(
    (e) =>
      e.seq < stay.from &&
      e.body.move.kind === "booster" &&
      !struck.has(e.id) &&
      before.some((s) => isOfStay(s, e)),
  )?.body.move;
  return last?.kind === "booster" ? last.booster : null;
}
