import { LIST, type JobState, type JobTicket } from "@/core/job";
import type { JobOrder } from "@/core/job/list";
import { db } from "../db/client";
import { peopleOn } from "./presence";
import { ticketLater, workTicket } from "./tickets";

type BareTicket = Omit<JobTicket, "on">;
type People = { name: string; initials: string }[];

/** What a list of jobs is asked for. */
export type JobQuery = {
  find?: string | undefined;
  state?: JobState | undefined;
  order?: JobOrder | undefined;
  limit?: number | undefined;
};

export type JobPage = {
  tickets: BareTicket[];
  /** Jobs by state among those that fit the words. */
  counts: Partial<Record<JobState, number>>;
  /** Who has which job open now, by job. */
  on: Record<string, People>;
  /** What to ask for changes after. */
  stamp: number;
};

/**
 * Tickets worked out while somebody waits, at most this long; the rest comes with the next look.
 */
const WORK_MS = 40;

/**
 * The words of a search as an FTS5 query: each word as a beginning, all of them; null where nothing
 * can be looked for.
 */
export function searchQuery(find: string | undefined): string | null {
  const words = (find ?? "").normalize("NFC").match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.length === 0
    ? null
    : words
        .slice(0, 12)
        .map((w) => `"${w}"*`)
        .join(" ");
}

type Row = { id: string; head: number; kept: number | null; ticket: string | null };

/**
 * Takes kept tickets as they are; those that are missing are worked out within a little time, stale
 * ones soon.
 */
function ticketsOf(rows: readonly Row[]): BareTicket[] {
  const until = Date.now() + WORK_MS;
  return rows.flatMap(({ id, head, kept, ticket }) => {
    if (ticket !== null && kept !== head) ticketLater(id);
    if (ticket !== null) return [JSON.parse(ticket) as BareTicket];
    const fresh = Date.now() < until ? workTicket(id) : null;
    if (!fresh) ticketLater(id);
    return fresh ? [fresh] : [];
  });
}

const stampNow = (): number =>
  (db().$client.prepare("SELECT max(changed) FROM job_tickets").pluck().get() as number | null) ??
  0;

const whoIsOn = (): Record<string, People> =>
  Object.fromEntries(
    [...peopleOn()].map(([id, people]) => [
      id,
      people.map(({ name, initials }) => ({ name, initials })),
    ]),
  );

/**
 * A word that half the shop fits is no search yet: the last taken in of those are looked at, which
 * the index hands over without sorting.
 */
const FOUND = `(SELECT jobId FROM job_search WHERE job_search MATCH @query ORDER BY rowid DESC LIMIT ${LIST.found})`;

/** What was handed over is promised no more; what was promised for no time comes after the rest. */
const PROMISED = "json_extract(t.ticket, '$.promisedAt')";
const ORDER: Record<JobOrder, string> = {
  work: "j.updatedAt DESC",
  promised: `t.state = 'handed-over', ${PROMISED} IS NULL, ${PROMISED}, j.updatedAt DESC`,
  number: "j.number DESC",
};

/**
 * One page of the shop's jobs in the order asked for, found by words in number, VIN, plate,
 * customer, order, vehicle, work.
 */
export function listJobs({ find, state, order = "work", limit = LIST.page }: JobQuery): JobPage {
  const { $client } = db();
  const stamp = stampNow();
  const query = searchQuery(find);
  const from = query ? `${FOUND} f JOIN jobs j ON j.id = f.jobId` : "jobs j";
  const where = state ? "WHERE t.state = @state" : "";
  const rows = $client
    .prepare(
      `SELECT j.id, j.head, t.head AS kept, t.ticket FROM ${from} LEFT JOIN job_tickets t ON t.jobId = j.id ${where} ORDER BY ${ORDER[order]} LIMIT @limit`,
    )
    .all({ query, state: state ?? null, limit: Math.min(LIST.most, Math.max(1, limit)) }) as Row[];
  const tickets = ticketsOf(rows);
  const counted = $client
    .prepare(
      query
        ? `SELECT t.state, count(*) AS n FROM ${FOUND} f JOIN job_tickets t ON t.jobId = f.jobId GROUP BY t.state`
        : "SELECT state, count(*) AS n FROM job_tickets GROUP BY state",
    )
    .all(query ? { query } : {}) as { state: JobState; n: number }[];
  return {
    tickets,
    counts: Object.fromEntries(counted.map((c) => [c.state, c.n])),
    on: whoIsOn(),
    stamp,
  };
}

/**
 * What changed since a stamp: only the tickets worked out anew, with the counts and who is on what.
 */
export function changedJobs(since: number): JobPage {
  const { $client } = db();
  const rows = $client
    .prepare("SELECT changed, ticket FROM job_tickets WHERE changed > ? ORDER BY changed LIMIT 200")
    .all(since) as { changed: number; ticket: string }[];
  const counted = $client
    .prepare("SELECT state, count(*) AS n FROM job_tickets GROUP BY state")
    .all() as {
    state: JobState;
    n: number;
  }[];
  return {
    tickets: rows.map((r) => JSON.parse(r.ticket) as BareTicket),
    counts: Object.fromEntries(counted.map((c) => [c.state, c.n])),
    on: whoIsOn(),
    stamp: rows.at(-1)?.changed ?? since,
  };
}
