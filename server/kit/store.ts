import { desc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { judgeZero, ZERO_READINGS, type Board, type ZeroJudgement } from "@/core/kit";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { boards, instruments, kitChecks, people } from "../db/schema";
import { listStands } from "../shop/store";

export type KitCheck = { itemId: string; at: string; by: string; ok: boolean; words: string };

/** The request does not fit the kit. The message names the field and the remedy. */
export class KitRefusal extends Refusal {
  override readonly name = "KitRefusal";
}

export const listBoards = (): Board[] => db().select().from(boards).orderBy(boards.code).all().map((r) => r.doc); // prettier-ignore

/** The newest check of every item. */
export function lastChecks(): Map<string, KitCheck> {
  const rows = db().select({ itemId: kitChecks.itemId, at: kitChecks.at, by: people.name, ok: kitChecks.ok, words: kitChecks.words }).from(kitChecks).innerJoin(people, eq(people.id, kitChecks.personId)).orderBy(desc(kitChecks.at)).all(); // prettier-ignore
  const newest = new Map<string, KitCheck>();
  for (const r of rows) if (!newest.has(r.itemId)) newest.set(r.itemId, r);
  return newest;
}

const write = (itemId: string, person: Person, ok: boolean, words: string, readings: Record<string, number>, at: string): void =>
  void db().insert(kitChecks).values({ id: nanoid(16), itemId, at, personId: person.id, ok, words, readings }).run(); // prettier-ignore

/** Judges and keeps a stand's zero check. @throws KitRefusal naming the reading that is missing or absurd */
export function checkStand(
  standId: string,
  readings: Record<string, number>,
  person: Person,
  at = new Date().toISOString(),
): ZeroJudgement {
  const stand = listStands().find((s) => s.id === standId);
  if (!stand) throw new KitRefusal("There is no such stand in the kit.");
  for (const { id, name } of ZERO_READINGS)
    if (!Number.isFinite(readings[id]) || Math.abs(readings[id]!) > 5000)
      throw new KitRefusal(`${name}: read it in millimetres.`);
  const judged = judgeZero(stand, readings as Parameters<typeof judgeZero>[1]);
  write(standId, person, judged.ok, judged.words, readings, at);
  return judged;
}

/** Says that an instrument was checked today against something better. @throws KitRefusal */
export function checkInstrument(
  instrumentId: string,
  against: string,
  person: Person,
  at = new Date().toISOString(),
): void {
  if (against.trim().length < 3) throw new KitRefusal("Say what it was checked against.");
  db().transaction(() => {
    const row = db().select().from(instruments).where(eq(instruments.id, instrumentId)).get();
    if (!row) throw new KitRefusal("There is no such instrument in the kit.");
    db().update(instruments).set({ doc: { ...row.doc, checkedOn: at.slice(0, 10) } }).where(eq(instruments.id, instrumentId)).run(); // prettier-ignore
    write(instrumentId, person, true, `checked against ${against.trim()}`, {}, at);
  });
}
