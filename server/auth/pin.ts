import { hash, verify } from "@node-rs/argon2";
import { eq } from "drizzle-orm";
import { db } from "../db/client";
import { people } from "../db/schema";

/** argon2id with the library's current defaults (19 MiB, 2 passes), stored in its own text form. */
export const hashPin = (pin: string): Promise<string> => hash(pin);

/** Tries allowed before waiting begins, and how the wait grows: 5 s, 10 s, 20 s ... up to 15 minutes. */
const FREE_TRIES = 3;
const waitSeconds = (failures: number): number => Math.min(900, 5 * 2 ** (failures - FREE_TRIES));

export type SignInResult = { ok: true; personId: string } | { ok: false; message: string };

/**
 * Checks a PIN. After three failures in a row each further one has to wait, twice as long every time; the count is
 * kept in the database, so a restart does not forgive it.
 */
export async function checkPin(personId: string, pin: string, now = new Date()): Promise<SignInResult> {
  const person = db().select().from(people).where(eq(people.id, personId)).get();
  if (!person || person.retiredAt) return { ok: false, message: "Choose your name first." };
  const left = person.lockedUntil ? Math.ceil((Date.parse(person.lockedUntil) - now.getTime()) / 1000) : 0;
  if (left > 0) return { ok: false, message: `Too many wrong PINs. Try again in ${left} s.` };

  // Counted before the check, so that many attempts at once cannot share one try.
  const failures = person.failures + 1;
  const lockedUntil =
    failures >= FREE_TRIES ? new Date(now.getTime() + waitSeconds(failures) * 1000).toISOString() : null;
  db().update(people).set({ failures, lockedUntil }).where(eq(people.id, personId)).run();
  if (await verify(person.pinHash, pin)) {
    db().update(people).set({ failures: 0, lockedUntil: null }).where(eq(people.id, personId)).run();
    return { ok: true, personId };
  }
  const wait = lockedUntil ? ` Wait ${waitSeconds(failures)} s before the next try.` : "";
  return { ok: false, message: `That PIN is not right.${wait}` };
}
