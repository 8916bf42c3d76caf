"use server";

import { ZodError } from "zod";
import { plainMessage } from "@/core/book";
import { WRITERS } from "../auth/guard";
import { currentPerson } from "../auth/session";
import { JobRefusal, takeIn } from "./store";

export type TakeInAnswer = { id: string; message?: undefined } | { message: string };

/** Opens a job. Answers with its id, or with the field at fault. */
export async function takeInVehicle(input: unknown): Promise<TakeInAnswer> {
  const person = await currentPerson();
  if (!person) return { message: "You are signed out. Sign in again; what you typed is kept on this tablet." };
  if (person.onlyJob) return { message: "This phone joined one job at the stand. Take in on the tablet." };
  if (!WRITERS.includes(person.role))
    return { message: `${person.name} may look but not write. Ask a technician or the lead.` };
  try {
    return { id: takeIn(input, person) };
  } catch (error) {
    if (error instanceof JobRefusal) return { message: error.message };
    if (error instanceof ZodError)
      return { message: error.issues.map((i) => `${i.path.join(".")}: ${plainMessage(i)}`).join(" ") };
    throw error;
  }
}
