import { eq } from "drizzle-orm";
import { standingHandOver, type JobEvent } from "@/core/job";
import { readRecord, type JobRecord } from "@/core/record";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { jobs } from "../db/schema";
import { eventsAfter } from "../jobs/log";
import { findJob, type JobRow } from "../jobs/store";
import { photoBytes } from "../photos/store";
import { announce } from "../stand/live";
import { keepDocument, keepRecord, keptDocument, recordNow, versionOf } from "./documents";
import type { ReactNode } from "react";
import { CustomerPage, renderCustomerPage } from "./customer";
import type { ReportPhoto } from "./frame";
import { InsurerReport, renderInsurerReport } from "./insurer";
import { FileReport, renderReport } from "./pdf";
import { onScreen } from "./screen";

export type Paper = { bytes: Buffer; number: number; version: number };

type Author = Pick<Person, "id" | "name" | "initials">;

/** Adds a document to a job that is handed over, unless it was made meanwhile. */
function keepOnce(job: JobRow, make: (events: JobEvent[]) => JobEvent | null): void {
  const line = db().transaction(
    () => {
      const line = make(eventsAfter(job.id));
      if (line) db().update(jobs).set({ head: line.seq }).where(eq(jobs.id, job.id)).run();
      return line;
    },
    { behavior: "immediate" },
  );
  if (line) announce(job.id);
}

/**
 * The record of a job: as it was made at the hand-over, byte for byte, or as it stands while the
 * job is open. A job that was handed over before records were kept gets its record made now, once.
 *
 * @returns null when there is no such job
 */
export function recordPaper(jobId: string, person: Author): Paper | null {
  const job = findJob(jobId);
  if (!job) return null;
  const events = eventsAfter(jobId);
  const version = versionOf(events);
  const draft = (): Paper => ({
    bytes: Buffer.from(`${JSON.stringify(recordNow(job, events), null, 2)}\n`),
    number: job.number,
    version,
  });
  if (!standingHandOver(events)) return draft();
  if (keptDocument(jobId, "record", version) === null)
    keepOnce(job, (now) =>
      keptDocument(jobId, "record", version) === null
        ? keepRecord(job, now, person, new Date().toISOString())
        : null,
    );
  const kept = keptDocument(jobId, "record", version);
  // What was erased on request is gone; what may still be shown is worked out without it.
  return kept === null || kept === "erased"
    ? draft()
    : { bytes: kept, number: job.number, version };
}

/** What a paper is made of: the record, and the photos of it that are kept here. */
function contentsOf(paper: Paper): { record: JobRecord; photos: ReportPhoto[] } {
  const record = readRecord(JSON.parse(paper.bytes.toString("utf8")));
  const photos = record.photos.flatMap((p) => {
    const jpeg = photoBytes(p.sha256);
    return jpeg ? [{ ...p, jpeg }] : [];
  });
  return { record, photos };
}

/** Whom a report is for, beside the file, which holds everything. */
export type Reader = "customer" | "insurer";

/**
 * The report of a job for one reader, from the same record as the file: worked out from what was
 * kept, whenever it is asked for.
 */
export async function paperFor(
  reader: Reader,
  jobId: string,
  person: Author,
): Promise<Paper | null> {
  const paper = recordPaper(jobId, person);
  if (!paper) return null;
  const { record, photos } = contentsOf(paper);
  const bytes =
    reader === "customer"
      ? await renderCustomerPage(record)
      : await renderInsurerReport(record, photos);
  return { ...paper, bytes };
}

/** For whom a report is, and for the file. */
export const READERS = ["customer", "insurer", "file"] as const;

/**
 * The same report as a page to read and to print from, drawn of the same parts as the PDF.
 *
 * @returns null when there is no such job
 */
export function pageFor(
  reader: (typeof READERS)[number],
  jobId: string,
  person: Author,
): ReactNode | null {
  const paper = recordPaper(jobId, person);
  if (!paper) return null;
  const contents = contentsOf(paper);
  const Drawn = { customer: CustomerPage, insurer: InsurerReport, file: FileReport }[reader];
  return onScreen(Drawn(contents));
}

/**
 * The report of a job as PDF, from its record: kept as it was first made once the job is handed
 * over.
 */
export async function reportPaper(jobId: string, person: Author): Promise<Paper | null> {
  const paper = recordPaper(jobId, person);
  const job = findJob(jobId);
  if (!paper || !job) return null;
  const handedOver = standingHandOver(eventsAfter(jobId)) !== null;
  const { version } = paper;
  const before = handedOver ? keptDocument(jobId, "report", version) : null;
  if (before && before !== "erased") return { ...paper, bytes: before };
  const { record, photos } = contentsOf(paper);
  const bytes = await renderReport(record, photos);
  if (!handedOver || before === "erased") return { ...paper, bytes };
  keepOnce(job, (now) =>
    standingHandOver(now) &&
    versionOf(now) === version &&
    keptDocument(jobId, "report", version) === null
      ? keepDocument(jobId, now, "report", bytes, person, new Date().toISOString())
      : null,
  );
  const kept = keptDocument(jobId, "report", version);
  return { ...paper, bytes: kept === null || kept === "erased" ? bytes : kept };
}
