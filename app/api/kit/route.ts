import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { kitFile } from "@/server/kit/file";

/** The shop's kit as a file. */
export const GET = route(async () => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  return new Response(`${JSON.stringify(kitFile(), null, 2)}\n`, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": 'attachment; filename="kit.json"',
    },
  });
});
