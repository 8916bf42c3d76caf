import { calibrationInHand, eventsOf, targetInHand, viewOf } from "@/core/job";
import { liveFigure } from "@/devices/bench/live-figure";
import { onEnded } from "@/server/auth/bell";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { onFigure } from "@/server/feed/live";
import { route } from "@/server/http/route";
import { bayOf } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";

/** Looks a second, and how long a stream lives before the tablet has to ask again. */
const HZ = 5;
const SECONDS = 120;

/**
 * What one instrument shows while an adjuster is turned, as server-sent events: what a real one posts,
 * or in a simulated bay what its stand-in would show while a hand turns the crank to the figure.
 */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    const who = await allow(WRITERS, id);
    if ("refusal" in who) return who.refusal;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    const asked = new URL(request.url).searchParams;
    const slotId = asked.get("slot") ?? "";
    const to = Number(asked.get("to"));
    if (!Number.isFinite(to)) return problem(400, "to: give the figure it is turned to, in mm.");
    const events = eventsAfter(id);
    const named = asked.get("calibration");
    const view = named ? viewOf(job.ground, named) : calibrationInHand(job.ground, events);
    const target = asked.get("target") ?? targetInHand(view, events).id;
    const world = job.ground.real ? null : bayOf(job, view, events, target);
    const nth = eventsOf(events, "move").length;
    const text = new TextEncoder();
    let stop = (): void => undefined;
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        let looks = 0;
        const put = (shown: number): void => {
          try {
            controller.enqueue(text.encode(`data: ${JSON.stringify({ shown })}\n\n`));
          } catch {
            stop();
          }
        };
        const quiet = onFigure(
          id,
          (f) => f.slotId === slotId && f.targetId === target && put(f.shown),
        );
        const noMore = onEnded(who.person.id, () => stop());
        const timer = setInterval(() => {
          if (world) put(liveFigure(world, slotId, to, nth, looks / HZ));
          if (++looks >= HZ * SECONDS) stop();
        }, 1000 / HZ);
        stop = () => {
          quiet();
          noMore();
          clearInterval(timer);
          try {
            controller.close();
          } catch {
            // Already closed from the other side.
          }
        };
        request.signal.addEventListener("abort", stop);
        controller.enqueue(text.encode("retry: 1500\n\n"));
      },
      cancel: () => stop(),
    });
    return new Response(stream, {
      headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
    });
  },
);
