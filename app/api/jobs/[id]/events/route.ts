import { z } from "zod";
import { plainMessage } from "@/core/book";
import { tabletEventSchema } from "@/core/job";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { appendEvents, eventsAfter, findJob, JobRefusal, seen } from "@/server/jobs/store";

type Context = { params: Promise<{ id: string }> };

const batchSchema = z.object({
  baseSeq: z.number().int().min(0),
  events: z.array(z.object({ id: z.string().min(8).max(64), takenAt: z.iso.datetime(), body: tabletEventSchema })).min(1).max(100),
}); // prettier-ignore

/** What others have written after a place, and who else has the job open. */
export async function GET(request: Request, { params }: Context) {
  const { id } = await params;
  const who = await allow("any", id);
  if ("refusal" in who) return who.refusal;
  if (!findJob(id)) return problem(404, "There is no such job. Go back to the list.");
  const after = Number(new URL(request.url).searchParams.get("after") ?? 0);
  if (!Number.isInteger(after) || after < 0) return problem(400, "after: must be a whole number from 0.");
  return Response.json({ events: eventsAfter(id, after), others: seen(id, who.person) });
}

/** Adds to the log. 409 with what is missing when somebody else wrote first; nothing is written then. */
export async function POST(request: Request, { params }: Context) {
  const { id } = await params;
  const who = await allow(WRITERS, id);
  if ("refusal" in who) return who.refusal;
  const batch = batchSchema.safeParse(await request.json().catch(() => null));
  if (!batch.success) {
    const [issue] = batch.error.issues;
    return problem(400, `${issue?.path.join(".") || "request"}: ${issue ? plainMessage(issue) : "not understood"}`);
  }
  try {
    const result = appendEvents(id, batch.data.baseSeq, batch.data.events, who.person);
    if (result.ok) return Response.json({ events: result.events });
    return problem(409, "Somebody else wrote to this job first.", { missing: result.missing });
  } catch (error) {
    if (error instanceof JobRefusal) return problem(422, error.message);
    throw error;
  }
}
