import { route } from "@/server/http/route";
import { paperFor, reportPaper } from "@/server/report/record";
import { openLink } from "@/server/share/links";

const GONE = "This link has ended, was taken back, or never was. Ask the shop for a new one.";

/** One paper of a job, for whoever holds a link to it; no sign-in, nothing else of the shop. */
export const GET = route(async (_: Request, { params }: { params: Promise<{ token: string }> }) => {
  const open = openLink((await params).token);
  const paper =
    open &&
    (open.reader === "file"
      ? await reportPaper(open.jobId, open.person)
      : await paperFor(open.reader, open.jobId, open.person));
  if (!paper)
    return new Response(GONE, {
      status: 410,
      headers: { "content-type": "text/plain; charset=utf-8", "x-robots-tag": "noindex" },
    });
  return new Response(new Uint8Array(paper.bytes), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="calibration-${paper.number}.pdf"`,
      "cache-control": "private, no-store",
      "referrer-policy": "no-referrer",
      "x-robots-tag": "noindex",
    },
  });
});
