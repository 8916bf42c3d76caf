import { like } from "drizzle-orm";
import type { Tried } from "@/core/job/sooner";
import { db } from "../db/client";
import { jobNumbers } from "../db/schema";

/** How often a sheet passed in the bay at its first attempt, in any of its versions. */
export function triedInBay(sheetId: string): Tried {
  const rows = db()
    .select({ sheet: jobNumbers.sheet, doc: jobNumbers.doc })
    .from(jobNumbers)
    .where(like(jobNumbers.sheet, `${sheetId} v%`))
    .all();
  const ran = rows.filter((r) => r.sheet.startsWith(`${sheetId} v`) && r.doc.attempts > 0);
  return { ran: ran.length, first: ran.filter((r) => r.doc.passed && r.doc.attempts === 1).length };
}
