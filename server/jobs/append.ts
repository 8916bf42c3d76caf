import { eq } from "drizzle-orm";
import {
  conflicts,
  disturbedBy,
  isHeldBy,
  type EventBody,
  type JobEvent,
  type TabletEvent,
} from "@/core/job";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { jobs } from "../db/schema";
import { sha256 } from "../log/chain";
import { keepNumbers } from "../numbers/store";
import { keepRecord } from "../report/documents";
import { announce } from "../stand/live";
import { addLine, eventsAfter } from "./log";
import { judgeLine } from "./policy";
import { JobRefusal } from "./refusal";
import { findJob, type JobRow } from "./store";
import { ticketLater } from "./tickets";

/** A line as a tablet sends it. */
export type SentLine = { id: string; takenAt: string; body: TabletEvent };

/**
 * What became of a sent line. Held: a line before it was refused and leaves open what this one
 * means.
 */
export type LineOutcome =
  | { id: string; outcome: "written" | "known" }
  | { id: string; outcome: "refused"; why: string }
  | { id: string; outcome: "held"; by: string };

export type WriteResult =
  | { ok: true; outcomes: LineOutcome[]; events: JobEvent[] }
  /**
   * Somebody else wrote in between what cannot simply stand beside it; `missing` is what this tablet
   * has not seen. Nothing was written.
   */
  | { ok: false; missing: JobEvent[] };

export type WriteOptions = {
  /** The tablet's clock at the moment of sending: how far it is off is kept with each line. */
  sentAt?: string | undefined;
  /** The shop's clock; the demo makes a history. */
  now?: Date;
};

const NO_JOB = "There is no such job. Go back to the list.";
/** A tablet's clock may differ by this much without anybody being told. */
const CLOCK_MAY_DIFFER_S = 60;
const MINUTE_MS = 60_000;

/**
 * How far the clock of a tablet is behind the shop's, whole seconds; null when it is right or not
 * known.
 */
export function clockBehind(sentAt: string | undefined, now: Date): number | null {
  if (!sentAt) return null;
  const behind = Math.round((now.getTime() - Date.parse(sentAt)) / 1000);
  return Math.abs(behind) > CLOCK_MAY_DIFFER_S ? behind : null;
}

const digestOf = (body: unknown): string => sha256(JSON.stringify(body));

/**
 * Adds what a tablet sends to a job's log, line by line, in one transaction. Each line is judged by
 * itself: a refused one is refused alone, unless later lines mean nothing without it (a touch, a
 * move, a change of place); those are held.
 *
 * @param seen the last place of the log the writer had seen; what is newer and of the same carrier
 *   may be a conflict, and is never overwritten
 * @throws JobRefusal for a job that is not there
 */
export function writeLines(
  jobId: string,
  seen: number,
  lines: readonly SentLine[],
  person: Person,
  { sentAt, now = new Date() }: WriteOptions = {},
): WriteResult {
  const result = db().transaction(
    (): WriteResult => {
      const job = findJob(jobId);
      if (!job) throw new JobRefusal(NO_JOB);
      const log = eventsAfter(jobId);
      const known = knownLines(jobId);
      const missing = log.filter((e) => e.seq > seen && !lines.some((l) => l.id === e.id));
      if (crosses(job, person, lines, missing, known)) return { ok: false, missing };
      const writer = new LineWriter(job, log, known, seen, person, now, clockBehind(sentAt, now));
      const outcomes = lines.map((line) => writer.take(line));
      writer.close();
      return { ok: true, outcomes, events: eventsAfter(jobId, seen) };
    },
    { behavior: "immediate" },
  );
  if (result.ok && result.outcomes.some((o) => o.outcome === "written")) grown(jobId);
  return result;
}

/**
 * Whether what is to be written has to be decided by its writer: a line that is new, and conflicts
 * with one of somebody else that it was written without knowledge of. What one person did on two
 * devices stands in the order it came.
 */
const crosses = (
  job: JobRow,
  person: Person,
  lines: readonly SentLine[],
  missing: readonly JobEvent[],
  known: ReadonlyMap<string, string | null>,
): boolean =>
  missing.length > 0 &&
  lines.some(
    (l) =>
      !known.has(l.id) &&
      missing.some((e) => e.by.id !== person.id && conflicts(job.ground, l.body, e.body)),
  );

/** What was sent under each line's name: null on lines older than the chain. */
function knownLines(jobId: string): Map<string, string | null> {
  const rows = db()
    .$client.prepare("SELECT id, sent FROM job_events WHERE jobId = ?")
    .raw()
    .all(jobId);
  return new Map(rows as [string, string | null][]);
}

/** Takes one line after the other into a log, inside one transaction. */
class LineWriter {
  /** Refused lines that leave open what later ones mean. */
  private readonly open: SentLine[] = [];
  private wrote = 0;

  constructor(
    private readonly job: JobRow,
    private readonly events: JobEvent[],
    private readonly known: Map<string, string | null>,
    private readonly seen: number,
    private readonly person: Person,
    private readonly now: Date,
    private readonly behind: number | null,
  ) {}

  take(line: SentLine): LineOutcome {
    const { id, body } = line;
    const sent = digestOf(body);
    if (this.known.has(id)) {
      const before = this.known.get(id);
      if (before === null || before === sent) return { id, outcome: "known" };
      return {
        id,
        outcome: "refused",
        why: "Another line stands in the log under this one’s number. Write it anew.",
      };
    }
    const by = this.open.find((refused) => isHeldBy(body, refused.body, this.job.ground));
    if (by) return { id, outcome: "held", by: by.id };
    try {
      this.checkTime(line.takenAt);
      this.write(
        id,
        line.takenAt,
        judgeLine(body, { job: this.job, events: this.events, person: this.person }),
        sent,
      );
      return { id, outcome: "written" };
    } catch (error) {
      if (!(error instanceof JobRefusal)) throw error;
      if (disturbedBy(body)) this.open.push(line);
      return { id, outcome: "refused", why: error.message };
    }
  }

  /**
   * A line is taken between the opening of its job and now, by a clock of which we know how far it
   * is off.
   */
  private checkTime(takenAt: string): void {
    const at = Date.parse(takenAt) + (this.behind ?? 0) * 1000;
    if (at > this.now.getTime() + 2 * MINUTE_MS)
      throw new JobRefusal(`time: ${takenAt} is still to come. Set the tablet’s clock right.`);
    if (at < Date.parse(this.job.createdAt) - 2 * MINUTE_MS)
      throw new JobRefusal(
        `time: ${takenAt} is before this job was opened. Set the tablet’s clock right.`,
      );
  }

  private write(id: string, at: string, body: EventBody, sent: string | null): void {
    const receivedAt = this.now.toISOString();
    const seq = (this.events.at(-1)?.seq ?? 0) + 1;
    const line = { id, at, receivedAt, clockBehindS: this.behind, seen: this.seen, body, sent };
    this.events.push(addLine(this.job.id, seq, line, this.person));
    this.known.set(id, sent);
    this.wrote++;
    if (body.kind === "hand-over") {
      this.events.push(keepRecord(this.job, this.events, this.person, receivedAt));
      keepNumbers(this.job, this.events, receivedAt);
    }
  }

  close(): void {
    if (this.wrote > 0) noteHead(this.job.id, this.events.at(-1)!, this.now);
  }
}

/** The job's own row follows its log. */
function noteHead(jobId: string, last: JobEvent, now: Date): void {
  const updatedAt = last.at <= now.toISOString() ? last.at : now.toISOString();
  db().update(jobs).set({ head: last.seq, updatedAt }).where(eq(jobs.id, jobId)).run();
}

/** A line the shop itself writes: an answer of a device, a document that was made. */
export type OwnLine = { id: string; at: string; body: EventBody; sent?: string };

/**
 * Writes lines the shop itself made, all or none, at the end of the log as it then is.
 *
 * @param make the lines, from the log as it is in that moment and from what was sent under each
 *   known name; what it throws is thrown on, and nothing is written
 * @returns the lines as written
 */
export function writeOwn(
  jobId: string,
  make: (
    events: readonly JobEvent[],
    sentUnder: ReadonlyMap<string, string | null>,
  ) => readonly OwnLine[],
  person: Pick<Person, "id" | "name" | "initials">,
): JobEvent[] {
  const now = new Date();
  const written = db().transaction(
    () => {
      const events = eventsAfter(jobId);
      if (events.length === 0) throw new JobRefusal(NO_JOB);
      const seen = events.at(-1)!.seq;
      const fresh = make(events, knownLines(jobId)).map(({ id, at, body, sent }, i) =>
        addLine(
          jobId,
          seen + 1 + i,
          { id, at, receivedAt: at, clockBehindS: null, seen, body, sent: sent ?? null },
          person,
        ),
      );
      if (fresh.length > 0) noteHead(jobId, fresh.at(-1)!, now);
      return fresh;
    },
    { behavior: "immediate" },
  );
  if (written.length > 0) grown(jobId);
  return written;
}

/** Everybody who follows the job hears of it, and the list gets its ticket anew. */
function grown(jobId: string): void {
  announce(jobId);
  ticketLater(jobId);
}
