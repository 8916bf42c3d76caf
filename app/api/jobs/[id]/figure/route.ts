import { eventsOf, planFor } from "@/core/job";
import { slotsFor } from "@/core/setout";
import { liveFigure } from "@/devices/bench/live-figure";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { onFigure } from "@/server/feed/live";
import { route } from "@/server/http/route";
import { dataOf, eventStream } from "@/server/http/stream";
import { bayOf } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { targetAsked, viewAsked } from "@/server/jobs/place-asked";
import { findJob } from "@/server/jobs/store";

/** Looks a second, and how long a stream lives before the tablet has to ask again. */
const HZ = 5;
const SECONDS = 120;

/**
 * What one instrument shows while an adjuster is turned, as server-sent events: what a real one
 * posts, or in a simulated bay what its stand-in would show while a hand turns the crank to the
 * figure.
 */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    const who = await allow(WRITERS, id);
    if ("refusal" in who) return who.refusal;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    const asked = new URL(request.url).searchParams;
    const to = Number(asked.get("to") ?? NaN);
    if (!Number.isFinite(to)) return problem(422, "to: give the figure it is turned to, in mm.");
    const events = eventsAfter(id);
    const view = viewAsked(asked, job, events);
    const targetId = targetAsked(asked, view, events);
    const plan = planFor(view, events, targetId);
    const slot = slotsFor(plan).find((s) => s.id === asked.get("slot"));
    const instrument = plan.instruments.find((i) => i.kind === slot?.instrument);
    if (!slot || instrument?.live !== "posts")
      return problem(422, "slot: no instrument of this job posts that figure while it is turned.");
    const world = job.ground.real ? null : bayOf(job, view, events, targetId);
    const nth = eventsOf(events, "move").length;
    return eventStream(request, who.person.id, ({ put, stop, every }) => {
      let looks = 0;
      const quiet = onFigure(id, (f) => {
        if (f.slotId === slot.id && f.targetId === targetId) put(dataOf({ shown: f.shown }));
      });
      every(1000 / HZ, () => {
        if (world) put(dataOf({ shown: liveFigure(world, slot.id, to, nth, looks / HZ) }));
        if (++looks >= HZ * SECONDS) stop();
      });
      return quiet;
    });
  },
);
