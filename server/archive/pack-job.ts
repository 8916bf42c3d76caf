import { asc, eq, inArray } from "drizzle-orm";
import { eventsOf, planFor, standingAt, viewsOf, type JobEvent } from "@/core/job";
import { markOut, schoolOf, toSvg } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { importedJobs, jobDocuments, jobs, photos } from "../db/schema";
import { eventsAfter, storedLines } from "../jobs/log";
import { findJob, type JobRow } from "../jobs/store";
import { versionOf } from "../report/documents";
import { recordPaper, reportPaper } from "../report/record";
import { readRecord } from "@/core/record";
import { paperName, photoName, withManifest, type ArchivedLog } from "./form";
import { readingsCsv } from "./readings-csv";
import { pack, type Entry } from "./zip";

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

/** The mark-outs of what was set out, as drawings to scale. */
function drawings({ ground }: JobRow, events: readonly JobEvent[]): Entry[] {
  return viewsOf(ground).flatMap((view) =>
    targetsOf(view.sheet)
      .filter((t) => standingAt(view, events, t.id)?.settled)
      .map((t) => {
        const plan = planFor(view, events, t.id);
        return {
          name: `drawings/${plainName(`${view.calibrationId}-${t.id}`)}.svg`,
          bytes: utf8(toSvg(markOut(plan, schoolOf(plan)))),
        };
      }),
  );
}

/** As the form has names: what it has no place for becomes a dash. */
const plainName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9-]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 80) || "target";

/** Everything the shop keeps of a job's log, as it lies there. */
function archivedLog(jobId: string, photoHashes: readonly string[]): ArchivedLog {
  const row = db().select().from(jobs).where(eq(jobs.id, jobId)).get()!;
  const from = db().select().from(importedJobs).where(eq(importedJobs.jobId, jobId)).get();
  return {
    form: "iridel.log/1",
    log: jobId,
    // A job from elsewhere keeps the number it had there.
    number: from?.number ?? row.number,
    createdAt: row.createdAt,
    updatedAt: row.updatedAt,
    ground: row.ground,
    documents: db()
      .select()
      .from(jobDocuments)
      .where(eq(jobDocuments.jobId, jobId))
      .orderBy(asc(jobDocuments.version), asc(jobDocuments.kind))
      .all()
      .map(({ kind, version, sha256, program, madeAt, bytes }) => ({
        kind,
        version,
        sha256,
        program,
        madeAt,
        erased: bytes === null,
      })),
    photos: db()
      .select()
      .from(photos)
      .where(inArray(photos.hash, [...photoHashes]))
      .orderBy(asc(photos.hash))
      .all()
      .map(({ hash, width, height, takenAt, keptAt }) => ({
        sha256: hash,
        width,
        height,
        takenAt,
        keptAt,
      })),
    lines: storedLines(jobId).map(({ log: _, authorDigest: __, personalDigest: ___, ...line }) => ({
      ...line,
      author: { ...line.author, digest: line.author.digest! },
    })),
  };
}

/**
 * A job that was handed over, as one open archive: its log with the chain, every paper as it was
 * made, photos, readings as CSV, mark-outs. The same job always gives the same bytes.
 *
 * @returns null when there is no such job
 * @throws Refusal while it was never handed over, ArchiveRefusal where it grows too large
 */
export async function packJob(jobId: string, person: Person): Promise<Uint8Array | null> {
  if (!findJob(jobId)) return null;
  if (versionOf(eventsAfter(jobId)) === 0)
    throw new Refusal("Hand the job over first: what leaves the house is what was handed over.");
  // Both papers are kept from the first time somebody asks for them; they belong to it.
  await reportPaper(jobId, person);
  const job = findJob(jobId)!;
  const events = eventsAfter(jobId);
  const shown = eventsOf(events, "photo").map((e) => e.body.photo);
  const log = archivedLog(jobId, shown);
  const papers = db().select().from(jobDocuments).where(eq(jobDocuments.jobId, jobId)).all();
  const record = readRecord(JSON.parse(recordPaper(jobId, person)!.bytes.toString("utf8")));
  const jpegs = db().select().from(photos).where(inArray(photos.hash, shown)).all();
  return pack(
    withManifest(log, [
      ...papers.flatMap((d) =>
        d.bytes ? [{ name: paperName(d.kind, d.version), bytes: new Uint8Array(d.bytes) }] : [],
      ),
      ...jpegs.map((p) => ({ name: photoName(p.hash), bytes: new Uint8Array(p.jpeg) })),
      { name: "readings.csv", bytes: utf8(readingsCsv(record)) },
      ...drawings(job, events),
    ]),
  );
}
