"use server";

import { redirect } from "next/navigation";
import { ZodError } from "zod";
import { WRITERS } from "../auth/guard";
import { currentPerson } from "../auth/session";
import { JobRefusal, takeIn } from "./store";

/** Opens a job. Answers with the field at fault, or moves on to the new job's bench. */
export async function takeInVehicle(input: unknown): Promise<{ message: string }> {
  const person = await currentPerson();
  if (!person) return { message: "You are signed out. Sign in again; what you typed is kept on this tablet." };
  if (!WRITERS.includes(person.role))
    return { message: `${person.name} may look but not write. Ask a technician or the lead.` };
  let id: string;
  try {
    id = takeIn(input, person);
  } catch (error) {
    if (error instanceof JobRefusal) return { message: error.message };
    if (error instanceof ZodError)
      return { message: error.issues.map((i) => `${i.path.join(".")}: ${i.message}`).join(" ") };
    throw error;
  }
  redirect(`/jobs/${id}/set-out`);
}
