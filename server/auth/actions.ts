"use server";

import { redirect } from "next/navigation";
import { checkPin } from "./pin";
import { endSession, startSession } from "./session";

/** Signs in with a person and a PIN. Answers with what went wrong, or moves on to the jobs. */
export async function signIn(personId: string, pin: string): Promise<{ message: string }> {
  if (typeof personId !== "string" || typeof pin !== "string" || pin.length > 32)
    return { message: "Type the PIN again." };
  const result = await checkPin(personId, pin);
  if (!result.ok) return { message: result.message };
  await startSession(result.personId);
  redirect("/");
}

export async function signOut(): Promise<void> {
  await endSession();
  redirect("/sign-in");
}
