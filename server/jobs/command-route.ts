import { z } from "zod";
import { plainMessage } from "@/core/book";
import type { JobEvent } from "@/core/job";
import { allow, problem, WRITERS } from "../auth/guard";
import type { Person } from "../auth/session";
import { JobRefusal } from "./store";

/**
 * The one shape of a route that asks a device something: a writer sends a command and the place in the log it has seen,
 * and gets every event after it. A refusal of the device or the job is an answer (422), not an error.
 */
export const commandRoute =
  <C>(
    schema: z.ZodType<C>,
    carryOut: (jobId: string, after: number, command: C, person: Person) => Promise<JobEvent[]>,
  ) =>
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const who = await allow(WRITERS);
    if ("refusal" in who) return who.refusal;
    const body = z
      .object({ after: z.number().int().min(0), command: schema })
      .safeParse(await request.json().catch(() => null));
    if (!body.success)
      return problem(400, `${body.error.issues[0]!.path.join(".")}: ${plainMessage(body.error.issues[0]!)}`);
    try {
      return Response.json({
        events: await carryOut((await params).id, body.data.after, body.data.command, who.person),
      });
    } catch (error) {
      if (error instanceof JobRefusal) return problem(422, error.message);
      throw error;
    }
  };
