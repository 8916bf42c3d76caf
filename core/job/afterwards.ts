import {
  aged,
  bearWitness,
  predictedReadings,
  witnessPlan,
  type Aged,
  type Drift,
  type DriftSight,
  type WitnessPlan,
} from "@/core/setout";
import type { CalibrationGround } from "./ground";
import { eventsOf, strikes, type EventOf, type JobEvent } from "./job";
import { movesVehicle, ofOneCarrier } from "./scope";
import { judgeTarget } from "./set-out";
import { calibrationLog, runOf, standingAt } from "./standing";

/** What was read again after the vehicle had learned, and what that says of where the board stood. */
export type Witness = {
  /** The fewest readings that would show nearly every knock. */
  plan: WitnessPlan;
  /** Slots that were read since, before anything was touched. */
  taken: string[];
  /** Chance that readings of a board nobody knocked differ as much; null while none was taken. */
  p: number | null;
  stood: boolean | null;
  /** The share of knocks that the readings taken would have shown. */
  share: number;
  /** The chance that it stood inside its limits while the vehicle looked, with those readings. */
  chance: number;
};

const HOUR_MS = 3_600_000;

/** Whether a line means that what is read afterwards is not of where it stood before. */
const disturbs = (e: JobEvent): boolean =>
  ["touch", "move", "position"].includes(e.body.kind) || movesVehicle(e.body);

/** Readings of a target in a stretch of the log, up to the first disturbance of what carries it. */
function undisturbed(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
  after: number,
): EventOf<"reading">[] {
  const own = { kind: "settle", calibrationId: g.calibrationId, targetId } as const;
  const struck = strikes(events);
  const later = events.filter((e) => e.seq > after && !struck.has(e.id));
  const end = later.find((e) => disturbs(e) && ofOneCarrier(g, e.body, own))?.seq ?? Infinity;
  return eventsOf(later, "reading").filter(
    (e) =>
      e.seq < end &&
      e.body.targetId === targetId &&
      e.body.calibrationId === g.calibrationId &&
      !e.body.anew,
  );
}

/**
 * The witness readings of a target: which they are, and what those taken say. Null until the vehicle
 * has learned from it.
 */
export function witnessOf(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): Witness | null {
  if (runOf(g, events).state.status !== "passed") return null;
  const looked = eventsOf(calibrationLog(g, events), "run").at(-1)!;
  const then = events.filter((e) => e.seq <= looked.seq || e.body.kind === "strike");
  if (!standingAt(g, then, targetId)?.settled) return null;
  const { solution, candidates, verdict } = judgeTarget(g, then, targetId);
  const plan = witnessPlan(solution, candidates);
  if (!plan) return null;
  const readings = undisturbed(g, events, targetId, looked.seq);
  const last = new Map(readings.map((e) => [e.body.slotId, e]));
  const result = bearWitness(
    solution,
    candidates,
    [...last.values()].map((e) => e.body),
  );
  if (!result) return { plan, taken: [], p: null, stood: null, share: 0, chance: verdict.chance };
  const until = readings.at(-1)!.seq;
  const all = events.filter((e) => e.seq <= until || e.body.kind === "strike");
  return {
    plan,
    taken: [...last.keys()],
    p: result.p,
    stood: result.stood,
    share: result.share,
    chance: judgeTarget(g, all, targetId).verdict.chance,
  };
}

/** How old the proof of a target is, and what it is still worth. */
export type Age = Aged & { hours: number };

/** The worth of a proof now. Null while the target is not proved. */
export function ageOf(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
  drift: Drift,
  now: Date,
): Age | null {
  const settled = standingAt(g, events, targetId)?.settled;
  if (!settled) return null;
  // A later reading unsettles it: the settlement is as young as the proof.
  const hours = Math.max(0, (now.getTime() - Date.parse(settled.at)) / HOUR_MS);
  const { solution, candidates } = judgeTarget(g, events, targetId);
  const worth = aged(solution, candidates, drift, hours);
  return worth && { ...worth, hours };
}

/** A reading taken within this of the proof says nothing of what a stand does in an hour. */
const SOON_H = 0.4;

/**
 * What a job's log shows of how its stand drifts: readings that were taken again long after the
 * proof, before anything was touched.
 */
export function driftSightsOf(
  g: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
): DriftSight[] {
  const settled = eventsOf(calibrationLog(g, events), "settled").findLast(
    (e) => e.body.targetId === targetId,
  );
  if (!settled) return [];
  const then = events.filter((e) => e.seq <= settled.seq);
  const later = undisturbed(g, events, targetId, settled.seq).flatMap((e) => {
    const hours = (Date.parse(e.at) - Date.parse(settled.at)) / HOUR_MS;
    return hours > SOON_H ? [{ e, hours }] : [];
  });
  if (later.length === 0) return [];
  const { solution, candidates } = judgeTarget(g, then, targetId);
  const expected = predictedReadings(solution);
  const { order, covariance } = solution.adjustment!.joint;
  return later.flatMap(({ e, hours }): DriftSight[] => {
    const c = candidates.find((x) => x.slot.id === e.body.slotId);
    const gradient = c?.play.gradient;
    if (!c || !gradient || c.slot.quantity.dimension !== "length") return [];
    let variance = e.body.sigma ** 2;
    for (let i = 0; i < order; i++)
      for (let k = 0; k < order; k++)
        variance += gradient[i]! * gradient[k]! * covariance[i * order + k]!;
    const mm = c.slot.toModel(e.body.shown) - c.slot.toModel(expected.get(c.slot.id)!);
    return [{ hours, mm, sigmaMm: Math.sqrt(variance) }];
  });
}
