import { existsSync, readFileSync } from "node:fs";
import path from "node:path";
import { desc, eq } from "drizzle-orm";
import { ticketOf, type JobTicket } from "@/core/job";
import { db } from "../db/client";
import { jobs, jobTickets as kept } from "../db/schema";
import { eventsAfter, findJob, peopleOn } from "./store";

/** Changes with every build: the words of a ticket are the program's. Without a build (tests, scripts) it lasts a process. */
const build = ((): string => {
  const file = path.join(process.cwd(), ".next/BUILD_ID");
  return process.env.NODE_ENV === "production" && existsSync(file) ? readFileSync(file, "utf8").trim() : `${Date.now()}`;
})(); // prettier-ignore

/**
 * Every job of the shop as its ticket, newest work first.
 *
 * A ticket costs a replay of its log and a solution of its set-out; it is kept until the log grows, so that a shop with
 * years of jobs opens its list as quickly as a new one.
 */
export function jobTickets(): JobTicket[] {
  const on = peopleOn();
  const rows = db().select({ id: jobs.id, head: jobs.head, key: kept.key, ticket: kept.ticket }).from(jobs).leftJoin(kept, eq(kept.jobId, jobs.id)).orderBy(desc(jobs.updatedAt)).all(); // prettier-ignore
  return rows.map(({ id, head, key, ticket }) => ({
    ...(ticket && key === `${head}/${build}` ? ticket : workOut(id)),
    on: on.get(id) ?? [],
  }));
}

function workOut(jobId: string): Omit<JobTicket, "on"> {
  const job = findJob(jobId)!;
  // Cut at the head that the key names: an event that arrives meanwhile belongs to the next ticket.
  const events = eventsAfter(jobId).filter((e) => e.seq <= job.head);
  const { on: _, ...ticket } = ticketOf(job, job.ground, events, []);
  const row = { jobId, key: `${job.head}/${build}`, ticket };
  db().insert(kept).values(row).onConflictDoUpdate({ target: kept.jobId, set: row }).run(); // prettier-ignore
  return ticket;
}
