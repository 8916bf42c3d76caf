import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { BOARDS, INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { RULES } from "@/demo/data/rules";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import type { Person } from "@/server/auth/session";
import { db } from "@/server/db/client";
import {
  boards,
  instruments,
  people,
  ruleBooks,
  sheets,
  stands,
  vehicles,
} from "@/server/db/schema";

export const INES: Person = { id: "ines", name: "Ines Tarbet", initials: "IT", role: "technician" };
export const OSKAR: Person = {
  id: "oskar",
  name: "Oskar Veld",
  initials: "OV",
  role: "technician",
};

const openFile = (): void => {
  process.env.IRIDEL_DB = path.join(
    mkdtempSync(path.join(tmpdir(), "iridel-unit-")),
    "shop.sqlite",
  );
};

/** A new shop's database with nobody but one person in it. Call before any query. */
export function openEmptyShop(): void {
  openFile();
  db()
    .insert(people)
    .values({ ...INES, pinHash: "not a hash" })
    .run();
}

/**
 * A database file of its own with the made-up shop's vehicles, kit, sheets and two people. Call
 * before any query.
 */
export function openTestShop(pinHash = "not a hash"): void {
  openFile();
  for (const p of [INES, OSKAR])
    db()
      .insert(people)
      .values({ ...p, pinHash })
      .run();
  db()
    .insert(ruleBooks)
    .values({ version: 1, doc: RULES, madeAt: "2026-09-01T08:00:00.000Z", personId: null })
    .run();
  for (const v of VEHICLES) db().insert(vehicles).values({ id: v.id, version: 1, doc: v }).run();
  for (const s of STANDS) db().insert(stands).values({ id: s.id, doc: s }).run();
  for (const b of BOARDS) db().insert(boards).values({ code: b.code, doc: b }).run();
  for (const i of INSTRUMENTS)
    db()
      .insert(instruments)
      .values({
        id: i.id,
        doc: { ...i, checkedOn: new Date().toISOString().slice(0, 10), everyDays: 180 },
      })
      .run();
  for (const s of SHEETS)
    db().insert(sheets).values({ id: s.id, version: s.version, doc: s }).run();
}
