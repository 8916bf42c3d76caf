import { and, eq, isNull, ne } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { plainly, plainMessage } from "@/core/book";
import { Refusal } from "../auth/as-writer";
import { checkPin, forgiveTries, hashPin } from "../auth/pin";
import { endSessionsOf, type Person, type Role } from "../auth/session";
import { db } from "../db/client";
import { people } from "../db/schema";
import { noteShop } from "../log/shop";

/** The people of the shop cannot be as it was asked. The message names the field and the remedy. */
export class PeopleRefusal extends Refusal {
  override readonly name = "PeopleRefusal";
}

const personSchema = z.object({
  name: z.string().trim().min(3).max(60),
  /** They stand behind every line of every job. */
  initials: z
    .string()
    .trim()
    .regex(/^[\p{L}]{2,3}$/u, "are two or three letters")
    .transform((s) => s.toUpperCase()),
  role: z.enum(["technician", "lead", "viewer"]),
});
const FIELDS: Record<string, string> = { name: "Name", initials: "Initials", role: "Role" };

export type PersonRow = {
  id: string;
  name: string;
  initials: string;
  role: Role;
  retiredAt: string | null;
};

/** Everybody who is or was in the shop; who left stands last. */
export const everybody = (): PersonRow[] =>
  db()
    .select({
      id: people.id,
      name: people.name,
      initials: people.initials,
      role: people.role,
      retiredAt: people.retiredAt,
    })
    .from(people)
    .orderBy(people.name)
    .all()
    .sort((a, b) => Number(a.retiredAt !== null) - Number(b.retiredAt !== null));

/**
 * Why a PIN will not do, or null. Six figures stand against the waits of the sign-in; a guessable
 * six do not.
 */
export function pinProblem(pin: string): string | null {
  if (!/^\d{6,12}$/.test(pin)) return "PIN: type six to twelve figures.";
  const steps = [...pin].slice(1).map((c, i) => Number(c) - Number(pin[i]));
  if (steps.every((s) => s === steps[0] && Math.abs(s) <= 1))
    return "PIN: not one figure again and again, nor figures in a row.";
  return null;
}

function read(input: unknown): z.infer<typeof personSchema> {
  const parsed = personSchema.safeParse(input, plainly);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new PeopleRefusal(`${FIELDS[String(issue!.path[0])] ?? "Person"}: ${plainMessage(issue!)}`);
}

/** Two people of one shop must not print the same initials. */
function checkInitials(initials: string, exceptId: string): void {
  const other = db()
    .select({ name: people.name })
    .from(people)
    .where(and(eq(people.initials, initials), isNull(people.retiredAt), ne(people.id, exceptId)))
    .get();
  if (other)
    throw new PeopleRefusal(
      `Initials: ${initials} is ${other.name} already. Use other or three letters.`,
    );
}

function requirePin(pin: unknown): string {
  const problem = pinProblem(String(pin));
  if (problem) throw new PeopleRefusal(problem);
  return String(pin);
}

const nobodyYet = (): void => {
  if (db().select({ id: people.id }).from(people).get())
    throw new PeopleRefusal("This shop has people already. Ask its lead to enter you.");
};

type Author = Pick<Person, "id" | "name" | "initials">;

/**
 * Enters somebody.
 *
 * @param by who enters; the first person of a shop enters themselves
 * @param still checked again in the moment of writing
 * @throws PeopleRefusal
 */
export async function addPerson(
  input: unknown,
  pin: unknown,
  by: Author | null = null,
  still = (): void => {},
): Promise<string> {
  const person = read(input);
  const pinHash = await hashPin(requirePin(pin));
  const id = nanoid(10);
  db().transaction(() => {
    still();
    checkInitials(person.initials, id);
    db()
      .insert(people)
      .values({ ...person, id, pinHash })
      .run();
    noteShop(
      by ?? { id, ...person },
      { kind: "person", personId: id, what: "entered", role: person.role },
      person.name,
    );
  });
  return id;
}

/**
 * The first person of a new shop, its lead; of two who try at once only one is. @throws
 * PeopleRefusal once anybody is entered
 */
export async function openShop(input: unknown, pin: unknown): Promise<string> {
  nobodyYet();
  const given = typeof input === "object" && input !== null ? input : {};
  return addPerson({ ...given, role: "lead" }, pin, null, nobodyYet);
}

/**
 * Writes somebody down anew, lets them go or takes them back. The shop keeps a lead. @throws
 * PeopleRefusal
 */
export function changePerson(id: string, input: unknown, gone: boolean, by: Author): void {
  const person = read(input);
  const ends = db().transaction((): boolean => {
    const before = db().select().from(people).where(eq(people.id, id)).get();
    if (!before) throw new PeopleRefusal("There is no such person. Reload the page.");
    if (!gone) checkInitials(person.initials, id);
    const leads = db()
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.role, "lead"), isNull(people.retiredAt), ne(people.id, id)))
      .all();
    if (leads.length === 0 && (gone || person.role !== "lead"))
      throw new PeopleRefusal("Role: the shop needs a lead. Make somebody else the lead first.");
    const retiredAt = gone ? (before.retiredAt ?? new Date().toISOString()) : null;
    db()
      .update(people)
      .set({ ...person, retiredAt })
      .where(eq(people.id, id))
      .run();
    const what =
      gone && !before.retiredAt ? "let go" : !gone && before.retiredAt ? "taken back" : "changed";
    noteShop(by, { kind: "person", personId: id, what, role: person.role }, person.name);
    return gone || before.role !== person.role;
  });
  if (ends) endSessionsOf(id);
}

/** Gives somebody a new PIN; tablets they are signed in on must ask again. @throws PeopleRefusal */
export async function givePin(id: string, pin: unknown, by: Author): Promise<void> {
  const pinHash = await hashPin(requirePin(pin));
  db().transaction(() => {
    const done = db().update(people).set({ pinHash }).where(eq(people.id, id)).run();
    if (done.changes === 0) throw new PeopleRefusal("There is no such person. Reload the page.");
    forgiveTries(id);
    noteShop(by, { kind: "pin", personId: id, by: "lead" });
  });
  endSessionsOf(id);
}

/**
 * Changes one's own PIN, the old one in hand; every other tablet must ask again.
 *
 * @param tablet what this tablet is known by, and the session that stays
 * @throws PeopleRefusal
 */
export async function changeOwnPin(
  me: Author,
  old: unknown,
  pin: unknown,
  tablet: { device: string | null; token: string | null } = { device: null, token: null },
): Promise<void> {
  const fresh = requirePin(pin);
  const checked = await checkPin(me.id, String(old).slice(0, 32), tablet.device);
  if (!checked.ok) throw new PeopleRefusal(`Old PIN: ${checked.message}`);
  const pinHash = await hashPin(fresh);
  db().transaction(() => {
    db().update(people).set({ pinHash }).where(eq(people.id, me.id)).run();
    noteShop(me, { kind: "pin", personId: me.id, by: "own" });
  });
  endSessionsOf(me.id, tablet.token ?? undefined);
}
