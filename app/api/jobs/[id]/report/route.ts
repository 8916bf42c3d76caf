import { allow, problem } from "@/server/auth/guard";
import { renderReport } from "@/server/report/pdf";
import { recordOf } from "@/server/report/record";

/** The job's report as PDF. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }) {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const record = recordOf((await params).id);
  if (!record) return problem(404, "There is no such job. Go back to the list.");
  const pdf = await renderReport(record);
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="iridel-job-${record.job.number}.pdf"`,
    },
  });
}
