import { redirect } from "next/navigation";
import { NextResponse } from "next/server";
import { currentPerson, type Person, type Role } from "./session";

/** Roles that may add to a job. A viewer may look at everything and change nothing. */
export const WRITERS: readonly Role[] = ["technician", "lead"];

/**
 * For pages: the signed-in person, or off to the sign-in page. A phone at the stand goes back to
 * its own page.
 */
export async function requirePerson(standOf?: string): Promise<Person> {
  const person = (await currentPerson()) ?? redirect("/sign-in");
  if (person.onlyJob && person.onlyJob !== standOf) redirect(`/jobs/${person.onlyJob}/stand`);
  return person;
}

/**
 * For route handlers: the person if signed in with one of the roles, otherwise the answer to send.
 *
 * @param jobId the job it is about; only there is a phone at the stand let in
 */
export async function allow(
  roles: readonly Role[] | "any",
  jobId?: string,
): Promise<{ person: Person } | { refusal: NextResponse }> {
  const person = await currentPerson();
  if (!person)
    return {
      refusal: problem(
        401,
        "You are signed out. Sign in again; what you typed is kept on this tablet.",
      ),
    };
  if (roles !== "any" && !roles.includes(person.role))
    return {
      refusal: problem(
        403,
        `${person.name} may look but not write. Ask a technician or the lead to do it.`,
      ),
    };
  if (person.onlyJob && person.onlyJob !== jobId)
    return { refusal: problem(403, "This phone joined one job at the stand and sees only that.") };
  return { person };
}

/** The one shape of an error answer. */
export const problem = (status: number, message: string, more: object = {}): NextResponse =>
  NextResponse.json({ error: message, ...more }, { status });
