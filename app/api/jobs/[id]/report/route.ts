import { allow, problem } from "@/server/auth/guard";
import { photoBytes } from "@/server/photos/store";
import { renderReport } from "@/server/report/pdf";
import { recordOf } from "@/server/report/record";

/** The job's report as PDF. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }) {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const record = recordOf((await params).id);
  if (!record) return problem(404, "There is no such job. Go back to the list.");
  const photos = record.photos.flatMap((p) => {
    const jpeg = photoBytes(p.sha256);
    return jpeg ? [{ ...p, jpeg }] : [];
  });
  const pdf = await renderReport(record, photos);
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="iridel-job-${record.job.number}.pdf"`,
    },
  });
}
