import type { CalibrationGround, JobEvent } from "@/core/job";
import { allow, problem } from "../auth/guard";
import { eventsAfter } from "./log";
import { viewAsked } from "./place-asked";
import { findJob, type JobRow } from "./store";

/**
 * Answers what a simulated vehicle shows in its cabin; a real one shows it itself.
 *
 * @param show what is on the display; null where nothing is yet
 * @param lacks why, in words
 */
export async function showCabin(
  request: Request,
  id: string,
  show: (
    job: JobRow,
    view: CalibrationGround,
    events: JobEvent[],
    asked: URLSearchParams,
  ) => object | null,
  lacks: string,
): Promise<Response> {
  const who = await allow("any", id);
  if ("refusal" in who) return who.refusal;
  const job = findJob(id);
  if (!job) return problem(404, "There is no such job. Go back to the list.");
  if (job.ground.real) return problem(422, "The picture is on the display of the vehicle itself.");
  const events = eventsAfter(id);
  const asked = new URL(request.url).searchParams;
  const shown = show(job, viewAsked(asked, job, events), events, asked);
  return shown
    ? Response.json(shown, { headers: { "cache-control": "no-store" } })
    : problem(422, lacks);
}
