import { createHash } from "node:crypto";
import { and, desc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { eventsOf, type JobEvent } from "@/core/job";
import { buildRecord, type JobRecord } from "@/core/record";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { jobDocuments } from "../db/schema";
import { addLine, headHash } from "../jobs/log";
import type { JobRow } from "../jobs/store";
import { program } from "../program";
import { shopClock } from "../shop/clock";
import { letterhead } from "../shop/letterhead";

export type DocumentKind = "record" | "report";
type Author = Pick<Person, "id" | "name" | "initials">;

const sha256 = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("hex");

/** How many times a job was handed over: the version its record and report have now. */
export const versionOf = (events: readonly JobEvent[]): number =>
  eventsOf(events, "hand-over").length;

/** The record as it stands, with the place of the log it was made from. */
export const recordNow = (job: JobRow, events: readonly JobEvent[]): JobRecord => ({
  ...buildRecord(job.number, job.ground, events, !job.ground.real, {
    zone: shopClock().zone,
    letterhead: letterhead(),
  }),
  seal: { lines: events.length, head: headHash(job.id), program, version: versionOf(events) },
});

/**
 * A kept document's bytes, exactly as made; null when none was made, "erased" when it was erased on
 * request.
 */
export function keptDocument(
  jobId: string,
  kind: DocumentKind,
  version?: number,
): Buffer | "erased" | null {
  const of = and(eq(jobDocuments.jobId, jobId), eq(jobDocuments.kind, kind));
  const row = db()
    .select({ bytes: jobDocuments.bytes })
    .from(jobDocuments)
    .where(version === undefined ? of : and(of, eq(jobDocuments.version, version)))
    .orderBy(desc(jobDocuments.version))
    .get();
  return row ? (row.bytes ?? "erased") : null;
}

/**
 * Keeps a document byte for byte and names it in the log, in the transaction of the caller.
 *
 * @returns the line that names it
 */
export function keepDocument(
  jobId: string,
  events: readonly JobEvent[],
  kind: DocumentKind,
  bytes: Buffer,
  person: Author,
  at: string,
): JobEvent {
  const version = versionOf(events);
  const digest = sha256(bytes);
  db()
    .insert(jobDocuments)
    .values({ jobId, kind, version, sha256: digest, bytes, program, madeAt: at })
    .run();
  const seen = events.at(-1)!.seq;
  const body = { kind: "document", document: kind, version, sha256: digest, program } as const;
  return addLine(
    jobId,
    seen + 1,
    { id: nanoid(16), at, receivedAt: at, clockBehindS: null, seen, body, sent: null },
    person,
  );
}

/** Makes the record at the hand-over that was just written and keeps it. */
export function keepRecord(
  job: JobRow,
  events: readonly JobEvent[],
  person: Author,
  at: string,
): JobEvent {
  const bytes = Buffer.from(`${JSON.stringify(recordNow(job, events), null, 2)}\n`);
  return keepDocument(job.id, events, "record", bytes, person, at);
}
