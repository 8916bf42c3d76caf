import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { triedInBay } from "@/server/numbers/tried";

/** How often a sheet passed in the bay at its first attempt. */
export const GET = route(async (_: Request, { params }: { params: Promise<{ id: string }> }) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  return Response.json(triedInBay((await params).id));
});
