import { randomBytes } from "node:crypto";
import { and, eq, isNull } from "drizzle-orm";
import { db } from "../db/client";
import { people } from "../db/schema";
import { WRITERS } from "./guard";
import { hashOf, type Person } from "./session";

/**
 * A tablet may send another person's waiting lines for this long after that person's PIN was typed.
 */
const MINUTES = 5;

type Grant = { personId: string; jobId: string; until: number };
const grants = ((globalThis as { iridelGrants?: Map<string, Grant> }).iridelGrants ??= new Map<
  string,
  Grant
>());

/**
 * Lets a tablet send the lines of a person into one job, for some minutes. @returns what it has to
 * show
 */
export function grantHandOn(personId: string, jobId: string, now = Date.now()): string {
  for (const [key, grant] of grants) if (grant.until <= now) grants.delete(key);
  const token = randomBytes(24).toString("base64url");
  grants.set(hashOf(token), { personId, jobId, until: now + MINUTES * 60_000 });
  return token;
}

/** The person whose lines may be sent with this into this job, or null. */
export function authorFor(token: string, jobId: string, now = Date.now()): Person | null {
  const grant = grants.get(hashOf(token));
  if (!grant || grant.jobId !== jobId || grant.until <= now) return null;
  const columns = {
    id: people.id,
    name: people.name,
    initials: people.initials,
    role: people.role,
  };
  const person = db()
    .select(columns)
    .from(people)
    .where(and(eq(people.id, grant.personId), isNull(people.retiredAt)))
    .get();
  return person && WRITERS.includes(person.role) ? person : null;
}
