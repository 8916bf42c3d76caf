import { allow } from "@/server/auth/guard";
import { findEverywhere } from "@/server/find/everywhere";
import { route } from "@/server/http/route";

/** What of the shop fits the words: for the command box. */
export const GET = route(async (request: Request) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const find = new URL(request.url).searchParams.get("find") ?? "";
  return Response.json(findEverywhere(find.slice(0, 120)), {
    headers: { "cache-control": "no-store" },
  });
});
