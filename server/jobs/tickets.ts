import { eq } from "drizzle-orm";
import { ticketOf, type JobState, type JobTicket } from "@/core/job";
import { db } from "../db/client";
import { ifWritable } from "../db/trouble";
import { jobTickets } from "../db/schema";
import { eventsAfter } from "./log";
import { findJob } from "./store";

type BareTicket = Omit<JobTicket, "on">;

/**
 * Works a job's ticket out from its log: a replay and a solution of its set-out, some ten
 * milliseconds.
 */
function workOut(jobId: string): { head: number; ticket: BareTicket } | null {
  const job = findJob(jobId);
  if (!job) return null;
  // Cut at the head that is named: an event that arrives meanwhile belongs to the next ticket.
  const events = eventsAfter(jobId).filter((e) => e.seq <= job.head);
  const { on: _, ...ticket } = ticketOf(job, job.ground, events, []);
  return { head: job.head, ticket };
}

/** Works a ticket out and keeps it, where the disk takes it. */
export function workTicket(jobId: string): BareTicket | null {
  const done = workOut(jobId);
  if (!done) return null;
  const { head, ticket } = done;
  ifWritable(() => {
    const { $client } = db();
    const changed =
      1 +
      (($client.prepare("SELECT max(changed) FROM job_tickets").pluck().get() as number | null) ??
        0);
    const row = { jobId, head, state: ticket.state, changed, ticket };
    db()
      .insert(jobTickets)
      .values(row)
      .onConflictDoUpdate({ target: jobTickets.jobId, set: row })
      .run();
  });
  return ticket;
}

/** Tickets to be worked out, off any request and one at a time, so that nobody waits for them. */
const queue = ((
  globalThis as { iridelTickets?: { ids: Set<string>; timer: NodeJS.Timeout | null } }
).iridelTickets ??= {
  ids: new Set<string>(),
  timer: null,
});
/** Between two tickets the server answers whoever asks. */
const PAUSE_MS = 5;

function next(): void {
  queue.timer = null;
  const [id] = queue.ids;
  if (id === undefined) return;
  queue.ids.delete(id);
  try {
    workTicket(id);
  } catch (error) {
    // A ticket is only a convenience: what cannot be worked out now is worked out when it is looked
    // at.
    console.error(`Ticket of job ${id}:`, error);
  }
  start();
}

function start(): void {
  if (queue.timer || queue.ids.size === 0) return;
  queue.timer = setTimeout(next, PAUSE_MS);
  queue.timer.unref();
}

/** Has a job's ticket worked out soon. */
export function ticketLater(jobId: string): void {
  queue.ids.add(jobId);
  start();
}

/** Has every ticket worked out that is missing or older than its log: at start, in small pieces. */
export function ticketsLater(): void {
  const stale = db()
    .$client.prepare(
      "SELECT j.id FROM jobs j LEFT JOIN job_tickets t ON t.jobId = j.id WHERE t.head IS NULL OR t.head <> j.head ORDER BY j.updatedAt DESC",
    )
    .pluck()
    .all() as string[];
  for (const id of stale) queue.ids.add(id);
  start();
}

/** The state a job's ticket says, or null before it is worked out. */
export const ticketState = (jobId: string): JobState | null =>
  db().select({ state: jobTickets.state }).from(jobTickets).where(eq(jobTickets.jobId, jobId)).get()
    ?.state ?? null;
