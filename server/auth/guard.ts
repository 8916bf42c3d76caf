import { redirect } from "next/navigation";
import { NextResponse } from "next/server";
import { currentPerson, type Person, type Role } from "./session";

/** Roles that may add to a job. A viewer may look at everything and change nothing. */
export const WRITERS: readonly Role[] = ["technician", "lead"];

/** For pages: the signed-in person, or off to the sign-in page. */
export async function requirePerson(): Promise<Person> {
  return (await currentPerson()) ?? redirect("/sign-in");
}

/** For route handlers: the person if signed in with one of the roles, otherwise the answer to send. */
export async function allow(roles: readonly Role[] | "any"): Promise<{ person: Person } | { refusal: NextResponse }> {
  const person = await currentPerson();
  if (!person)
    return { refusal: problem(401, "You are signed out. Sign in again; what you typed is kept on this tablet.") };
  if (roles !== "any" && !roles.includes(person.role))
    return { refusal: problem(403, `${person.name} may look but not write. Ask a technician or the lead to do it.`) };
  return { person };
}

/** The one shape of an error answer. */
export const problem = (status: number, message: string, more: object = {}): NextResponse =>
  NextResponse.json({ error: message, ...more }, { status });
