import { sql } from "drizzle-orm";
import {
  blob,
  index,
  integer,
  primaryKey,
  sqliteTable,
  text,
  uniqueIndex,
} from "drizzle-orm/sqlite-core";
import type { Draft } from "@/core/book";
import type { JobState, JobTicket, StoredGround } from "@/core/job";
import type { CalibrationNumbers } from "@/core/job/numbers";
import type { Board, CheckedInstrument, ShopTool } from "@/core/kit";
import type { RuleBook } from "@/core/owed";
import type { BayFloor } from "@/core/ready";
import type { Booking } from "@/core/schedule/booking";
import type { Card } from "@/core/schedule/shop";
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
  personId: text()
    .notNull()
    .references(() => people.id),
  createdAt: text().notNull(),
  expiresAt: text().notNull(),
  /** A phone at the stand sees this job and nothing else. */
  jobId: text(),
});

/**
 * Codes a tablet shows for a phone at the stand: each opens one session, once, within minutes. Only
 * hashes are kept.
 */
export const standCodes = sqliteTable("stand_codes", {
  codeHash: text().primaryKey(),
  jobId: text()
    .notNull()
    .references(() => jobs.id),
  personId: text()
    .notNull()
    .references(() => people.id),
  expiresAt: text().notNull(),
  usedAt: text(),
});

/**
 * Instruments that post readings by themselves: the hash of each one's token, and in whose name it
 * writes.
 */
export const feedTokens = sqliteTable("feed_tokens", {
  tokenHash: text().primaryKey(),
  instrumentId: text().notNull(),
  personId: text()
    .notNull()
    .references(() => people.id),
  createdAt: text().notNull(),
});

/** Vehicles never change either: a corrected dimension is a new version. */
export const vehicles = sqliteTable(
  "vehicle_versions",
  {
    id: text().notNull(),
    version: integer().notNull(),
    doc: text({ mode: "json" }).$type<Vehicle>().notNull(),
  },
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
/**
 * The doc lacks what is known of checks in shops made before checks were kept: those count as
 * overdue.
 */
export const instruments = sqliteTable("instruments", {
  id: text().primaryKey(),
  doc: text({ mode: "json" })
    .$type<Instrument & Partial<Pick<CheckedInstrument, "checkedOn" | "everyDays">>>()
    .notNull(),
});

/** Scan tools, with what of each comes to an end. */
export const scanTools = sqliteTable("scan_tools", {
  id: text().primaryKey(),
  doc: text({ mode: "json" }).$type<ShopTool>().notNull(),
});

/** Sheets never change: a new version is a new row. */
export const sheets = sqliteTable(
  "sheets",
  {
    id: text().notNull(),
    version: integer().notNull(),
    doc: text({ mode: "json" }).$type<Sheet>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.id, t.version] })],
);

export const jobs = sqliteTable(
  "jobs",
  {
    id: text().primaryKey(),
    number: integer().notNull().unique(),
    createdAt: text().notNull(),
    createdBy: text()
      .notNull()
      .references(() => people.id),
    /**
     * The documents in force when the job was taken in; later edits of the shop's lists do not
     * reach back.
     */
    ground: text({ mode: "json" }).$type<StoredGround>().notNull(),
    /** Seed of the simulated bay this job lives in. */
    seed: text().notNull(),
    /** Of the vehicle, for finding its earlier visits. */
    vin: text().notNull().default(""),
    /** Highest seq in the log: what a tablet must have seen before it may add. */
    head: integer().notNull(),
    updatedAt: text().notNull(),
  },
  (t) => [index("jobs_vin").on(t.vin), index("jobs_updated").on(t.updatedAt)],
);

/**
 * The append-only log, each line sealed to the one before it (`server/log/chain.ts`). Rows are
 * never updated or deleted; what a person may have erased on request (author, personal) stands
 * apart from what the chain is made of.
 */
export const jobEvents = sqliteTable(
  "job_events",
  {
    jobId: text()
      .notNull()
      .references(() => jobs.id),
    seq: integer().notNull(),
    /** Made by whoever wrote the line; unique within its job. */
    id: text().notNull(),
    /** Version of the line's own form; 1 are the lines older than the chain. */
    version: integer().notNull(),
    /** When it was taken, by the tablet's own clock. */
    at: text().notNull(),
    /** When the shop took it in; null on lines older than the chain. */
    receivedAt: text(),
    /**
     * How far that tablet's clock was behind the shop's when it sent the line, seconds; null when
     * it was right.
     */
    clockBehindS: integer(),
    personId: text()
      .notNull()
      .references(() => people.id),
    /** Id, name and initials of the author as they were then, JSON; null once erased. */
    author: text(),
    authorSalt: text(),
    authorDigest: text().notNull(),
    /** Head of the log that the writer had seen; null on lines older than the chain. */
    seen: integer(),
    /** The line itself, exactly as sealed. */
    body: text().notNull(),
    /**
     * The part of the body that is a customer's own, JSON; null where there is none or it was
     * erased.
     */
    personal: text(),
    personalSalt: text(),
    personalDigest: text(),
    /**
     * SHA-256 of what the tablet sent, by which the same line sent twice is told from another under
     * its name.
     */
    sent: text(),
    hash: text().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.jobId, t.seq] }),
    uniqueIndex("job_events_id").on(t.jobId, t.id),
    // What was said of a code before is looked up while somebody waits.
    index("job_events_code_word")
      .on(sql`${t.body} ->> '$.code'`)
      .where(sql`body ->> '$.kind' = 'code-word'`),
  ],
);

/** Records and reports as they were made, byte for byte; the log names each by its SHA-256. */
export const jobDocuments = sqliteTable(
  "job_documents",
  {
    jobId: text()
      .notNull()
      .references(() => jobs.id),
    kind: text({ enum: ["record", "report"] }).notNull(),
    /** 1 at the first hand-over, one more with each revision. */
    version: integer().notNull(),
    sha256: text().notNull(),
    /** Null once erased on request. */
    bytes: blob({ mode: "buffer" }),
    /** The program that made it. */
    program: text().notNull(),
    madeAt: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.kind, t.version] })],
);

/** The shop's own log: rules, people, PINs, kit, sheets, erasures. Sealed like a job's. */
export const shopEvents = sqliteTable("shop_events", {
  seq: integer().primaryKey(),
  id: text().notNull().unique(),
  version: integer().notNull(),
  at: text().notNull(),
  personId: text().notNull(),
  author: text(),
  authorSalt: text(),
  authorDigest: text().notNull(),
  body: text().notNull(),
  personal: text(),
  personalSalt: text(),
  personalDigest: text(),
  hash: text().notNull(),
});

/**
 * Tablets that a person has signed in on before: each counts its own wrong PINs. Only hashes are
 * kept.
 */
export const knownDevices = sqliteTable(
  "known_devices",
  {
    deviceHash: text().notNull(),
    personId: text()
      .notNull()
      .references(() => people.id),
    knownSince: text().notNull(),
    failures: integer().notNull().default(0),
    lockedUntil: text(),
  },
  (t) => [primaryKey({ columns: [t.deviceHash, t.personId] })],
);

/** Wrong PINs from tablets that were never signed in on, by person and day. */
export const strangeTries = sqliteTable(
  "strange_tries",
  { personId: text().notNull(), day: text().notNull(), failures: integer().notNull() },
  (t) => [primaryKey({ columns: [t.personId, t.day] })],
);

/** Who wrote into a draft: none of them may check it. */
export const draftWriters = sqliteTable(
  "draft_writers",
  {
    draftKey: text().notNull(),
    personId: text()
      .notNull()
      .references(() => people.id),
  },
  (t) => [primaryKey({ columns: [t.draftKey, t.personId] })],
);

/** Rule books never change: a new version is a new row. */
export const ruleBooks = sqliteTable("rule_books", {
  version: integer().primaryKey(),
  doc: text({ mode: "json" }).$type<RuleBook>().notNull(),
  madeAt: text().notNull(),
  personId: text(),
});

/** The floor of a bay at marked places, as last read: it is good for 90 days. */
export const bayFloors = sqliteTable("bay_floors", {
  bay: text().primaryKey(),
  doc: text({ mode: "json" }).$type<BayFloor>().notNull(),
  personId: text().notNull(),
});

/**
 * What the list shows of each job, worked out once for each state of its log. Derived: it may be
 * emptied at any time.
 */
export const jobTickets = sqliteTable(
  "job_tickets",
  {
    jobId: text()
      .primaryKey()
      .references(() => jobs.id),
    /** Head of the log it was worked out from. */
    head: integer().notNull(),
    state: text().$type<JobState>().notNull(),
    /**
     * Grows with every ticket that is worked out: a list asks for what changed after the last one
     * it has.
     */
    changed: integer().notNull(),
    ticket: text({ mode: "json" }).$type<Omit<JobTicket, "on">>().notNull(),
  },
  (t) => [index("job_tickets_state").on(t.state), index("job_tickets_changed").on(t.changed)],
);

/**
 * The shop's own settings by name, as JSON. The demo keeps its people's PINs here; a real shop has
 * no such row.
 */
export const settings = sqliteTable("settings", {
  key: text().primaryKey(),
  value: text({ mode: "json" }).$type<unknown>().notNull(),
});

/**
 * Sheets and vehicles being written. A draft becomes a version of its book when a second person has
 * checked it.
 */
export const drafts = sqliteTable("sheet_drafts", {
  key: text().primaryKey(),
  kind: text({ enum: ["sheet", "vehicle"] })
    .notNull()
    .default("sheet"),
  doc: text({ mode: "json" }).$type<Draft>().notNull(),
  /** Who wrote it last. */
  editedBy: text()
    .notNull()
    .references(() => people.id),
  updatedAt: text().notNull(),
  /** Grows with each writing: whoever writes on an older state is told so. */
  revision: integer().notNull().default(0),
});

/**
 * Checks of the kit, append-only: the morning's zero check of a stand, the check of an instrument.
 */
export const kitChecks = sqliteTable("kit_checks", {
  id: text().primaryKey(),
  itemId: text().notNull(),
  at: text().notNull(),
  personId: text()
    .notNull()
    .references(() => people.id),
  ok: integer({ mode: "boolean" }).notNull(),
  words: text().notNull(),
  readings: text({ mode: "json" }).$type<Record<string, number>>().notNull(),
});

/**
 * What each calibration of a handed-over job adds to the shop's numbers; worked out from its log, and
 * anew at every revision.
 */
export const jobNumbers = sqliteTable(
  "job_numbers",
  {
    jobId: text()
      .notNull()
      .references(() => jobs.id),
    calibrationId: text().notNull(),
    /** When it was handed over. */
    at: text().notNull(),
    sheet: text().notNull(),
    stand: text().notNull(),
    /** Ids and names between bars, to be looked for as a whole: "|T-3|L-1|". */
    instruments: text().notNull(),
    boards: text().notNull(),
    people: text().notNull(),
    doc: text({ mode: "json" }).$type<CalibrationNumbers>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.calibrationId] }), index("job_numbers_at").on(t.at)],
);

/**
 * Links that show one paper of a job to somebody without a sign-in, until they end or are taken back.
 * Only hashes are kept; to whom one was sent is kept with it.
 */
export const shareLinks = sqliteTable(
  "share_links",
  {
    id: text().primaryKey(),
    tokenHash: text().notNull().unique(),
    jobId: text()
      .notNull()
      .references(() => jobs.id),
    reader: text({ enum: ["customer", "insurer", "file"] }).notNull(),
    personId: text()
      .notNull()
      .references(() => people.id),
    sentTo: text(),
    createdAt: text().notNull(),
    expiresAt: text().notNull(),
    revokedAt: text(),
    /** When it was last opened. */
    seenAt: text(),
  },
  (t) => [index("share_links_job").on(t.jobId)],
);

/** Jobs of other houses that were brought in, with the number each had there. */
export const importedJobs = sqliteTable("imported_jobs", {
  jobId: text()
    .primaryKey()
    .references(() => jobs.id),
  number: integer().notNull(),
  at: text().notNull(),
  personId: text()
    .notNull()
    .references(() => people.id),
  /** Hash of the last line as it came in. */
  head: text().notNull(),
});

/** Photos, each once, under the hash of its bytes. Jobs name them by that hash. */
export const photos = sqliteTable("photos", {
  hash: text().primaryKey(),
  jpeg: blob({ mode: "buffer" }).notNull(),
  width: integer().notNull(),
  height: integer().notNull(),
  takenAt: text(),
  keptAt: text().notNull(),
  personId: text()
    .notNull()
    .references(() => people.id),
});

/** Vehicles that are expected, before they are taken in. */
export const bookings = sqliteTable(
  "bookings",
  {
    id: text().primaryKey(),
    /** Calendar day at the shop, ISO. */
    day: text().notNull(),
    doc: text({ mode: "json" }).$type<Booking>().notNull(),
    /** The job it became; null until it is taken in. */
    jobId: text().references(() => jobs.id),
    personId: text()
      .notNull()
      .references(() => people.id),
  },
  (t) => [index("bookings_day").on(t.day)],
);

/** What was set by hand in the plan of a day: where, when and by whom a part of a card is done. */
export const dayPins = sqliteTable(
  "day_pins",
  {
    day: text().notNull(),
    card: text().notNull(),
    pins: text({ mode: "json" }).$type<Card["pins"]>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.day, t.card] })],
);
