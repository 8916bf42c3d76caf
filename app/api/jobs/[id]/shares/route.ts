import { z } from "zod";
import { plainly, plainMessage } from "@/core/book";
import { Refusal } from "@/server/auth/as-writer";
import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readJson, route } from "@/server/http/route";
import { linksOf, makeLink, revokeLink, shareAsked } from "@/server/share/links";

type Context = { params: Promise<{ id: string }> };

const asked = z.union([
  shareAsked.extend({ revoke: z.undefined().optional() }),
  z.object({ revoke: z.string().max(40) }),
]);

/** The links of a job to papers outside. */
export const GET = route(async (_: Request, { params }: Context) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  return Response.json({ links: linksOf((await params).id) });
});

/** Makes a link to a paper, and sends it where somebody is named; or takes one back. */
export const POST = route(async (request: Request, { params }: Context) => {
  const who = await allow(RIGHTS["command-devices"]);
  if ("refusal" in who) return who.refusal;
  const { id } = await params;
  const body = (await readJson(request, 2000)) as unknown;
  const takes = asked.safeParse(body, plainly);
  if (!takes.success) {
    const issue = shareAsked.safeParse(body, plainly).error?.issues[0] ?? takes.error.issues[0]!;
    return problem(400, `${issue.path.join(".") || "link"}: ${plainMessage(issue)}`);
  }
  try {
    if (typeof takes.data.revoke === "string")
      return Response.json({ links: revokeLink(id, takes.data.revoke, who.person) });
    const house = `${request.headers.get("x-forwarded-proto") ?? "http"}://${request.headers.get("host")}`;
    return Response.json(await makeLink(id, shareAsked.parse(body), who.person, house));
  } catch (error) {
    if (error instanceof Refusal) return problem(422, error.message);
    throw error;
  }
});
