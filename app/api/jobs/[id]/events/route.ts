import { z } from "zod";
import { plainly, plainMessage } from "@/core/book";
import { tabletEventSchema } from "@/core/job";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { authorFor } from "@/server/auth/hand-on";
import { readJson, route } from "@/server/http/route";
import { writeLines } from "@/server/jobs/append";
import { eventsAfter } from "@/server/jobs/log";
import { seen } from "@/server/jobs/presence";
import { findJob } from "@/server/jobs/store";

type Context = { params: Promise<{ id: string }> };

/** A post of a tablet: lines in the order they were written, and what it had seen of the log. */
const MOST_LINES = 50;
const MOST_BYTES = 600_000;

const frameSchema = z.object({
  baseSeq: z.number().int().min(0),
  /** The tablet's clock at the moment of sending. */
  sentAt: z.iso.datetime().optional(),
  /** Lines of another person of this shop, sent knowingly: see `server/auth/hand-on.ts`. */
  handedOn: z.string().max(80).optional(),
  events: z.array(z.unknown()).min(1).max(MOST_LINES),
});
const lineSchema = z.object({
  id: z.string().regex(/^[\w-]{8,64}$/, "must be 8 to 64 letters, figures or dashes"),
  takenAt: z.iso.datetime(),
  body: tabletEventSchema,
});
/** A line that is not understood can still be named, so that it is refused alone. */
const nameSchema = z.object({ id: z.string().max(64) });

/** What others have written after a place, and who else has the job open. */
export const GET = route(async (request: Request, { params }: Context) => {
  const { id } = await params;
  const who = await allow("any", id);
  if ("refusal" in who) return who.refusal;
  if (!findJob(id)) return problem(404, "There is no such job. Go back to the list.");
  const after = Number(new URL(request.url).searchParams.get("after") ?? 0);
  if (!Number.isInteger(after) || after < 0)
    return problem(400, "after: must be a whole number from 0.");
  return Response.json(
    { events: eventsAfter(id, after), others: seen(id, who.person) },
    { headers: { "cache-control": "no-store" } },
  );
});

/**
 * Adds to the log, each line judged by itself. 409 with what is missing when somebody else wrote
 * first; nothing is written then. Otherwise every line is answered: written, known, refused with
 * its reason, or held behind a refused one.
 */
export const POST = route(async (request: Request, { params }: Context) => {
  const { id } = await params;
  const who = await allow(WRITERS, id);
  if ("refusal" in who) return who.refusal;
  const frame = frameSchema.safeParse(await readJson(request, MOST_BYTES), plainly);
  if (!frame.success) {
    const issue = frame.error.issues[0]!;
    return problem(400, `${issue.path.join(".") || "request"}: ${plainMessage(issue)}`);
  }
  const { baseSeq, sentAt, handedOn, events } = frame.data;
  const author = handedOn === undefined ? who.person : authorFor(handedOn, id);
  if (!author) return problem(401, "The PIN for these lines is needed again.");
  const misread = new Map<string, string>();
  const lines = events.flatMap((raw) => {
    const line = lineSchema.safeParse(raw, plainly);
    if (line.success) return [line.data];
    const issue = line.error.issues[0]!;
    const name = nameSchema.safeParse(raw);
    if (name.success) misread.set(name.data.id, `${issue.path.join(".")}: ${plainMessage(issue)}`);
    return [];
  });
  if (lines.length + misread.size !== events.length)
    return problem(400, "events: each line needs an id of its own.");
  const result = writeLines(id, baseSeq, lines, author, { sentAt });
  if (!result.ok)
    return problem(409, "Somebody else wrote to this job first.", { missing: result.missing });
  const refused = [...misread].map(([line, why]) => ({
    id: line,
    outcome: "refused" as const,
    why,
  }));
  return Response.json({
    events: result.events,
    outcomes: [...result.outcomes, ...refused],
    now: new Date().toISOString(),
  });
});
