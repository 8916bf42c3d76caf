import { judgeTarget, standingAt, staysOf, viewOf } from "@/core/job";
import { carSeen } from "@/core/setout";
import { learnDimensions, type CarSeen, type Learned, type Vehicle } from "@/core/vehicle";
import type { Draft } from "@/core/book";
import { db } from "../db/client";
import { eventsAfter } from "../jobs/log";
import { findJob } from "../jobs/store";

/** So many of the newest jobs of a model are looked at. */
const MOST = 80;
const KEPT = 500;

/** What each job showed, as long as its log is the same. */
const known = new Map<string, { events: number; car: CarSeen | null }>();

/** What the set-out of a job said of its car's own marks; null where nothing was proved. */
function carIn(jobId: string, version: number): CarSeen | null {
  const job = findJob(jobId);
  if (!job || (job.ground.vehicle.version ?? 1) !== version || job.ground.vehicle.provisional)
    return null;
  const events = eventsAfter(jobId);
  const before = known.get(jobId);
  if (before?.events === events.length) return before.car;
  const settled = staysOf(job.ground, events).findLast((s) => {
    const view = viewOf(job.ground, s.calibrationId);
    return (
      s.until === Infinity && !s.target.frame && standingAt(view, events, s.target.id)?.settled
    );
  });
  const car =
    settled &&
    carSeen(
      judgeTarget(viewOf(job.ground, settled.calibrationId), events, settled.target.id).solution,
    );
  if (known.size >= KEPT) known.clear();
  known.set(jobId, { events: events.length, car: car ?? null });
  return car ?? null;
}

/** How many cars were seen, and what they say of each dimension. */
export type LearnedOf = { cars: number; dimensions: Learned[] };

/** What the shop's cars of a vehicle's kind say of its dimensions, by this version of the book. */
export function learnedOf(vehicle: Vehicle): LearnedOf {
  const rows = db()
    .$client.prepare(
      `SELECT id FROM jobs WHERE json_extract(ground, '$.intake.vehicleId') = ?
       ORDER BY createdAt DESC LIMIT ?`,
    )
    .all(vehicle.id, MOST) as { id: string }[];
  const cars = rows.flatMap(({ id }) => carIn(id, vehicle.version ?? 1) ?? []);
  return { cars: cars.length, dimensions: learnDimensions(vehicle, cars) };
}

/**
 * A draft with what the cars say in place of the book's figures, and the source saying so.
 *
 * @returns null where nothing is proposed
 */
export function withLearned(
  vehicle: Vehicle,
  { cars, dimensions }: LearnedOf,
  on: string,
): Draft | null {
  const changed = dimensions.filter((d) => d.proposedMm !== null);
  if (changed.length === 0) return null;
  const doc = structuredClone(vehicle) as Draft & Vehicle;
  for (const { path, proposedMm } of changed) {
    const [outer, inner] = path.split(".") as [keyof Vehicle, string | undefined];
    if (inner) doc[outer] = { ...(doc[outer] as object), [inner]: proposedMm } as never;
    else doc[outer] = proposedMm as never;
  }
  const names = changed.map((d) => d.name.toLowerCase()).join("; ");
  doc.source = `${vehicle.source}. From ${cars} cars set out in this shop, ${on}: ${names}`;
  return doc;
}
