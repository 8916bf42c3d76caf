import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readBytes, route } from "@/server/http/route";
import { MOST_BYTES, RoadsRefusal, roadsFile, takeRoads } from "@/server/roads/take";

/** The shop's roads as a GeoJSON file. */
export const GET = route(async () => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const file = roadsFile();
  if (!file) return problem(404, "Roads: the shop has none yet. Import a GeoJSON file.");
  return new Response(file, {
    headers: {
      "content-type": "application/geo+json; charset=utf-8",
      "content-disposition": 'attachment; filename="roads.geojson"',
    },
  });
});

/** Takes a GeoJSON file (the body) in the place of the roads that were there. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["write-rules"]);
  if ("refusal" in who) return who.refusal;
  try {
    const text = (await readBytes(request, MOST_BYTES)).toString("utf8");
    return Response.json({ roads: takeRoads(text, who.person) });
  } catch (error) {
    if (error instanceof RoadsRefusal) return problem(422, error.message);
    throw error;
  }
});
