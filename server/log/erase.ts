import { and, eq, isNotNull } from "drizzle-orm";
import { upcastGround, type StoredGround } from "@/core/job";
import { Refusal } from "../auth/as-writer";
import { endSessionsOf, type Person } from "../auth/session";
import { db } from "../db/client";
import {
  jobDocuments,
  jobEvents,
  jobs,
  jobNumbers,
  jobTickets,
  people,
  shareLinks,
  shopEvents,
} from "../db/schema";
import { searchWords } from "../jobs/search-words";
import { ticketLater } from "../jobs/tickets";
import { renewNumbers } from "../numbers/store";
import { noteShop } from "./shop";

const ERASED = "erased on request";

/**
 * Erases a customer's own data from a job: name, plate, complaint, signature, and the papers that
 * carry them. The log keeps their digests, so its chain still verifies; what was read, set out and
 * judged stays.
 *
 * @throws Refusal for a job that is not there, or without a reason
 */
export function eraseCustomer(jobId: string, reason: string, person: Person): void {
  if (reason.trim().length < 3) throw new Refusal("Reason: say who asked for it and when.");
  db().transaction(
    (tx) => {
      const job = tx.select().from(jobs).where(eq(jobs.id, jobId)).get();
      if (!job) throw new Refusal("There is no such job. Go back to the list.");
      const intake = { ...job.ground.intake, customer: ERASED, plate: "", complaint: "" };
      const ground: StoredGround = { ...job.ground, intake };
      tx.update(jobs).set({ ground }).where(eq(jobs.id, jobId)).run();
      tx.update(jobEvents)
        .set({ personal: null, personalSalt: null })
        .where(and(eq(jobEvents.jobId, jobId), isNotNull(jobEvents.personalDigest)))
        .run();
      tx.update(jobDocuments).set({ bytes: null }).where(eq(jobDocuments.jobId, jobId)).run();
      tx.delete(jobTickets).where(eq(jobTickets.jobId, jobId)).run();
      tx.delete(jobNumbers).where(eq(jobNumbers.jobId, jobId)).run();
      // Whoever holds a link sees nothing more, and nobody's address stays.
      tx.delete(shareLinks).where(eq(shareLinks.jobId, jobId)).run();
      db()
        .$client.prepare("UPDATE job_search SET words = ? WHERE jobId = ?")
        .run(searchWords(job.number, upcastGround(ground)), jobId);
      noteShop(person, { kind: "erased", jobId, reason: reason.trim().slice(0, 400) });
    },
    { behavior: "immediate" },
  );
  ticketLater(jobId);
  renewNumbers(jobId);
}

/**
 * Erases the name of somebody who left: from the list of people, from every line of every log. The
 * lines stay, by a person who is no longer named.
 *
 * @throws Refusal for somebody who is still in the shop
 */
export function erasePerson(personId: string, person: Person): void {
  const touched: string[] = [];
  db().transaction(
    (tx) => {
      const row = tx.select().from(people).where(eq(people.id, personId)).get();
      if (!row) throw new Refusal("There is no such person. Reload the page.");
      if (!row.retiredAt)
        throw new Refusal(
          `${row.name} is still in the shop. Let them go first, then erase the name.`,
        );
      tx.update(people)
        .set({ name: "Erased on request", initials: "–", pinHash: "" })
        .where(eq(people.id, personId))
        .run();
      tx.update(jobEvents)
        .set({ author: null, authorSalt: null })
        .where(eq(jobEvents.personId, personId))
        .run();
      tx.update(shopEvents)
        .set({ author: null, authorSalt: null })
        .where(eq(shopEvents.personId, personId))
        .run();
      db()
        .$client.prepare(
          "UPDATE shop_events SET personal = NULL, personalSalt = NULL WHERE personal IS NOT NULL AND json_extract(body, '$.personId') = ?",
        )
        .run(personId);
      // Papers print who did what: they are made anew without the name.
      const jobsOf = tx
        .selectDistinct({ id: jobEvents.jobId })
        .from(jobEvents)
        .where(eq(jobEvents.personId, personId))
        .all();
      touched.push(...jobsOf.map((j) => j.id));
      for (const { id } of jobsOf) {
        tx.update(jobDocuments).set({ bytes: null }).where(eq(jobDocuments.jobId, id)).run();
        // Worked out anew from what is left, when it is next looked at.
        tx.delete(jobNumbers).where(eq(jobNumbers.jobId, id)).run();
      }
      noteShop(person, { kind: "person", personId, what: "erased", role: row.role });
    },
    { behavior: "immediate" },
  );
  endSessionsOf(personId);
  for (const id of touched) renewNumbers(id);
}
