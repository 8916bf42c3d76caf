import { hash, verify } from "@node-rs/argon2";
import { and, eq, sql } from "drizzle-orm";
import { db } from "../db/client";
import { knownDevices, people, strangeTries } from "../db/schema";
import { ifWritable } from "../db/trouble";
import { hashOf } from "./session";

/** argon2id with the library's current defaults (19 MiB, 2 passes), stored in its own text form. */
export const hashPin = (pin: string): Promise<string> => hash(pin);

/**
 * Tries allowed before waiting begins, and how the wait grows: 5 s, 10 s, 20 s ... up to 15
 * minutes.
 */
const FREE_TRIES = 3;
const waitSeconds = (failures: number): number => Math.min(900, 5 * 2 ** (failures - FREE_TRIES));
/** Wrong PINs a day and person from tablets that nobody has signed in on, all of them together. */
const STRANGE_TRIES = 30;

export type SignInResult = { ok: true; personId: string } | { ok: false; message: string };

/**
 * Counts a wrong try; kept in the database so that a restart does not forgive it, in memory while
 * the disk is full.
 */
type Counter = {
  before: () => { failures: number; lockedUntil: string | null } | null;
  count: (n: number, until: string | null) => void;
};

const memory = ((globalThis as { iridelTries?: Map<string, number> }).iridelTries ??= new Map<
  string,
  number
>());

/** The counter of a tablet this person has signed in on before; null when it is none. */
function deviceCounter(personId: string, device: string | null): Counter | null {
  if (!device) return null;
  const of = and(eq(knownDevices.deviceHash, hashOf(device)), eq(knownDevices.personId, personId));
  const row = (): { failures: number; lockedUntil: string | null } | null =>
    db()
      .select({ failures: knownDevices.failures, lockedUntil: knownDevices.lockedUntil })
      .from(knownDevices)
      .where(of)
      .get() ?? null;
  if (!row()) return null;
  const count = (failures: number, lockedUntil: string | null): void =>
    ifWritable(() => void db().update(knownDevices).set({ failures, lockedUntil }).where(of).run());
  return { before: row, count };
}

/** Counts a try from a strange tablet. @returns how many there were today with it */
function countStrange(personId: string, day: string, by: 1 | -1): number {
  const key = `${personId}/${day}`;
  let failures = (memory.get(key) ?? 0) + by;
  ifWritable(
    () => {
      const row = db()
        .insert(strangeTries)
        .values({ personId, day, failures: Math.max(0, by) })
        .onConflictDoUpdate({
          target: [strangeTries.personId, strangeTries.day],
          set: { failures: sql`max(0, ${strangeTries.failures} + ${by})` },
        })
        .returning({ failures: strangeTries.failures })
        .get();
      failures = Math.max(failures, row.failures);
    },
    () => void memory.set(key, failures),
  );
  return failures;
}

/**
 * Checks a PIN. A tablet the person has signed in on before counts for itself: from the third wrong
 * PIN on each further one has to wait, twice as long every time. All other tablets share thirty
 * wrong PINs a person and day, so that strangers can neither guess for long nor keep anybody out of
 * a tablet of their own.
 *
 * @param device what the tablet is known by, or null
 */
export async function checkPin(
  personId: string,
  pin: string,
  device: string | null = null,
  now = new Date(),
): Promise<SignInResult> {
  const person = db().select().from(people).where(eq(people.id, personId)).get();
  if (!person || person.retiredAt) return { ok: false, message: "Choose your name first." };
  const known = deviceCounter(personId, device);
  return known ? checkKnown(known, person, pin, now) : checkStrange(person, pin, device, now);
}

type Who = { id: string; pinHash: string };

async function checkKnown(
  counter: Counter,
  person: Who,
  pin: string,
  now: Date,
): Promise<SignInResult> {
  const before = counter.before();
  const left = before?.lockedUntil
    ? Math.ceil((Date.parse(before.lockedUntil) - now.getTime()) / 1000)
    : 0;
  if (left > 0) return { ok: false, message: `Too many wrong PINs. Try again in ${left} s.` };
  // Counted before the check, so that many attempts at once cannot share one try.
  const failures = (before?.failures ?? 0) + 1;
  const wait = failures >= FREE_TRIES ? waitSeconds(failures) : 0;
  counter.count(failures, wait > 0 ? new Date(now.getTime() + wait * 1000).toISOString() : null);
  if (await verify(person.pinHash, pin)) {
    counter.count(0, null);
    return { ok: true, personId: person.id };
  }
  return {
    ok: false,
    message: `That PIN is not right.${wait > 0 ? ` Wait ${wait} s before the next try.` : ""}`,
  };
}

async function checkStrange(
  person: Who,
  pin: string,
  device: string | null,
  now: Date,
): Promise<SignInResult> {
  const day = now.toISOString().slice(0, 10);
  if (countStrange(person.id, day, 1) > STRANGE_TRIES) {
    countStrange(person.id, day, -1);
    return {
      ok: false,
      message:
        "Too many wrong PINs today from tablets this shop does not know. Sign in on one you have used before, or have the lead give you a new PIN.",
    };
  }
  if (!(await verify(person.pinHash, pin))) return { ok: false, message: "That PIN is not right." };
  countStrange(person.id, day, -1);
  if (device) rememberDevice(person.id, device, now);
  return { ok: true, personId: person.id };
}

/** From now on this tablet counts for itself with this person. */
function rememberDevice(personId: string, device: string, now: Date): void {
  const row = { deviceHash: hashOf(device), personId, knownSince: now.toISOString() };
  ifWritable(() => void db().insert(knownDevices).values(row).onConflictDoNothing().run());
}

/** A new PIN begins with no wrong tries behind it, and no tablet keeps its waiting. */
export function forgiveTries(personId: string): void {
  for (const key of memory.keys()) if (key.startsWith(`${personId}/`)) memory.delete(key);
  db().delete(strangeTries).where(eq(strangeTries.personId, personId)).run();
  db()
    .update(knownDevices)
    .set({ failures: 0, lockedUntil: null })
    .where(eq(knownDevices.personId, personId))
    .run();
}
