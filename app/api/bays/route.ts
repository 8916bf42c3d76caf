import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { BaysRefusal, baysFile, shopBays, takeBays } from "@/server/bays/store";
import { readBytes, route } from "@/server/http/route";

const LIMIT = 2_000_000;

/** The shop's bays: as they are, or as a file where `file` is asked for. */
export const GET = route(async (request: Request) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  if (!new URL(request.url).searchParams.has("file")) return Response.json({ bays: shopBays() });
  return new Response(baysFile(), {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": 'attachment; filename="bays.json"',
    },
  });
});

/** Takes a file of bays (the body) in the place of those that were there. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["write-rules"]);
  if ("refusal" in who) return who.refusal;
  try {
    const text = (await readBytes(request, LIMIT)).toString("utf8");
    return Response.json({ bays: takeBays(text, who.person) });
  } catch (error) {
    if (error instanceof BaysRefusal) return problem(422, error.message);
    throw error;
  }
});
