import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readJson, route } from "@/server/http/route";
import { editRoad } from "@/server/roads/edit";
import { RoadsRefusal } from "@/server/roads/take";

const LIMIT = 2_000_000;

/** Writes what is known of one road and of its ends. */
export const PUT = route(async (request: Request) => {
  const who = await allow(RIGHTS["rate-roads"]);
  if ("refusal" in who) return who.refusal;
  try {
    editRoad(await readJson(request, LIMIT), who.person);
    return Response.json({});
  } catch (error) {
    if (error instanceof RoadsRefusal) return problem(422, error.message);
    throw error;
  }
});
