import { and, asc, eq, gt } from "drizzle-orm";
import { scopedLog, upcastGround, type EventBody, type JobEvent, type JobGround } from "@/core/job";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { jobEvents, jobs } from "../db/schema";
import {
  digestOf,
  firstHash,
  lineHash,
  newSalt,
  verifyChain,
  type ChainReport,
  type StoredLine,
} from "../log/chain";
import { groundDigest } from "../log/ground";
import { joinPersonal, splitPersonal } from "../log/personal";

/**
 * The form of the lines written now. 1: before the chain. 2: readings carry meaning and unit, lines
 * are sealed. 3: lines name their calibration and target.
 */
const LINE_VERSION = 3;
const SCOPED_VERSION = 3;
const NOBODY = { name: "Erased on request", initials: "–" };

type Row = typeof jobEvents.$inferSelect;
type Author = JobEvent["by"];

/**
 * A stored row as the program works with it. The time is the shop's: a tablet's clock that was off
 * is set right.
 */
export function toEvent(row: Row): JobEvent {
  const behind = row.clockBehindS;
  return {
    id: row.id,
    seq: row.seq,
    at: behind === null ? row.at : new Date(Date.parse(row.at) + behind * 1000).toISOString(),
    by: row.author ? (JSON.parse(row.author) as Author) : { id: row.personId, ...NOBODY },
    body: joinPersonal<EventBody>(row.body, row.personal),
    ...(row.receivedAt && { receivedAt: row.receivedAt }),
    ...(behind !== null && { clockBehindS: behind }),
    ...(row.seen !== null && { seen: row.seen }),
  };
}

const rowsAfter = (jobId: string, seq = 0): Row[] =>
  db()
    .select()
    .from(jobEvents)
    .where(and(eq(jobEvents.jobId, jobId), gt(jobEvents.seq, seq)))
    .orderBy(asc(jobEvents.seq))
    .all();

/** Lines written since say themselves what they are of. */
const saysItself = (row: Row): boolean => row.version >= SCOPED_VERSION;

/** The log of a job after a place, in order, each line with what it is of. */
export function eventsAfter(jobId: string, seq = 0): JobEvent[] {
  const rows = rowsAfter(jobId, seq);
  if (rows.every(saysItself)) return rows.map(toEvent);
  // An older line is of the target that was last gone to: that stands in the lines before it.
  const ground = groundOf(jobId);
  const all = (seq === 0 ? rows : rowsAfter(jobId)).map(toEvent);
  return (ground ? scopedLog(ground, all) : all).filter((e) => e.seq > seq);
}

function groundOf(jobId: string): JobGround | null {
  const job = db().select({ ground: jobs.ground }).from(jobs).where(eq(jobs.id, jobId)).get();
  return job ? upcastGround(job.ground) : null;
}

export type NewLine = {
  id: string;
  at: string;
  receivedAt: string;
  clockBehindS: number | null;
  seen: number | null;
  body: EventBody;
  sent: string | null;
};

/**
 * Writes one line behind the last and seals it to it. Call inside the transaction that writes what
 * belongs with it.
 *
 * @returns the line as an event
 */
export function addLine(
  jobId: string,
  seq: number,
  line: NewLine,
  person: Pick<Person, "id" | "name" | "initials">,
): JobEvent {
  const author = JSON.stringify({ id: person.id, name: person.name, initials: person.initials });
  const authorSalt = newSalt();
  const authorDigest = digestOf(authorSalt, author);
  const { rest, personal } = splitPersonal(line.body);
  const personalSalt = personal === null ? null : newSalt();
  const personalDigest = personal === null ? null : digestOf(personalSalt!, personal);
  const { id, at, receivedAt, clockBehindS, seen, sent } = line;
  const sealed = {
    log: jobId,
    seq,
    id,
    version: LINE_VERSION,
    at,
    receivedAt,
    clockBehindS,
    authorDigest,
    seen,
    body: rest,
    personalDigest,
  };
  const hash = lineHash(sealed, headHash(jobId));
  const { log: _, ...columns } = sealed;
  const row: Row = {
    ...columns,
    jobId,
    personId: person.id,
    author,
    authorSalt,
    personal,
    personalSalt,
    sent,
    hash,
  };
  db().insert(jobEvents).values(row).run();
  return toEvent(row);
}

/** What stands before the first line of a job's log. */
function firstOf(jobId: string): string {
  const job = db().select({ ground: jobs.ground }).from(jobs).where(eq(jobs.id, jobId)).get();
  return firstHash(jobId, job ? groundDigest(job.ground) : "");
}

/** The hash of a log's last line. */
export function headHash(jobId: string): string {
  const last = db()
    .$client.prepare("SELECT hash FROM job_events WHERE jobId = ? ORDER BY seq DESC LIMIT 1")
    .pluck();
  return (last.get(jobId) as string | undefined) ?? firstOf(jobId);
}

const toStored = (row: Row): StoredLine => ({
  log: row.jobId,
  seq: row.seq,
  id: row.id,
  version: row.version,
  at: row.at,
  receivedAt: row.receivedAt,
  clockBehindS: row.clockBehindS,
  authorDigest: row.authorDigest,
  seen: row.seen,
  body: row.body,
  personalDigest: row.personalDigest,
  hash: row.hash,
  author: { text: row.author, salt: row.authorSalt, digest: row.authorDigest },
  personal: { text: row.personal, salt: row.personalSalt, digest: row.personalDigest },
});

/** A job's log exactly as it is kept, sealed. */
export const storedLines = (jobId: string): StoredLine[] => rowsAfter(jobId).map(toStored);

/** Follows a job's log from its documents to its last line. */
export const verifyJob = (jobId: string): ChainReport =>
  verifyChain(firstOf(jobId), storedLines(jobId));
