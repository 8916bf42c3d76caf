import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { worthSample } from "@/server/kit/worth";

/** The last quarter's set-outs, to be gone through again with another kit. */
export const GET = route(async () => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  return Response.json(worthSample());
});
