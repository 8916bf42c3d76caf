import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";
import type { Draft } from "@/core/book";
import type { EventBody } from "@/core/job";
import type { JobGround, JobTicket } from "@/core/job";
import type { Board, CheckedInstrument } from "@/core/kit";
import type { Instrument, Stand } from "@/core/setout";
import type { Sheet } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";

/** All times are UTC ISO text. */

export const people = sqliteTable("people", {
  id: text().primaryKey(),
  name: text().notNull(),
  initials: text().notNull(),
  role: text({ enum: ["technician", "lead", "viewer"] }).notNull(),
  pinHash: text().notNull(),
  /** Failed sign-ins in a row, and until when the next attempt has to wait. */
  failures: integer().notNull().default(0),
  lockedUntil: text(),
  /** When somebody left the shop; their lines stay, they can no longer sign in. */
  retiredAt: text(),
});

/** A signed-in tablet. Only the hash of its token is kept. */
export const sessions = sqliteTable("sessions", {
  tokenHash: text().primaryKey(),
  personId: text().notNull().references(() => people.id),
  createdAt: text().notNull(),
  expiresAt: text().notNull(),
  /** A phone at the stand sees this job and nothing else. */
  jobId: text(),
}); // prettier-ignore

/** Codes a tablet shows for a phone at the stand: each opens one session, once, within minutes. Only hashes are kept. */
export const standCodes = sqliteTable("stand_codes", {
  codeHash: text().primaryKey(),
  jobId: text().notNull().references(() => jobs.id),
  personId: text().notNull().references(() => people.id),
  expiresAt: text().notNull(),
  usedAt: text(),
}); // prettier-ignore

/** Instruments that post readings by themselves: the hash of each one's token, and in whose name it writes. */
export const feedTokens = sqliteTable("feed_tokens", {
  tokenHash: text().primaryKey(),
  instrumentId: text().notNull(),
  personId: text().notNull().references(() => people.id),
  createdAt: text().notNull(),
}); // prettier-ignore

/** Vehicles never change either: a corrected dimension is a new version. */
export const vehicles = sqliteTable(
  "vehicle_versions",
  { id: text().notNull(), version: integer().notNull(), doc: text({ mode: "json" }).$type<Vehicle>().notNull() },
  (t) => [primaryKey({ columns: [t.id, t.version] })],
);
export const stands = sqliteTable("stands", {
  id: text().primaryKey(),
  doc: text({ mode: "json" }).$type<Stand>().notNull(),
});
export const boards = sqliteTable("boards", {
  code: text().primaryKey(),
  doc: text({ mode: "json" }).$type<Board>().notNull(),
});
/** The doc lacks what is known of checks in shops made before checks were kept: those count as overdue. */
export const instruments = sqliteTable("instruments", {
  id: text().primaryKey(),
  doc: text({ mode: "json" })
    .$type<Instrument & Partial<Pick<CheckedInstrument, "checkedOn" | "everyDays">>>()
    .notNull(),
});

/** Sheets never change: a new version is a new row. */
export const sheets = sqliteTable(
  "sheets",
  { id: text().notNull(), version: integer().notNull(), doc: text({ mode: "json" }).$type<Sheet>().notNull() },
  (t) => [primaryKey({ columns: [t.id, t.version] })],
);

export const jobs = sqliteTable("jobs", {
  id: text().primaryKey(),
  number: integer().notNull().unique(),
  createdAt: text().notNull(),
  createdBy: text().notNull().references(() => people.id),
  /** The documents in force when the job was taken in; later edits of the shop's lists do not reach back. */
  ground: text({ mode: "json" }).$type<JobGround>().notNull(),
  /** Seed of the simulated bay this job lives in. */
  seed: text().notNull(),
  /** Highest seq in the log: what a tablet must have seen before it may add. */
  head: integer().notNull(),
  updatedAt: text().notNull(),
}); // prettier-ignore

/** The append-only log. Rows are never updated or deleted. */
export const jobEvents = sqliteTable(
  "job_events",
  {
    id: text().primaryKey(),
    jobId: text().notNull().references(() => jobs.id),
    seq: integer().notNull(),
    at: text().notNull(),
    personId: text().notNull().references(() => people.id),
    body: text({ mode: "json" }).$type<EventBody>().notNull(),
  },
  (t) => [uniqueIndex("job_events_seq").on(t.jobId, t.seq)],
); // prettier-ignore

/** What the list shows of each job, worked out once for each state of its log. Derived: it may be emptied at any time. */
export const jobTickets = sqliteTable("job_tickets", {
  jobId: text().primaryKey().references(() => jobs.id),
  /** Head of the log and build of the program it was worked out from. */
  key: text().notNull(),
  ticket: text({ mode: "json" }).$type<Omit<JobTicket, "on">>().notNull(),
}); // prettier-ignore

/** Who has which job open, and when their tablet last said so. */
export const presence = sqliteTable(
  "presence",
  {
    jobId: text().notNull().references(() => jobs.id),
    personId: text().notNull().references(() => people.id),
    seenAt: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.personId] }), index("presence_seen").on(t.seenAt)],
); // prettier-ignore

/** The shop's own settings by name, as JSON. The demo keeps its people's PINs here; a real shop has no such row. */
export const settings = sqliteTable("settings", {
  key: text().primaryKey(),
  value: text({ mode: "json" }).$type<unknown>().notNull(),
});

/** Sheets and vehicles being written. A draft becomes a version of its book when a second person has checked it. */
export const drafts = sqliteTable("sheet_drafts", {
  key: text().primaryKey(),
  kind: text({ enum: ["sheet", "vehicle"] }).notNull().default("sheet"),
  doc: text({ mode: "json" }).$type<Draft>().notNull(),
  /** Who wrote it last: the second person must be another. */
  editedBy: text().notNull().references(() => people.id),
  updatedAt: text().notNull(),
}); // prettier-ignore

/** Checks of the kit, append-only: the morning's zero check of a stand, the check of an instrument. */
export const kitChecks = sqliteTable("kit_checks", {
  id: text().primaryKey(),
  itemId: text().notNull(),
  at: text().notNull(),
  personId: text().notNull().references(() => people.id),
  ok: integer({ mode: "boolean" }).notNull(),
  words: text().notNull(),
  readings: text({ mode: "json" }).$type<Record<string, number>>().notNull(),
}); // prettier-ignore

/** Photos, each once, under the hash of its bytes. Jobs name them by that hash. */
export const photos = sqliteTable("photos", {
  hash: text().primaryKey(),
  jpeg: blob({ mode: "buffer" }).notNull(),
  width: integer().notNull(),
  height: integer().notNull(),
  takenAt: text(),
  keptAt: text().notNull(),
  personId: text().notNull().references(() => people.id),
}); // prettier-ignore
