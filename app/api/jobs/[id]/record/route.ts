import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { recordPaper } from "@/server/report/record";

/**
 * The job's record as JSON, for keeping and for other programs: once handed over, exactly as it was
 * made then.
 */
export const GET = route(async (_: Request, { params }: { params: Promise<{ id: string }> }) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const paper = recordPaper((await params).id, who.person);
  if (!paper) return problem(404, "There is no such job. Go back to the list.");
  return new Response(new Uint8Array(paper.bytes), {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": `attachment; filename="iridel-job-${paper.number}.json"`,
      "cache-control": "no-store",
    },
  });
});
