import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { DayRefusal, keepDayRules } from "@/server/day/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 20_000;

/** Keeps how the shop's days go. */
export const PUT = route(async (request: Request) => {
  const who = await allow(RIGHTS["write-rules"]);
  if ("refusal" in who) return who.refusal;
  try {
    return Response.json({ rules: keepDayRules(await readJson(request, LIMIT), who.person) });
  } catch (error) {
    if (error instanceof DayRefusal) return problem(422, error.message);
    throw error;
  }
});
