import { isDeepStrictEqual } from "node:util";
import {
  isOfStay,
  judgeTarget,
  standAt,
  standingAt,
  staysOf,
  viewOf,
  type CalibrationGround,
  type EventOf,
  type JobEvent,
} from "@/core/job";
import { keptFrom } from "@/core/setout";
import { db } from "../db/client";
import { eventsAfter } from "./log";
import { findJob, type JobRow } from "./store";

/** A stand as another job left it, as the line of this job that takes it over. */
export type StandLeft = Pick<EventOf<"kept">["body"], "from" | "standing">;

/** So many of the jobs that were worked on last are looked through. */
const MOST = 30;
/** A stand that stood over night was brushed against by somebody. */
const MOST_HOURS = 12;
const HOUR_MS = 3_600_000;

/** When a stand was last worked with in a job, and the stay it stands in there now. */
function lastUse(job: JobRow, events: readonly JobEvent[], standId: string) {
  const stays = staysOf(job.ground, events).filter((s) => s.standId === standId);
  const used = events.findLast(
    (e) => stays.some((s) => isOfStay(s, e)) || stays.some((s) => s.from === e.seq),
  );
  const stay = stays.find((s) => s.until === Infinity);
  return used ? { at: used.at, stay: stay ?? null } : null;
}

/**
 * Where the stand of a target was left by the shop's last job with it, where that can be taken over:
 * proved there, for the same target of the same sheet on a vehicle of the same model, not long ago.
 */
export function standLeft(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
  now: Date,
): StandLeft | null {
  const stand = standAt(view, events, targetId);
  const rows = db()
    .$client.prepare(`SELECT id FROM jobs WHERE id <> ? ORDER BY updatedAt DESC LIMIT ?`)
    .all(job.id, MOST) as { id: string }[];
  const uses = rows.flatMap(({ id }) => {
    const other = findJob(id)!;
    const log = eventsAfter(id);
    const use = lastUse(other, log, stand.id);
    return use ? [{ other, log, ...use }] : [];
  });
  const last = uses.reduce<(typeof uses)[number] | null>(
    (a, b) => (a && a.at > b.at ? a : b),
    null,
  );
  if (!last?.stay) return null;
  const { other, log, stay } = last;
  const theirs = viewOf(other.ground, stay.calibrationId);
  const same =
    stay.target.id === targetId &&
    theirs.vehicle.id === view.vehicle.id &&
    theirs.vehicle.version === view.vehicle.version &&
    theirs.sheet.id === view.sheet.id &&
    theirs.sheet.version === view.sheet.version;
  const settled = same && standingAt(theirs, log, targetId)?.settled;
  if (!settled || now.getTime() - Date.parse(settled.at) > MOST_HOURS * HOUR_MS) return null;
  const then = log.filter((e) => e.seq <= settled.seq);
  const standing = keptFrom(judgeTarget(theirs, then, targetId).solution);
  const { plate } = other.ground.intake;
  const called = plate || `job ${other.number}`;
  const from = { jobId: other.id, seq: settled.seq, at: settled.at, called };
  return standing && { from, standing };
}

/** The same for every target of a job that nobody has begun, by its name in the log. */
export function standsLeft(job: JobRow, now: Date): Record<string, StandLeft> {
  const events = eventsAfter(job.id);
  const left = staysOf(job.ground, events)
    .filter((s) => s.until === Infinity && s.target.kind === "board")
    .flatMap((s): [string, StandLeft][] => {
      const view = viewOf(job.ground, s.calibrationId);
      if (standingAt(view, events, s.target.id)?.begun) return [];
      const kept = standLeft(job, view, events, s.target.id, now);
      return kept ? [[`${s.calibrationId}/${s.target.id}`, kept]] : [];
    });
  return Object.fromEntries(left);
}

/** Whether a line names a stand just as another job left it. */
export const isAsLeft = (
  body: Pick<EventOf<"kept">["body"], "from" | "standing">,
  left: StandLeft | null,
): boolean =>
  left !== null && isDeepStrictEqual({ from: body.from, standing: body.standing }, left);
