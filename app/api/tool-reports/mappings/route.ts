import { allow } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readJson, route } from "@/server/http/route";
import { keepMapping } from "@/server/tool-report/store";

/** Teaches how a tool names what its report says. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["command-devices"]);
  if ("refusal" in who) return who.refusal;
  return Response.json({ mapping: keepMapping(await readJson(request, 8000), who.person) });
});
