import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { cabinViewOf } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { viewAsked } from "@/server/jobs/place-asked";
import { findJob } from "@/server/jobs/store";

/**
 * What the cameras of a simulated vehicle have for the display in its cabin: where each sits and
 * where its unit believes it to sit. A real vehicle shows its picture itself.
 */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    const who = await allow("any", id);
    if ("refusal" in who) return who.refusal;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    if (job.ground.real)
      return problem(422, "The picture is on the display of the vehicle itself.");
    const events = eventsAfter(id);
    const shown = cabinViewOf(
      job,
      viewAsked(new URL(request.url).searchParams, job, events),
      events,
    );
    return shown
      ? Response.json(shown, { headers: { "cache-control": "no-store" } })
      : problem(422, "The unit has not joined its pictures yet. Let it learn first.");
  },
);
