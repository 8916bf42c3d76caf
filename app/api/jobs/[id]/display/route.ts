import { route } from "@/server/http/route";
import { bayOf } from "@/server/jobs/bay";
import { showCabin } from "@/server/jobs/cabin-asked";
import { displayOf } from "@/server/jobs/mirror-bay";

/** The display of one mirror camera, in divisions of its scale. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) =>
    showCabin(
      request,
      (await params).id,
      (job, view, events, asked) =>
        displayOf(
          job,
          view,
          events,
          (target) => bayOf(job, view, events, target),
          asked.get("step") ?? "",
        ),
      "The vehicle’s book has no camera at that side: enter it under Vehicles.",
    ),
);
