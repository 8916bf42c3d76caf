import { createHash, randomBytes } from "node:crypto";
import { and, eq, gt, isNull, lt } from "drizzle-orm";
import { cookies } from "next/headers";
import { db } from "../db/client";
import { people, sessions } from "../db/schema";

export type Role = "technician" | "lead" | "viewer";
export type Person = {
  id: string;
  name: string;
  initials: string;
  role: Role;
  /** A phone that joined at the stand: this job, and nothing else. */
  onlyJob?: string;
};

const COOKIE = "iridel_session";
/** One working day and the evening after it. */
const LIFETIME_MS = 14 * 3600 * 1000;

/** What is stored of a secret. */
export const hashOf = (token: string): string => createHash("sha256").update(token).digest("hex");

/**
 * Signs a person in on this tablet: http-only, same-site cookie; only the token's hash is stored.
 *
 * @param onlyJob the one job a phone at the stand may see
 */
export async function startSession(personId: string, onlyJob: string | null = null): Promise<void> {
  const token = randomBytes(32).toString("base64url");
  const now = Date.now();
  db()
    .delete(sessions)
    .where(lt(sessions.expiresAt, new Date(now).toISOString()))
    .run();
  const expires = new Date(now + LIFETIME_MS);
  db().insert(sessions).values({ tokenHash: hashOf(token), personId, jobId: onlyJob, createdAt: new Date(now).toISOString(), expiresAt: expires.toISOString() }).run(); // prettier-ignore
  (await cookies()).set(COOKIE, token, {
    httpOnly: true,
    sameSite: "strict",
    // Shops run this on their own network, often without TLS; behind TLS set IRIDEL_SECURE_COOKIE=1.
    secure: process.env.IRIDEL_SECURE_COOKIE === "1",
    path: "/",
    expires,
  });
}

export async function endSession(): Promise<void> {
  const jar = await cookies();
  const token = jar.get(COOKIE)?.value;
  if (token)
    db()
      .delete(sessions)
      .where(eq(sessions.tokenHash, hashOf(token)))
      .run();
  jar.delete(COOKIE);
}

/** Who is at this tablet, or null. */
export async function currentPerson(): Promise<Person | null> {
  const token = (await cookies()).get(COOKIE)?.value;
  if (!token) return null;
  const row = db()
    .select({ id: people.id, name: people.name, initials: people.initials, role: people.role, onlyJob: sessions.jobId })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .where(
      and(
        eq(sessions.tokenHash, hashOf(token)),
        gt(sessions.expiresAt, new Date().toISOString()),
        isNull(people.retiredAt),
      ),
    )
    .get();
  if (!row) return null;
  const { onlyJob, ...person } = row;
  return onlyJob ? { ...person, onlyJob } : person;
}
