import { calibrationInHand, targetInHand, viewOf } from "@/core/job";
import { rigLook } from "@/devices/bench/rig";
import { onEnded } from "@/server/auth/bell";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { bayOf } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";

/** Looks a second, and how long a stream lives before the tablet has to ask again. */
const HZ = 5;
const SECONDS = 60;

/** The camera rig's live stream, as server-sent events. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    const who = await allow(WRITERS, id);
    if ("refusal" in who) return who.refusal;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    if (job.ground.real)
      return problem(422, "No simulated rig in a real bay: let the rig post its readings.");
    const events = eventsAfter(id);
    const asked = new URL(request.url).searchParams;
    const named = asked.get("calibration");
    const view = named ? viewOf(job.ground, named) : calibrationInHand(job.ground, events);
    const target = asked.get("target") ?? targetInHand(view, events).id;
    const world = bayOf(job, view, events, target);
    // A new stream goes on where the log is, not where the last one began.
    const from = (events.at(-1)?.seq ?? 0) * 1000;
    const text = new TextEncoder();
    let timer: NodeJS.Timeout | undefined;
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        let n = 0;
        const noMore = onEnded(who.person.id, () => stop());
        const stop = (): void => {
          clearInterval(timer);
          noMore();
          try {
            controller.close();
          } catch {
            // Already closed from the other side.
          }
        };
        request.signal.addEventListener("abort", stop);
        timer = setInterval(() => {
          try {
            controller.enqueue(
              text.encode(`data: ${JSON.stringify(rigLook(world, from + n))}\n\n`),
            );
            if (++n >= HZ * SECONDS) stop();
          } catch {
            stop();
          }
        }, 1000 / HZ);
      },
      cancel: () => clearInterval(timer),
    });
    return new Response(stream, {
      headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
    });
  },
);
