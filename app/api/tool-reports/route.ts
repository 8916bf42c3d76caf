import { fieldsIn, mappingFor } from "@/core/tool-report";
import { allow } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readBytes, route } from "@/server/http/route";
import { toolMappings } from "@/server/tool-report/store";
import { MOST_REPORT_BYTES, reportText } from "@/server/tool-report/text";

/** The text of a tool's report (the body is the file itself), what it says, and who reads it. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["command-devices"]);
  if ("refusal" in who) return who.refusal;
  const bytes = new Uint8Array(await readBytes(request, MOST_REPORT_BYTES));
  const { text, sha256 } = await reportText(bytes);
  const fields = fieldsIn(text);
  return Response.json({ text, sha256, fields, mapping: mappingFor(fields, toolMappings()) });
});
