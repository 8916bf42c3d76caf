import type { JobEvent } from "@/core/job";
import { rollUnderRig } from "@/devices/bench/rig";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { anyBay, holdInstrument, holdReadiness } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { targetAsked, viewAsked } from "@/server/jobs/place-asked";
import { findJob } from "@/server/jobs/store";
import { onGrowth } from "@/server/stand/live";

/** Lines that are on their way are waited for so long, ms. */
const MOST_MS = 2000;

/** A job's log, once it has come as far as the tablet that asks; as it is where that takes too long. */
async function arrived(id: string, upTo: number): Promise<JobEvent[]> {
  const until = Date.now() + MOST_MS;
  for (;;) {
    const events = eventsAfter(id);
    const left = until - Date.now();
    // What is no number is waited for by nobody.
    if (!((events.at(-1)?.seq ?? 0) < upTo) || left <= 0) return events;
    await new Promise<void>((done) => {
      const stop = onGrowth(id, () => end());
      const timer = setTimeout(() => end(), left);
      const end = (): void => {
        stop();
        clearTimeout(timer);
        done();
      };
    });
  }
}

/**
 * What the simulated instrument at a slot shows. A real instrument would answer through the same
 * door.
 */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    const who = await allow(WRITERS, id);
    if ("refusal" in who) return who.refusal;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    if (job.ground.real)
      return problem(422, "No simulated instrument in a real bay: read it by eye and type it.");
    const asked = new URL(request.url).searchParams;
    const events = await arrived(id, Number(asked.get("upTo") ?? 0));
    const view = viewAsked(asked, job, events);
    const item = asked.get("item");
    if (item) {
      const values = holdReadiness(job, view, events, item);
      return values
        ? Response.json({ values })
        : problem(422, "No instrument here reads that item.");
    }
    if (asked.has("roll")) {
      const before = events.filter((e) => e.body.kind === "rear-toe").length;
      return Response.json({ toe: rollUnderRig(anyBay(job, view, events), before) });
    }
    const slot = asked.get("slot") ?? "";
    try {
      const target = targetAsked(asked, view, events);
      return Response.json({
        shown: holdInstrument(job, view, events, target, slot, asked.has("anew")),
      });
    } catch (error) {
      return problem(
        422,
        error instanceof Error ? error.message : "The instrument does not answer.",
      );
    }
  },
);
