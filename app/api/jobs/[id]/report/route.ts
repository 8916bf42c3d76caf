import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { reportPaper } from "@/server/report/record";

/** The job's report as PDF: once handed over, exactly as it was first made. */
export const GET = route(async (_: Request, { params }: { params: Promise<{ id: string }> }) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const paper = await reportPaper((await params).id, who.person);
  if (!paper) return problem(404, "There is no such job. Go back to the list.");
  return new Response(new Uint8Array(paper.bytes), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="iridel-job-${paper.number}.pdf"`,
      "cache-control": "no-store",
    },
  });
});
