import { and, eq, isNull } from "drizzle-orm";
import type { JobEvent, JobTicket } from "@/core/job";
import { numbersOf, type CalibrationNumbers } from "@/core/job/numbers";
import { db } from "../db/client";
import { ifWritable } from "../db/trouble";
import { jobNumbers, jobTickets } from "../db/schema";
import { eventsAfter } from "../jobs/log";
import { findJob, type JobRow } from "../jobs/store";
import { turnNumbers } from "./turn";

const bars = (list: readonly string[]): string => `|${list.join("|")}|`;

/** Keeps what a job adds to the shop's numbers, in place of what it added before. */
export function keepNumbers(job: JobRow, events: readonly JobEvent[], at: string): void {
  const tx = db();
  turnNumbers();
  tx.delete(jobNumbers).where(eq(jobNumbers.jobId, job.id)).run();
  for (const doc of numbersOf(job.ground, events, at))
    tx.insert(jobNumbers)
      .values({
        jobId: job.id,
        calibrationId: doc.calibrationId,
        at,
        sheet: doc.sheet,
        stand: doc.stand,
        instruments: bars(doc.instruments),
        boards: bars(doc.boards),
        people: bars(doc.people),
        doc,
      })
      .run();
}

/** At most so long is spent on jobs that were handed over before their numbers were kept, ms. */
const CATCH_UP_MS = 250;

/** Whether all that was handed over has its numbers; what is handed over from now on keeps its own. */
let caughtUp = false;

/** Works a job's numbers out anew: it came from another house, or something of it was erased. */
export function renewNumbers(jobId: string): void {
  const job = findJob(jobId);
  const events = eventsAfter(jobId);
  const handed = events.findLast((e) => e.body.kind === "hand-over");
  if (job && handed) db().transaction(() => keepNumbers(job, events, handed.at));
}

/** Works out what an older program has not kept, a little at each look. */
export function catchUp(): void {
  if (caughtUp) return;
  const until = Date.now() + CATCH_UP_MS;
  const missing = db()
    .select({ id: jobTickets.jobId })
    .from(jobTickets)
    .leftJoin(jobNumbers, eq(jobNumbers.jobId, jobTickets.jobId))
    .where(and(eq(jobTickets.state, "handed-over"), isNull(jobNumbers.jobId)))
    .limit(50)
    .all();
  caughtUp = missing.length === 0;
  for (const { id } of missing) {
    if (Date.now() > until) return;
    ifWritable(() => renewNumbers(id));
  }
}

/** What records are looked for by; each may be left out. */
export type RecordQuery = {
  find?: string | undefined;
  sheet?: string | undefined;
  stand?: string | undefined;
  board?: string | undefined;
  instrument?: string | undefined;
  person?: string | undefined;
  /** Days of the shop, as UTC times: from, and up to before. */
  from?: string | undefined;
  to?: string | undefined;
};

export type RecordRow = {
  jobId: string;
  number: number;
  vin: string;
  customer: string;
  plate: string;
  order: string;
  at: string;
} & CalibrationNumbers;

/** What of a query holds in SQL, and its figures. */
function conditions(q: RecordQuery, query: string | null): { where: string; named: object } {
  const whole = (column: string, value: string | undefined): string[] =>
    value ? [`instr(n.${column}, @${column}) > 0`] : [];
  const parts = [
    ...(query ? ["n.jobId IN (SELECT jobId FROM job_search WHERE job_search MATCH @query)"] : []),
    ...(q.sheet ? ["n.sheet = @sheet"] : []),
    ...(q.stand ? ["n.stand = @stand"] : []),
    ...whole("instruments", q.instrument),
    ...whole("boards", q.board),
    ...whole("people", q.person),
    ...(q.from ? ["n.at >= @from"] : []),
    ...(q.to ? ["n.at < @to"] : []),
  ];
  return {
    where: parts.length > 0 ? `WHERE ${parts.join(" AND ")}` : "",
    named: {
      ...(query && { query }),
      ...(q.sheet && { sheet: q.sheet }),
      ...(q.stand && { stand: q.stand }),
      ...(q.instrument && { instruments: `|${q.instrument}|` }),
      ...(q.board && { boards: `|${q.board}|` }),
      ...(q.person && { people: `|${q.person}|` }),
      ...(q.from && { from: q.from }),
      ...(q.to && { to: q.to }),
    },
  };
}

/**
 * Handed-over calibrations, the last first.
 *
 * @param query the words as the jobs list looks for them; null where none were given
 */
export function findRecords(
  q: RecordQuery,
  query: string | null,
  limit: number,
): { rows: RecordRow[]; total: number } {
  const { $client } = db();
  const { where, named } = conditions(q, query);
  const rows = $client
    .prepare(
      `SELECT f.jobId, f.at, f.doc, j.number, j.vin, t.ticket FROM (SELECT n.jobId, n.at, n.doc FROM job_numbers n ${where} ORDER BY n.at DESC LIMIT @limit) f JOIN jobs j ON j.id = f.jobId LEFT JOIN job_tickets t ON t.jobId = f.jobId ORDER BY f.at DESC`,
    )
    .all({ ...named, limit }) as {
    jobId: string;
    at: string;
    doc: string;
    number: number;
    vin: string;
    ticket: string | null;
  }[];
  const total = $client
    .prepare(`SELECT count(*) FROM job_numbers n ${where}`)
    .pluck()
    .get(named) as number;
  return {
    total,
    rows: rows.map(({ doc, ticket, ...row }) => {
      // A ticket that is just being worked out is there at the next look.
      const {
        customer = "",
        plate = "",
        order = "",
      } = JSON.parse(ticket ?? "{}") as Partial<JobTicket>;
      return { ...row, ...(JSON.parse(doc) as CalibrationNumbers), customer, plate, order };
    }),
  };
}

/** All numbers since a time, in order. */
export const numbersSince = (from: string): { at: string; doc: CalibrationNumbers }[] =>
  (
    db().$client.prepare("SELECT at, doc FROM job_numbers WHERE at >= ? ORDER BY at").all(from) as {
      at: string;
      doc: string;
    }[]
  ).map((r) => ({ at: r.at, doc: JSON.parse(r.doc) as CalibrationNumbers }));

/** What there is to choose from, of what was used in records. */
export function usedInRecords(): Record<
  "sheets" | "stands" | "boards" | "instruments" | "people",
  string[]
> {
  const { $client } = db();
  const plain = (column: "sheet" | "stand"): string[] =>
    $client
      .prepare(`SELECT DISTINCT ${column} FROM job_numbers WHERE ${column} <> '' ORDER BY 1`)
      .pluck()
      .all() as string[];
  const split = (column: "boards" | "instruments" | "people"): string[] =>
    [
      ...new Set(
        ($client.prepare(`SELECT DISTINCT ${column} FROM job_numbers`).pluck().all() as string[])
          .flatMap((s) => s.split("|"))
          .filter(Boolean),
      ),
    ].sort();
  return {
    sheets: plain("sheet"),
    stands: plain("stand"),
    boards: split("boards"),
    instruments: split("instruments"),
    people: split("people"),
  };
}
