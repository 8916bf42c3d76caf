import { allow, problem } from "@/server/auth/guard";
import { personOf, sessionToken } from "@/server/auth/session";
import { route } from "@/server/http/route";
import { dataOf, eventStream } from "@/server/http/stream";
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
    return eventStream(
      request,
      who.person.id,
      ({ put, stop, every }) => {
        const grow = (): void => {
          const events = eventsAfter(id, after);
          after = events.at(-1)?.seq ?? after;
          if (events.length > 0) put(`id: ${after}\n${dataOf({ events })}`);
        };
        const beat = (): void => {
          // A session that ran out, or a person who is no longer who they were, hears nothing more.
          if (!personOf(token)) return stop();
          put(`event: beat\n${dataOf({ others: seen(id, who.person) })}`);
        };
        const quiet = onGrowth(id, grow);
        every(BEAT_MS, beat);
        grow();
        beat();
        return quiet;
      },
      () => !personOf(token),
    );
  },
);
