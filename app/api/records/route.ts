import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { records, recordsAsked, recordsCsv } from "@/server/numbers/query";

/** As many rows as a sheet program still takes well. */
const MOST = 50_000;

/** Records by what is asked in the address, as CSV. */
export const GET = route(async (request: Request) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const asked = recordsAsked.parse(Object.fromEntries(new URL(request.url).searchParams));
  return new Response(recordsCsv(records(asked, MOST).rows), {
    headers: {
      "content-type": "text/csv; charset=utf-8",
      "content-disposition": 'attachment; filename="iridel-records.csv"',
    },
  });
});
