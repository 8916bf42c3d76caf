import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readJson, route } from "@/server/http/route";
import { rateRoads } from "@/server/roads/edit";
import { RoadsRefusal } from "@/server/roads/take";

const LIMIT = 2_000_000;

/** Takes over what a drive told of its roads. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["rate-roads"]);
  if ("refusal" in who) return who.refusal;
  try {
    return Response.json({ roads: rateRoads(await readJson(request, LIMIT), who.person) });
  } catch (error) {
    if (error instanceof RoadsRefusal) return problem(422, error.message);
    throw error;
  }
});
