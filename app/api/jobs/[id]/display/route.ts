import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { bayOf } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { displayOf } from "@/server/jobs/mirror-bay";
import { viewAsked } from "@/server/jobs/place-asked";
import { findJob } from "@/server/jobs/store";

/**
 * What the display of one camera of a simulated vehicle shows, in divisions of its scale. A real
 * vehicle shows its picture itself.
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
    const asked = new URL(request.url).searchParams;
    const view = viewAsked(asked, job, events);
    const shown = displayOf(
      job,
      view,
      events,
      (target) => bayOf(job, view, events, target),
      asked.get("step") ?? "",
    );
    return shown
      ? Response.json(shown, { headers: { "cache-control": "no-store" } })
      : problem(422, "The vehicle’s book has no camera at that side: enter it under Vehicles.");
  },
);
