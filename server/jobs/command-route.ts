import { z } from "zod";
import { plainly, plainMessage } from "@/core/book";
import type { JobEvent } from "@/core/job";
import { allow, problem } from "../auth/guard";
import { RIGHTS } from "../auth/rights";
import type { Person } from "../auth/session";
import { readJson, route } from "../http/route";

/** The largest command brings the text of a tool's report. */
const MOST_BYTES = 80_000;

/**
 * The one shape of a route that asks a device something: a writer sends a command and the place in
 * the log it has seen, and gets every event after it. A refusal of the device or the job is an
 * answer (422), not an error.
 */
export const commandRoute = <C>(
  schema: z.ZodType<C>,
  carryOut: (jobId: string, after: number, command: C, person: Person) => Promise<JobEvent[]>,
) =>
  route(
    async (
      request: Request,
      { params }: { params: Promise<{ id: string }> },
    ): Promise<Response> => {
      const who = await allow(RIGHTS["command-devices"]);
      if ("refusal" in who) return who.refusal;
      const frame = z.object({ after: z.number().int().min(0), command: schema });
      const body = frame.safeParse(await readJson(request, MOST_BYTES), plainly);
      if (!body.success)
        return problem(
          400,
          `${body.error.issues[0]!.path.join(".") || "request"}: ${plainMessage(body.error.issues[0]!)}`,
        );
      const events = await carryOut(
        (await params).id,
        body.data.after,
        body.data.command,
        who.person,
      );
      return Response.json({ events });
    },
  );
