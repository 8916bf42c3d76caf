import { driftSightsOf, viewsOf } from "@/core/job";
import { targetsOf } from "@/core/sheet";
import type { DriftSight } from "@/core/setout";
import { db } from "../db/client";
import { eventsAfter } from "./log";
import { findJob } from "./store";

/** So many of the newest jobs of a stand are looked through. */
const MOST = 30;
const KEPT = 500;

/** What each job showed, as long as its log is the same. */
const seen = new Map<string, { events: number; sights: DriftSight[] }>();

function sightsIn(jobId: string, standId: string): DriftSight[] {
  const job = findJob(jobId);
  if (!job) return [];
  const events = eventsAfter(jobId);
  const key = `${jobId}/${standId}`;
  const known = seen.get(key);
  if (known?.events === events.length) return known.sights;
  const sights = viewsOf(job.ground)
    .filter((g) => g.stand.id === standId)
    .flatMap((g) => targetsOf(g.sheet).flatMap((t) => driftSightsOf(g, events, t.id)));
  if (seen.size >= KEPT) seen.clear();
  seen.set(key, { events: events.length, sights });
  return sights;
}

/**
 * How a stand was seen to drift in the shop's newest jobs: what is read again long after a proof, with
 * nothing touched between.
 *
 * @param but the job in hand, which is not held against itself
 */
export function driftSights(standId: string, but: string): DriftSight[] {
  const rows = db()
    .$client.prepare(
      `SELECT id FROM jobs WHERE id <> ? AND EXISTS
         (SELECT 1 FROM job_events e WHERE e.jobId = jobs.id AND e.body LIKE '%"kind":"settled"%')
       ORDER BY createdAt DESC LIMIT ?`,
    )
    .all(but, MOST) as { id: string }[];
  return rows.flatMap(({ id }) => sightsIn(id, standId));
}
