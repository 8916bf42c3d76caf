import { randomBytes } from "node:crypto";
import { and, eq, gt, isNull } from "drizzle-orm";
import { Refusal } from "../auth/as-writer";
import { hashOf, type Person } from "../auth/session";
import { db } from "../db/client";
import { jobs, standCodes } from "../db/schema";

/** A code is good for this long and for one phone. */
const MINUTES = 5;

export class StandRefusal extends Refusal {
  override readonly name = "StandRefusal";
}

/**
 * Makes a code for a phone at the stand; whoever opens it first within minutes joins the job in
 * this person's name.
 */
export function makeStandCode(
  jobId: string,
  person: Person,
  now = new Date(),
): { code: string; expiresAt: string } {
  if (!db().select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId)).get())
    throw new StandRefusal("There is no such job.");
  const code = randomBytes(18).toString("base64url");
  const expiresAt = new Date(now.getTime() + MINUTES * 60_000).toISOString();
  db()
    .insert(standCodes)
    .values({ codeHash: hashOf(code), jobId, personId: person.id, expiresAt, usedAt: null })
    .run();
  return { code, expiresAt };
}

/** Uses a code up. @throws StandRefusal when it is unknown, used or too old */
export function takeStandCode(code: string, now = new Date()): { jobId: string; personId: string } {
  const at = now.toISOString();
  const used = db()
    .update(standCodes)
    .set({ usedAt: at })
    .where(
      and(
        eq(standCodes.codeHash, hashOf(code)),
        isNull(standCodes.usedAt),
        gt(standCodes.expiresAt, at),
      ),
    )
    .returning({ jobId: standCodes.jobId, personId: standCodes.personId })
    .get();
  if (!used)
    throw new StandRefusal("This code was used or is too old. Have the tablet show a new one.");
  return used;
}
