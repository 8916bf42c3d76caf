import { JOB_STATES, type JobState } from "@/core/job";
import { JOB_ORDERS, type JobOrder } from "@/core/job/list";
import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { changedJobs, listJobs } from "@/server/jobs/list";

const isState = (text: string): text is JobState =>
  (JOB_STATES as readonly string[]).includes(text);

const isOrder = (text: string): text is JobOrder => Object.hasOwn(JOB_ORDERS, text);

/** A page of the shop's jobs by words and state, or, after a stamp, only what changed since. */
export const GET = route(async (request: Request) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const asked = new URL(request.url).searchParams;
  const since = Number(asked.get("since") ?? NaN);
  const state = asked.get("state") ?? "";
  if (state !== "" && !isState(state))
    return problem(400, `state: ask for one of ${JOB_STATES.join(", ")}.`);
  const order = asked.get("order") ?? "work";
  if (!isOrder(order))
    return problem(400, `order: ask for one of ${Object.keys(JOB_ORDERS).join(", ")}.`);
  const limit = Number(asked.get("limit") ?? 60);
  if (!Number.isInteger(limit) || limit < 1)
    return problem(400, "limit: must be a whole number from 1.");
  const page = Number.isInteger(since)
    ? changedJobs(since)
    : listJobs({
        find: (asked.get("find") ?? "").slice(0, 120),
        state: state === "" ? undefined : state,
        order,
        limit,
      });
  return Response.json(page, { headers: { "cache-control": "no-store" } });
});
