import { packJob } from "@/server/archive/pack-job";
import { ArchiveRefusal } from "@/server/archive/zip";
import { Refusal } from "@/server/auth/as-writer";
import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { findJob } from "@/server/jobs/store";

/** Everything of a job that was handed over, as one ZIP that leaves the house. */
export const GET = route(async (_: Request, { params }: { params: Promise<{ id: string }> }) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const { id } = await params;
  try {
    const packed = await packJob(id, who.person);
    if (!packed) return problem(404, "There is no such job. Go back to the list.");
    return new Response(new Uint8Array(packed), {
      headers: {
        "content-type": "application/zip",
        "content-disposition": `attachment; filename="iridel-job-${findJob(id)!.number}.zip"`,
        "cache-control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal || error instanceof ArchiveRefusal)
      return problem(409, error.message);
    throw error;
  }
});
