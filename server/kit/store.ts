import { desc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { differences } from "@/core/book";
import {
  judgeZero,
  KIT_FIELDS,
  kitProblems,
  ZERO_READINGS,
  type Board,
  type CheckedInstrument,
  type KitKind,
  type ShopTool,
  type ZeroJudgement,
} from "@/core/kit";
import type { Stand } from "@/core/setout";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { boards, instruments, kitChecks, people, scanTools, stands } from "../db/schema";
import { noteShop } from "../log/shop";
import { turnNumbers } from "../numbers/turn";
import { listStands } from "../shop/store";
import { shopDay } from "../shop/clock";

export type KitCheck = { itemId: string; at: string; by: string; ok: boolean; words: string };

/** The request does not fit the kit. The message names the field and the remedy. */
export class KitRefusal extends Refusal {
  override readonly name = "KitRefusal";
}

export const listBoards = (): Board[] =>
  db()
    .select()
    .from(boards)
    .orderBy(boards.code)
    .all()
    .map((r) => r.doc);

export const listTools = (): ShopTool[] =>
  db()
    .select()
    .from(scanTools)
    .orderBy(scanTools.id)
    .all()
    .map((r) => r.doc);

/** The newest check of every item. */
export function lastChecks(): Map<string, KitCheck> {
  const rows = db()
    .select({
      itemId: kitChecks.itemId,
      at: kitChecks.at,
      by: people.name,
      ok: kitChecks.ok,
      words: kitChecks.words,
    })
    .from(kitChecks)
    .innerJoin(people, eq(people.id, kitChecks.personId))
    .orderBy(desc(kitChecks.at))
    .all();
  const newest = new Map<string, KitCheck>();
  for (const r of rows) if (!newest.has(r.itemId)) newest.set(r.itemId, r);
  return newest;
}

function write(
  itemId: string,
  person: Person,
  ok: boolean,
  words: string,
  readings: Record<string, number>,
  at: string,
): void {
  db()
    .insert(kitChecks)
    .values({ id: nanoid(16), itemId, at, personId: person.id, ok, words, readings })
    .run();
  turnNumbers();
  noteShop(person, { kind: "kit", item: itemId, what: words }, null, at);
}

/**
 * Judges and keeps a stand's zero check. @throws KitRefusal naming the reading that is missing or
 * absurd
 */
export function checkStand(
  standId: string,
  given: unknown,
  person: Person,
  at = new Date().toISOString(),
): ZeroJudgement {
  const readings = (typeof given === "object" && given !== null ? given : {}) as Record<
    string,
    number
  >;
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
    db()
      .update(instruments)
      .set({ doc: { ...row.doc, checkedOn: shopDay(at) } })
      .where(eq(instruments.id, instrumentId))
      .run();
    write(instrumentId, person, true, `checked against ${against.trim()}`, {}, at);
  });
}

/**
 * Writes a piece of kit down, new or changed. Jobs already open keep the one they were opened with.
 *
 * @throws KitRefusal naming the field, or when a new piece takes the number of another
 */
export function writeKit(
  kind: KitKind,
  doc: unknown,
  isNew: boolean,
  person: Person,
  at = new Date().toISOString(),
): void {
  const [problem] = kitProblems(kind, doc);
  const label = problem && KIT_FIELDS[kind].find((f) => f.path === problem.field)?.label;
  if (problem) throw new KitRefusal(`${label ?? problem.field}: ${problem.message}`);
  const table = { board: boards, stand: stands, instrument: instruments, tool: scanTools }[kind];
  const key = String((doc as Record<string, unknown>)[kind === "board" ? "code" : "id"]);
  db().transaction(() => {
    const column = {
      board: boards.code,
      stand: stands.id,
      instrument: instruments.id,
      tool: scanTools.id,
    }[kind];
    const there = db().select({ doc: table.doc }).from(table).where(eq(column, key)).get();
    if (there && isNew)
      throw new KitRefusal(
        `${KIT_FIELDS[kind][0]!.label}: ${key} is taken. Give the new one another.`,
      );
    if (!there && !isNew) throw new KitRefusal(`${key} is no longer in the kit. Reload the page.`);
    const changes = differences(there?.doc ?? {}, doc).map(
      (d) => `${d.path} ${d.before} to ${d.after}`,
    );
    if (there)
      db()
        .update(table)
        .set({ doc: doc as never })
        .where(eq(column, key))
        .run();
    else if (kind === "board")
      db()
        .insert(boards)
        .values({ code: key, doc: doc as Board })
        .run();
    else if (kind === "stand")
      db()
        .insert(stands)
        .values({ id: key, doc: doc as Stand })
        .run();
    else if (kind === "tool")
      db()
        .insert(scanTools)
        .values({ id: key, doc: doc as ShopTool })
        .run();
    else
      db()
        .insert(instruments)
        .values({ id: key, doc: doc as CheckedInstrument })
        .run();
    write(
      `${key}/description`,
      person,
      true,
      there ? changes.join("; ").slice(0, 400) || "unchanged" : "put into the kit",
      {},
      at,
    );
  });
}

/**
 * Stands whose newest zero check failed, with what it found: nobody sets out on them before they
 * are put right.
 */
export const failedStands = (): Map<string, string> =>
  new Map([...lastChecks()].filter(([, c]) => !c.ok).map(([id, c]) => [id, c.words]));
