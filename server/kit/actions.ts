"use server";

import type { ZeroJudgement } from "@/core/kit";
import { WRITERS } from "../auth/guard";
import { currentPerson, type Person } from "../auth/session";
import { checkInstrument, checkStand, KitRefusal } from "./store";

type Answer<T> = ({ ok: true } & T) | { ok: false; message: string };

async function asWriter<T extends object>(work: (person: Person) => T): Promise<Answer<T>> {
  const person = await currentPerson();
  if (!person) return { ok: false, message: "You are signed out. Sign in again." };
  if (!WRITERS.includes(person.role))
    return { ok: false, message: `${person.name} may look but not write. Ask a technician or the lead.` };
  try {
    return { ok: true, ...work(person) };
  } catch (error) {
    if (error instanceof KitRefusal) return { ok: false, message: error.message };
    throw error;
  }
}

export const zeroCheck = async (
  standId: string,
  readings: Record<string, number>,
): Promise<Answer<{ judged: ZeroJudgement }>> =>
  asWriter((p) => ({ judged: checkStand(String(standId), readings, p) }));

export const instrumentChecked = async (id: string, against: string): Promise<Answer<object>> =>
  asWriter((p) => {
    checkInstrument(String(id), String(against).slice(0, 120), p);
    return {};
  });
