import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { paperFor, reportPaper } from "@/server/report/record";

/**
 * The job's report as PDF: once handed over, exactly as it was first made. `?for=customer` is one page
 * for the owner, `?for=insurer` what an insurer asks for.
 */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const who = await allow("any");
    if ("refusal" in who) return who.refusal;
    const { id } = await params;
    const reader = new URL(request.url).searchParams.get("for") ?? "file";
    if (reader !== "file" && reader !== "customer" && reader !== "insurer")
      return problem(400, "for: ask for the customer, the insurer or the file.");
    const paper =
      reader === "file"
        ? await reportPaper(id, who.person)
        : await paperFor(reader, id, who.person);
    if (!paper) return problem(404, "There is no such job. Go back to the list.");
    return new Response(new Uint8Array(paper.bytes), {
      headers: {
        "content-type": "application/pdf",
        "content-disposition": `inline; filename="iridel-job-${paper.number}${reader === "file" ? "" : `-${reader}`}.pdf"`,
        "cache-control": "no-store",
      },
    });
  },
);
