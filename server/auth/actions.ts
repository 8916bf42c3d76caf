"use server";

import { redirect } from "next/navigation";
import { troubleOf } from "../db/trouble";
import { checkPin } from "./pin";
import { endSession, knowDevice, startSession } from "./session";

/** Signs in with a person and a PIN. Answers with what went wrong, or moves on to the jobs. */
export async function signIn(personId: string, pin: string): Promise<{ message: string }> {
  if (typeof personId !== "string" || typeof pin !== "string" || pin.length > 32)
    return { message: "Type the PIN again." };
  try {
    const result = await checkPin(personId, pin, await knowDevice());
    if (!result.ok) return { message: result.message };
    await startSession(result.personId);
  } catch (error) {
    const trouble = troubleOf(error);
    if (!trouble) throw error;
    return { message: trouble.message };
  }
  redirect("/");
}

export async function signOut(): Promise<void> {
  await endSession();
  redirect("/sign-in");
}
