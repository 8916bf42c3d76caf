import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { addQuickBay, dropBay } from "@/server/bays/quick";
import { BaysRefusal } from "@/server/bays/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 10_000;

/** Adds a working place from a tape along each of its sides. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["write-kit"]);
  if ("refusal" in who) return who.refusal;
  try {
    return Response.json({ bay: addQuickBay(await readJson(request, LIMIT), who.person) });
  } catch (error) {
    if (error instanceof BaysRefusal) return problem(422, error.message);
    throw error;
  }
});

/** Takes the bay `id` out. */
export const DELETE = route(async (request: Request) => {
  const who = await allow(RIGHTS["write-rules"]);
  if ("refusal" in who) return who.refusal;
  try {
    dropBay(new URL(request.url).searchParams.get("id") ?? "", who.person);
    return Response.json({});
  } catch (error) {
    if (error instanceof BaysRefusal) return problem(422, error.message);
    throw error;
  }
});
