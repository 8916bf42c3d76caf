import { createHash, randomBytes } from "node:crypto";
import { and, eq, gt, isNull, lt, ne } from "drizzle-orm";
import { cookies } from "next/headers";
import { db } from "../db/client";
import { people, sessions } from "../db/schema";
import { ifWritable } from "../db/trouble";
import { announceEnded } from "./bell";

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
const DEVICE_COOKIE = "iridel_device";
/** One working day and the evening after it. */
const LIFETIME_MS = 14 * 3600 * 1000;
/** A tablet is known for this long after it was last signed in on. */
const DEVICE_LIFETIME_MS = 400 * 86_400_000;

/** What is stored of a secret. */
export const hashOf = (token: string): string => createHash("sha256").update(token).digest("hex");

type Session = typeof sessions.$inferInsert;

/**
 * Sessions begun while the disk could not be written: somebody must be able to read and to say so.
 * They end with the server.
 */
const inMemory = ((globalThis as { iridelSessions?: Map<string, Session> }).iridelSessions ??=
  new Map());

const cookieLook = (expires: Date) =>
  ({
    httpOnly: true,
    sameSite: "strict",
    // Shops run this on their own network, often without TLS; behind TLS set
    // IRIDEL_SECURE_COOKIE=1.
    secure: process.env.IRIDEL_SECURE_COOKIE === "1",
    path: "/",
    expires,
  }) as const;

/** Keeps a session under its token's hash. @returns the token */
export function makeSession(
  personId: string,
  onlyJob: string | null,
  now = Date.now(),
): { token: string; expires: Date } {
  const token = randomBytes(32).toString("base64url");
  const expires = new Date(now + LIFETIME_MS);
  const row: Session = {
    tokenHash: hashOf(token),
    personId,
    jobId: onlyJob,
    createdAt: new Date(now).toISOString(),
    expiresAt: expires.toISOString(),
  };
  ifWritable(
    () => {
      db()
        .delete(sessions)
        .where(lt(sessions.expiresAt, new Date(now).toISOString()))
        .run();
      db().insert(sessions).values(row).run();
    },
    () => void inMemory.set(row.tokenHash, row),
  );
  return { token, expires };
}

/**
 * Signs a person in on this tablet: http-only, same-site cookie; only the token's hash is stored.
 *
 * @param onlyJob the one job a phone at the stand may see
 */
export async function startSession(personId: string, onlyJob: string | null = null): Promise<void> {
  const { token, expires } = makeSession(personId, onlyJob);
  (await cookies()).set(COOKIE, token, cookieLook(expires));
}

export async function endSession(): Promise<void> {
  const jar = await cookies();
  const token = jar.get(COOKIE)?.value;
  if (token) {
    const tokenHash = hashOf(token);
    inMemory.delete(tokenHash);
    ifWritable(() => void db().delete(sessions).where(eq(sessions.tokenHash, tokenHash)).run());
  }
  jar.delete(COOKIE);
}

/** Ends a person's sessions and open streams at once, but for the one that asked. */
export function endSessionsOf(personId: string, exceptToken?: string): void {
  const keep = exceptToken ? hashOf(exceptToken) : "";
  for (const [hash, s] of inMemory)
    if (s.personId === personId && hash !== keep) inMemory.delete(hash);
  db()
    .delete(sessions)
    .where(and(eq(sessions.personId, personId), ne(sessions.tokenHash, keep)))
    .run();
  announceEnded(personId);
}

/** The person a token signs in, or null. */
export function personOf(token: string, now = new Date()): Person | null {
  const tokenHash = hashOf(token);
  const columns = {
    id: people.id,
    name: people.name,
    initials: people.initials,
    role: people.role,
  };
  const row = db()
    .select({ ...columns, onlyJob: sessions.jobId })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .where(
      and(
        eq(sessions.tokenHash, tokenHash),
        gt(sessions.expiresAt, now.toISOString()),
        isNull(people.retiredAt),
      ),
    )
    .get();
  if (row) {
    const { onlyJob, ...person } = row;
    return onlyJob ? { ...person, onlyJob } : person;
  }
  const kept = inMemory.get(tokenHash);
  if (!kept || kept.expiresAt <= now.toISOString()) return null;
  const person = db()
    .select(columns)
    .from(people)
    .where(and(eq(people.id, kept.personId), isNull(people.retiredAt)))
    .get();
  return person ? (kept.jobId ? { ...person, onlyJob: kept.jobId } : person) : null;
}

/** The token of this tablet's session, or null. */
export const sessionToken = async (): Promise<string | null> =>
  (await cookies()).get(COOKIE)?.value ?? null;

/** Who is at this tablet, or null. */
export async function currentPerson(): Promise<Person | null> {
  const token = await sessionToken();
  return token ? personOf(token) : null;
}

/** What this tablet is known by, or null where nobody has signed in on it yet. */
export const deviceToken = async (): Promise<string | null> =>
  (await cookies()).get(DEVICE_COOKIE)?.value ?? null;

/** Gives this tablet something to be known by, unless it has it. @returns it */
export async function knowDevice(): Promise<string> {
  const token = (await deviceToken()) ?? randomBytes(24).toString("base64url");
  (await cookies()).set(
    DEVICE_COOKIE,
    token,
    cookieLook(new Date(Date.now() + DEVICE_LIFETIME_MS)),
  );
  return token;
}
