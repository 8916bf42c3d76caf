import { allow, problem } from "@/server/auth/guard";
import { onEnded } from "@/server/auth/bell";
import { personOf, sessionToken } from "@/server/auth/session";
import { route } from "@/server/http/route";
import { eventsAfter } from "@/server/jobs/log";
import { seen } from "@/server/jobs/presence";
import { findJob } from "@/server/jobs/store";
import { onGrowth } from "@/server/stand/live";

/** A beat tells a silent line from a dead one. */
const BEAT_MS = 4000;

/**
 * What is written to a job, as it is written: server-sent events, each with everything after the
 * last one sent.
 */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    const who = await allow("any", id);
    if ("refusal" in who) return who.refusal;
    if (!findJob(id)) return problem(404, "There is no such job. Go back to the list.");
    const token = (await sessionToken()) ?? "";
    let after =
      Number(
        request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("after") ?? 0,
      ) || 0;
    const text = new TextEncoder();
    let stop = (): void => undefined;
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const put = (words: string): void => {
          try {
            controller.enqueue(text.encode(words));
          } catch {
            stop();
          }
        };
        const grow = (): void => {
          const events = eventsAfter(id, after);
          after = events.at(-1)?.seq ?? after;
          if (events.length > 0) put(`id: ${after}\ndata: ${JSON.stringify({ events })}\n\n`);
        };
        const beat = (): void => {
          // A session that ran out, or a person who is no longer who they were, hears nothing more.
          if (!personOf(token)) return stop();
          put(`event: beat\ndata: ${JSON.stringify({ others: seen(id, who.person) })}\n\n`);
        };
        const quiet = onGrowth(id, grow);
        const noMore = onEnded(who.person.id, () => !personOf(token) && stop());
        const timer = setInterval(beat, BEAT_MS);
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
        put("retry: 1500\n\n");
        grow();
        beat();
      },
      cancel: () => stop(),
    });
    return new Response(stream, {
      headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
    });
  },
);
