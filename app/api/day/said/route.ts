import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { DayRefusal, keepSaid, saidSchema } from "@/server/day/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 10_000;

/** Writes down what a vehicle's keeper said before it came. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["take-in"]);
  if ("refusal" in who) return who.refusal;
  const read = saidSchema.safeParse(await readJson(request, LIMIT));
  if (!read.success) return problem(422, "said: an answer has 200 letters at the most.");
  try {
    keepSaid(read.data.id, read.data.said);
    return Response.json({});
  } catch (error) {
    if (error instanceof DayRefusal) return problem(409, error.message);
    throw error;
  }
});
