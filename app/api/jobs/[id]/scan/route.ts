import { z } from "zod";
import { allow, problem, WRITERS } from "@/server/auth/guard";
import { commandScan, scanCommandSchema } from "@/server/jobs/scan";
import { JobRefusal } from "@/server/jobs/store";

const requestSchema = z.object({ after: z.number().int().min(0), command: scanCommandSchema });

/** Reads or clears through the scan tool, or signs in to the gateway; answers with every event after `after`. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const who = await allow(WRITERS);
  if ("refusal" in who) return who.refusal;
  const body = requestSchema.safeParse(await request.json().catch(() => null));
  if (!body.success) return problem(400, `${body.error.issues[0]?.path.join(".")}: ${body.error.issues[0]?.message}`);
  try {
    const { id } = await params;
    return Response.json({ events: await commandScan(id, body.data.after, body.data.command, who.person) });
  } catch (error) {
    if (error instanceof JobRefusal) return problem(422, error.message);
    throw error;
  }
}
