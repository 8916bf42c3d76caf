"use server";

import { redirect } from "next/navigation";
import { asWriter, Refusal, type Answer } from "../auth/as-writer";
import { deviceToken, sessionToken, startSession } from "../auth/session";
import { erasePerson } from "../log/erase";
import { addPerson, changeOwnPin, changePerson, givePin, openShop } from "./store";

type Given = { name: string; initials: string; role: string };

export const enterPerson = async (person: Given, pin: string): Promise<Answer<object>> =>
  asWriter("write-people", async (me) => ({ id: await addPerson(person, pin, me) }));

export const writePerson = async (
  id: string,
  person: Given,
  gone: boolean,
): Promise<Answer<object>> =>
  asWriter("write-people", (me) => {
    changePerson(String(id), person, gone === true, me);
    return {};
  });

export const newPin = async (id: string, pin: string): Promise<Answer<object>> =>
  asWriter("write-people", async (me) => {
    await givePin(String(id), pin, me);
    return {};
  });

export const eraseName = async (id: string): Promise<Answer<object>> =>
  asWriter("erase", (me) => {
    erasePerson(String(id), me);
    return {};
  });

export const ownPin = async (old: string, pin: string): Promise<Answer<object>> =>
  asWriter("own-pin", async (me) => {
    await changeOwnPin(me, old, pin, { device: await deviceToken(), token: await sessionToken() });
    return {};
  });

/** Opens a shop in which nobody is entered yet, and signs its lead in. */
export async function firstPerson(
  person: Pick<Given, "name" | "initials">,
  pin: string,
): Promise<{ message: string }> {
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
