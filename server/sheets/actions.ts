"use server";

import type { SheetDraft, SheetProblem } from "@/core/sheet";
import { WRITERS } from "../auth/guard";
import { currentPerson, type Person } from "../auth/session";
import { checkDraft, discardDraft, draftFrom, importSheet, saveDraft, SheetRefusal } from "./store";

export type Answer<T> = ({ ok: true } & T) | { ok: false; message: string };

/** Runs for a signed-in writer; a refusal is an answer, anything else an error. */
async function asWriter<T extends object>(work: (person: Person) => T): Promise<Answer<T>> {
  const person = await currentPerson();
  if (!person)
    return { ok: false, message: "You are signed out. Sign in again; what you typed is kept on this tablet." };
  if (!WRITERS.includes(person.role))
    return { ok: false, message: `${person.name} may look but not write. Ask a technician or the lead.` };
  try {
    return { ok: true, ...work(person) };
  } catch (error) {
    if (error instanceof SheetRefusal) return { ok: false, message: error.message };
    throw error;
  }
}

export const newVersion = async (id: string): Promise<Answer<{ key: string }>> =>
  asWriter((p) => ({ key: draftFrom(String(id), p) }));

export const takeSheetFile = async (text: string): Promise<Answer<{ key: string }>> =>
  asWriter((p) => ({ key: importSheet(String(text).slice(0, 500_000), p) }));

export const keepDraft = async (key: string, doc: SheetDraft): Promise<Answer<{ problems: SheetProblem[] }>> =>
  asWriter((p) => ({ problems: saveDraft(String(key), doc, p).problems }));

export const signDraft = async (key: string): Promise<Answer<{ id: string; version: number }>> =>
  asWriter((p) => {
    const { id, version } = checkDraft(String(key), p);
    return { id, version };
  });

export const dropDraft = async (key: string): Promise<Answer<object>> =>
  asWriter(() => {
    discardDraft(String(key));
    return {};
  });
