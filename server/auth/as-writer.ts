import { troubleOf } from "../db/trouble";
import { RIGHTS, type Act } from "./rights";
import { currentPerson, type Person } from "./session";

/**
 * A request that the shop's data refuses. The message names the field and the remedy; nothing was
 * written.
 */
export class Refusal extends Error {
  override readonly name: string = "Refusal";
}

/** What every server action answers: what it did, or why not. */
export type Answer<T> = ({ ok: true } & T) | { ok: false; message: string };

const no = (message: string): { ok: false; message: string } => ({ ok: false, message });

/**
 * Runs an action for a signed-in person who may do it. A {@link Refusal} becomes the answer;
 * anything else stays an error.
 */
export async function asWriter<T extends object>(
  act: Act,
  work: (person: Person) => T | Promise<T>,
): Promise<Answer<T>> {
  const person = await currentPerson();
  if (!person)
    return no("You are signed out. Sign in again; what you typed is kept on this tablet.");
  if (!RIGHTS[act].includes(person.role))
    return no(
      person.role === "viewer"
        ? `${person.name} may look but not write. Ask a technician or the lead.`
        : `${person.name} may not change this. Ask the lead.`,
    );
  if (person.onlyJob) return no("This phone joined one job at the stand. Do this on the tablet.");
  try {
    return { ok: true, ...(await work(person)) };
  } catch (error) {
    if (error instanceof Refusal) return no(error.message);
    const trouble = troubleOf(error);
    if (trouble) return no(trouble.message);
    throw error;
  }
}
