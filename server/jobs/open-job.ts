import { standingHandOver } from "@/core/job";
import { eventsAfter } from "./log";
import { JobRefusal } from "./refusal";
import { findJob, type JobRow } from "./store";

/**
 * A job that can still be worked on. @throws JobRefusal when there is none, or it is handed over
 */
export function openJob(jobId: string): JobRow {
  const job = findJob(jobId);
  if (!job) throw new JobRefusal("There is no such job. Go back to the list.");
  if (standingHandOver(eventsAfter(jobId)))
    throw new JobRefusal(
      "This job is handed over. The lead can open it again for a revision, with a reason.",
    );
  return job;
}
