import { planFor, viewsOf, type JobEvent } from "@/core/job";
import { calibrationIn, targetIn } from "@/core/job/scope";
import { targetsOf } from "@/core/sheet";
import type { SetOutPlan } from "@/core/setout";
import { db } from "../db/client";
import { eventsAfter } from "../jobs/log";
import { findJob } from "../jobs/store";

/** A quarter of a year. */
const DAYS = 92;
/** Of more set-outs than these the newest are gone through again; the others are counted only. */
const MOST = 16;

/** Set-outs of single boards in the last quarter: how many there were, and the newest as they were planned. */
export type WorthSample = { setOuts: number; since: string; plans: SetOutPlan[] };

const isSettlement = (e: JobEvent, calibrationId: string, targetId: string): boolean =>
  e.body.kind === "settled" &&
  calibrationIn(e.body) === calibrationId &&
  targetIn(e.body) === targetId;

/**
 * What to go through again. Mats, floor marks, boards on one beam and what is judged against another target
 * are left out: their world is more than one stand.
 */
export function worthSample(now = Date.now()): WorthSample {
  const since = new Date(now - DAYS * 86_400_000).toISOString();
  const rows = db()
    .$client.prepare(
      `SELECT id FROM jobs WHERE createdAt >= ? AND EXISTS
         (SELECT 1 FROM job_events e WHERE e.jobId = jobs.id AND e.body LIKE '%"kind":"settled"%')
       ORDER BY createdAt DESC`,
    )
    .all(since) as { id: string }[];
  const plans: SetOutPlan[] = [];
  let setOuts = 0;
  for (const { id } of rows) {
    const job = findJob(id);
    if (!job) continue;
    const events = eventsAfter(id);
    for (const view of viewsOf(job.ground))
      for (const target of targetsOf(view.sheet)) {
        if (target.kind !== "board" || target.beam || target.frame) continue;
        if (!events.some((e) => isSettlement(e, view.calibrationId, target.id))) continue;
        setOuts++;
        if (plans.length >= MOST) continue;
        const { bay: _, setup: __, school, ...plan } = planFor(view, events, target.id);
        plans.push({
          ...plan,
          against: [],
          ...(school && school !== "walls" ? { school } : {}),
        });
      }
  }
  return { setOuts, since, plans };
}
