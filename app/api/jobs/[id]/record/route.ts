import { allow, problem } from "@/server/auth/guard";
import { recordOf } from "@/server/report/record";

/** The job's record as JSON, for keeping and for other programs. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }) {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const record = recordOf((await params).id);
  if (!record) return problem(404, "There is no such job. Go back to the list.");
  return new Response(JSON.stringify(record, null, 2), {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": `attachment; filename="iridel-job-${record.job.number}.json"`,
    },
  });
}
