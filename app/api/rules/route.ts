import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { ruleBook } from "@/server/shop/store";

/** The shop's rule book as a file. */
export const GET = route(async () => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  return new Response(`${JSON.stringify(ruleBook(), null, 2)}\n`, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": 'attachment; filename="rule-book.json"',
    },
  });
});
