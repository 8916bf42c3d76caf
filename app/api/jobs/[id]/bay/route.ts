import { allow, problem, WRITERS } from "@/server/auth/guard";
import { holdInstrument } from "@/server/jobs/bay";
import { eventsAfter, findJob } from "@/server/jobs/store";

/** What the simulated instrument at a slot shows. A real instrument would answer through the same door. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const who = await allow(WRITERS);
  if ("refusal" in who) return who.refusal;
  const { id } = await params;
  const job = findJob(id);
  if (!job) return problem(404, "There is no such job. Go back to the list.");
  const slot = new URL(request.url).searchParams.get("slot") ?? "";
  try {
    return Response.json({ shown: holdInstrument(job, eventsAfter(id), slot) });
  } catch (error) {
    return problem(422, error instanceof Error ? error.message : "The instrument does not answer.");
  }
}
