import { buildRecord, type JobRecord } from "@/core/record";
import { eventsAfter, findJob } from "../jobs/store";

/** The record of a job as it stands, or null when there is no such job. Every bay is a simulated one for now. */
export function recordOf(jobId: string): JobRecord | null {
  const job = findJob(jobId);
  return job && buildRecord(job.number, job.ground, eventsAfter(jobId), true);
}
