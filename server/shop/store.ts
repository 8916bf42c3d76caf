import { ANY_DRIVE, type DrivePolicy } from "@/core/drive/policy";
import { drivePolicySchema } from "@/core/drive/policy-schema";
import { desc, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { inForce, type CheckedInstrument } from "@/core/kit";
import { ruleBookSchema, type RuleBook } from "@/core/owed";
import { ANYONE_RELEASES, type ReleaseRule } from "@/core/job";
import type { GlassPolicy } from "@/core/ready";
import type { Instrument, Stand } from "@/core/setout";
import { upcastSheet, type Sheet } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import { db } from "../db/client";
import { instruments, people, ruleBooks, settings, sheets, stands, vehicles } from "../db/schema";
import { shopDay } from "./clock";

/** Who may sign in. */
export const listPeople = (): { id: string; name: string; initials: string; role: string }[] =>
  db()
    .select({ id: people.id, name: people.name, initials: people.initials, role: people.role })
    .from(people)
    .where(isNull(people.retiredAt))
    .orderBy(people.name)
    .all();

/** The newest version of every vehicle, by make and model. */
export function listVehicles(): Vehicle[] {
  const newest = new Map<string, Vehicle>();
  for (const row of db().select().from(vehicles).orderBy(desc(vehicles.version)).all())
    if (!newest.has(row.id)) newest.set(row.id, { ...row.doc, version: row.version });
  return [...newest.values()].sort((a, b) =>
    `${a.make} ${a.model}`.localeCompare(`${b.make} ${b.model}`),
  );
}
export const listStands = (): Stand[] =>
  db()
    .select()
    .from(stands)
    .orderBy(stands.id)
    .all()
    .map((r) => r.doc);
/** Every instrument with what is known of its last check. */
export const listCheckedInstruments = (): CheckedInstrument[] =>
  db()
    .select()
    .from(instruments)
    .all()
    .map(({ doc }) => ({
      ...doc,
      checkedOn: doc.checkedOn ?? null,
      everyDays: doc.everyDays ?? 180,
    }));

/** The instruments as the arithmetic takes them now: an overdue one is believed less. */
export const listInstruments = (today = shopDay()): Instrument[] =>
  listCheckedInstruments().map((i) => inForce(i, today));

/** The newest version of every sheet. */
export function listSheets(): Sheet[] {
  const newest = new Map<string, Sheet>();
  for (const row of db().select().from(sheets).orderBy(desc(sheets.version)).all())
    if (!newest.has(row.id)) newest.set(row.id, upcastSheet(row.doc) as Sheet);
  return [...newest.values()];
}

/**
 * The shop's rule book: what makes what owed. An empty book owes nothing, and the Owed stage says
 * so.
 */
export function ruleBook(): RuleBook {
  const row = db()
    .select({ doc: ruleBooks.doc })
    .from(ruleBooks)
    .orderBy(desc(ruleBooks.version))
    .limit(1)
    .get();
  return row ? ruleBookSchema.parse(row.doc) : { rules: [], orders: [], efforts: [] };
}

/**
 * Which glass the shop accepts; an equivalent part with a reason unless the shop says otherwise.
 */
export function glassPolicy(): GlassPolicy {
  const row = db().select().from(settings).where(eq(settings.key, "glass.policy")).get();
  return row?.value === "maker-only" ? "maker-only" : "equivalent-with-reason";
}

export const releaseSchema = z.object({ by: z.enum(["writer", "lead"]), second: z.boolean() });

/** Who gives vehicles back, and whether a second person signs first; anybody who writes unless said. */
export function releaseRule(): ReleaseRule {
  const row = db().select().from(settings).where(eq(settings.key, RELEASE_KEY)).get();
  return releaseSchema.catch(ANYONE_RELEASES).parse(row?.value);
}

/** The shop's school of driving; anything the sheet allows unless said. */
export function drivePolicy(): DrivePolicy {
  const row = db().select().from(settings).where(eq(settings.key, DRIVES_KEY)).get();
  return drivePolicySchema.catch(ANY_DRIVE).parse(row?.value);
}
export const DRIVES_KEY = "drives";
export const RELEASE_KEY = "release";

const pinsSchema = z.record(z.string(), z.string());

/** PINs of the demo people by id; empty in a real shop. */
export function demoPins(): Record<string, string> {
  const row = db().select().from(settings).where(eq(settings.key, "demo.pins")).get();
  return pinsSchema.catch({}).parse(row?.value);
}
