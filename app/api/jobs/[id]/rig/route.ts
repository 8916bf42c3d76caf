import { rigLook } from "@/devices/bench/rig";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { dataOf, eventStream } from "@/server/http/stream";
import { bayOf } from "@/server/jobs/bay";
import { eventsAfter } from "@/server/jobs/log";
import { targetAsked, viewAsked } from "@/server/jobs/place-asked";
import { findJob } from "@/server/jobs/store";
import { onGrowth } from "@/server/stand/live";

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
    const asked = new URL(request.url).searchParams;
    let events = eventsAfter(id);
    const worldNow = () => {
      const view = viewAsked(asked, job, events);
      return bayOf(job, view, events, targetAsked(asked, view, events));
    };
    let world = worldNow();
    return eventStream(request, who.person.id, ({ put, stop, every }) => {
      let [n, looks, grown] = [0, 0, false];
      every(1000 / HZ, () => {
        // What was done at the stand meanwhile the rig sees at once.
        if (grown) {
          grown = false;
          events = eventsAfter(id);
          world = worldNow();
          n = 0;
        }
        const upTo = events.at(-1)?.seq ?? 0;
        put(dataOf({ ...rigLook(world, upTo * 1000 + n++), upTo }));
        if (++looks >= HZ * SECONDS) stop();
      });
      return onGrowth(id, () => (grown = true));
    });
  },
);
