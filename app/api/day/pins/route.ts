import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { DayRefusal, keepPin } from "@/server/day/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 4000;

/** Sets a part of a job's day where somebody wants it, or lets it go again. */
export const PUT = route(async (request: Request) => {
  const who = await allow(RIGHTS["take-in"]);
  if ("refusal" in who) return who.refusal;
  try {
    keepPin(await readJson(request, LIMIT));
    return Response.json({});
  } catch (error) {
    if (error instanceof DayRefusal) return problem(422, error.message);
    throw error;
  }
});
