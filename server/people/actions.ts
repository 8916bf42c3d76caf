"use server";

import { redirect } from "next/navigation";
import { asWriter, Refusal, type Answer } from "../auth/as-writer";
import { startSession, type Role } from "../auth/session";
import { addPerson, changeOwnPin, changePerson, givePin, openShop } from "./store";

const LEAD = ["lead"] as const;
const ANYBODY: readonly Role[] = ["technician", "lead", "viewer"];

type Given = { name: string; initials: string; role: string };

export const enterPerson = async (person: Given, pin: string): Promise<Answer<object>> =>
  asWriter(async () => ({ id: await addPerson(person, pin) }), LEAD);

export const writePerson = async (id: string, person: Given, gone: boolean): Promise<Answer<object>> =>
  asWriter(() => {
    changePerson(String(id), person, gone === true);
    return {};
  }, LEAD);

export const newPin = async (id: string, pin: string): Promise<Answer<object>> =>
  asWriter(async () => {
    await givePin(String(id), pin);
    return {};
  }, LEAD);

export const ownPin = async (old: string, pin: string): Promise<Answer<object>> =>
  asWriter(async (me) => {
    await changeOwnPin(me.id, old, pin);
    return {};
  }, ANYBODY);

/** Opens a shop in which nobody is entered yet, and signs its lead in. */
export async function firstPerson(person: Pick<Given, "name" | "initials">, pin: string): Promise<{ message: string }> {
  let id: string;
  try {
    id = await openShop(person, pin);
  } catch (error) {
    if (error instanceof Refusal) return { message: error.message };
    throw error;
  }
  await startSession(id);
  redirect("/");
}
