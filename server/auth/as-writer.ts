import { WRITERS } from "./guard";
import { currentPerson, type Person, type Role } from "./session";

/** A request that the shop's data refuses. The message names the field and the remedy; nothing was written. */
export class Refusal extends Error {
  override readonly name: string = "Refusal";
}

/** What every server action answers: what it did, or why not. */
export type Answer<T> = ({ ok: true } & T) | { ok: false; message: string };

/** Runs an action for a signed-in person of these roles, by default whoever may write. A {@link Refusal} becomes the answer; anything else stays an error. */
export async function asWriter<T extends object>(
  work: (person: Person) => T | Promise<T>,
  roles: readonly Role[] = WRITERS,
): Promise<Answer<T>> {
  const person = await currentPerson();
  if (!person)
    return { ok: false, message: "You are signed out. Sign in again; what you typed is kept on this tablet." };
  if (!roles.includes(person.role))
    return { ok: false, message: person.role === "viewer" ? `${person.name} may look but not write. Ask a technician or the lead.` : `${person.name} may not change this. Ask the lead.` }; // prettier-ignore
  if (person.onlyJob) return { ok: false, message: "This phone joined one job at the stand. Do this on the tablet." };
  try {
    return { ok: true, ...(await work(person)) };
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, message: error.message };
    throw error;
  }
}
