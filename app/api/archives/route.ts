import { bringIn } from "@/server/archive/bring-in";
import { openArchive } from "@/server/archive/form";
import { summaryOf } from "@/server/archive/summary";
import { ArchiveRefusal, MAX_ARCHIVE_BYTES } from "@/server/archive/zip";
import { Refusal } from "@/server/auth/as-writer";
import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readBytes, route } from "@/server/http/route";
import { findJob } from "@/server/jobs/store";

/**
 * Checks an archive (the body is the file itself) and says what it holds; `?keep=1` brings it in as
 * well.
 */
export const POST = route(async (request: Request) => {
  const keep = new URL(request.url).searchParams.get("keep") === "1";
  const who = await allow(keep ? RIGHTS["bring-in"] : "any");
  if ("refusal" in who) return who.refusal;
  try {
    const packed = new Uint8Array(await readBytes(request, MAX_ARCHIVE_BYTES));
    if (keep) return Response.json(bringIn(packed, who.person, new Date().toISOString()));
    const archive = openArchive(packed);
    const here = findJob(archive.log.log);
    return Response.json({
      ...summaryOf(archive),
      here: here && { id: here.id, number: here.number },
    });
  } catch (error) {
    if (error instanceof ArchiveRefusal) return problem(422, error.message);
    if (error instanceof Refusal) return problem(409, error.message);
    throw error;
  }
});
