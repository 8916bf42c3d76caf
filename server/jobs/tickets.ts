import { ticketOf, type JobTicket } from "@/core/job";
import { listJobs, peopleOn } from "./store";

/** Every job of the shop as its ticket, newest work first. */
export function jobTickets(): JobTicket[] {
  const on = peopleOn();
  return listJobs().map(({ job, events }) => ticketOf(job, job.ground, events, on.get(job.id) ?? []));
}
