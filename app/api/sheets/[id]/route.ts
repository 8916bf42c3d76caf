import { allow, problem } from "@/server/auth/guard";
import { sheetVersions } from "@/server/sheets/store";

/** One version of a sheet as a file, for keeping and for other shops. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const versions = sheetVersions((await params).id);
  const wanted = new URL(request.url).searchParams.get("version");
  const sheet = wanted ? versions.find((s) => String(s.version) === wanted) : versions[0];
  if (!sheet) return problem(404, "There is no such sheet or version. Go back to the list.");
  return new Response(`${JSON.stringify(sheet, null, 2)}\n`, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": `attachment; filename="${sheet.id}-v${sheet.version}.json"`,
    },
  });
}
