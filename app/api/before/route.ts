import { problem } from "@/server/auth/guard";
import { letterForKeeper } from "@/server/day/paper";
import { DayRefusal, keepSaid, saidSchema } from "@/server/day/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 10_000;

/** What a vehicle's keeper answers before it comes, by the link that names its booking. */
export const POST = route(async (request: Request) => {
  const read = saidSchema.safeParse(await readJson(request, LIMIT));
  if (!read.success) return problem(422, "An answer has 200 letters at the most.");
  const { id, said } = read.data;
  const letter = letterForKeeper(id);
  if (!letter) return problem(410, "This link has ended. Call the shop.");
  const asked = new Set<string>(letter.requests.map((r) => r.kind));
  if (Object.keys(said).some((k) => !asked.has(k)))
    return problem(422, "Only what was asked is answered here.");
  try {
    keepSaid(id, said);
    return Response.json({});
  } catch (error) {
    if (error instanceof DayRefusal) return problem(410, "This link has ended. Call the shop.");
    throw error;
  }
});
