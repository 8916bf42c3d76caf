import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { bayDrawing } from "@/server/bays/drawing";
import { BayChanged, editBay } from "@/server/bays/edit";
import { BaysRefusal, shopBays } from "@/server/bays/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 1_000_000;
type Context = { params: Promise<{ id: string }> };

/** A bay: as it is, or as the drawing that `as` names, DXF or SVG. */
export const GET = route(async (request: Request, { params }: Context) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const { id } = await params;
  const bay = shopBays().find((b) => b.id === id);
  if (!bay) return problem(404, "There is no such bay.");
  const as = new URL(request.url).searchParams.get("as");
  if (as !== "dxf" && as !== "svg") return Response.json({ bay });
  return bayDrawing(bay, as, bay.id);
});

/** Keeps the bay as it was drawn and surveyed. */
export const PUT = route(async (request: Request) => {
  const who = await allow(RIGHTS["write-kit"]);
  if ("refusal" in who) return who.refusal;
  try {
    return Response.json({ bay: editBay(await readJson(request, LIMIT), who.person) });
  } catch (error) {
    if (error instanceof BayChanged) return problem(409, error.message);
    if (error instanceof BaysRefusal) return problem(422, error.message);
    throw error;
  }
});
