import { eq, max } from "drizzle-orm";
import { z } from "zod";
import { scopedLog, upcastGround, type JobGround } from "@/core/job";
import { buildRecord, recordSchema } from "@/core/record";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { importedJobs, jobDocuments, jobEvents, jobs, people, photos } from "../db/schema";
import { toEvent } from "../jobs/log";
import { searchWords } from "../jobs/search-words";
import { findJob } from "../jobs/store";
import { ticketLater } from "../jobs/tickets";
import { renewNumbers } from "../numbers/store";
import { sha256 } from "../log/chain";
import { noteShop } from "../log/shop";
import { openArchive, paperName, photoName, type ArchivedLine, type OpenArchive } from "./form";
import { ArchiveRefusal } from "./zip";

const authorSchema = z.object({ id: z.string(), name: z.string(), initials: z.string() });
type Row = typeof jobEvents.$inferSelect;

const rowOf = (
  jobId: string,
  { author, personal, ...line }: ArchivedLine,
  personId: string,
): Row => ({
  ...line,
  jobId,
  personId,
  author: author.text,
  authorSalt: author.salt,
  authorDigest: author.digest,
  personal: personal.text,
  personalSalt: personal.salt,
  personalDigest: personal.digest,
  sent: null,
});

/**
 * What an archive's job stands on, as this program works with it: it has to make a whole record of
 * it. @throws ArchiveRefusal
 */
function readGround({ log }: OpenArchive): JobGround {
  try {
    const ground = upcastGround(log.ground);
    const events = scopedLog(
      ground,
      log.lines.map((l) => toEvent(rowOf(log.log, l, "somebody"))),
    );
    recordSchema.parse(buildRecord(log.number, ground, events, !ground.real));
    return ground;
  } catch {
    throw new ArchiveRefusal(
      "log.json: this program cannot make a record of it. A newer Iridel may have written it.",
    );
  }
}

/**
 * Somebody of another shop, in the list of people: known by id and name, or entered as one who has
 * left, so that nobody signs in by it.
 */
function personFor(text: string | null, now: string): string {
  const read = authorSchema.safeParse(text === null ? null : JSON.parse(text));
  const who = read.success
    ? read.data
    : { id: "erased-elsewhere", name: "Erased on request", initials: "–" };
  const known = db().select().from(people).where(eq(people.id, who.id)).get();
  if (known?.name === who.name) return who.id;
  const id = known ? `from-${sha256(JSON.stringify(who)).slice(0, 16)}` : who.id;
  db()
    .insert(people)
    .values({ ...who, id, role: "viewer", pinHash: "none", retiredAt: now })
    .onConflictDoNothing()
    .run();
  return id;
}

export type BroughtIn = { jobId: string; number: number };

/**
 * Brings a job of another house in, as it was there: every line with its seal, every paper byte for
 * byte. Either all of it is written or nothing.
 *
 * @throws ArchiveRefusal for what does not hold together, Refusal for a job the shop has already
 */
export function bringIn(packed: Uint8Array, person: Person, now: string): BroughtIn {
  const archive = openArchive(packed);
  const ground = readGround(archive);
  const { log, entries } = archive;
  const had = findJob(log.log);
  if (had) throw new Refusal(`The shop has this job already: it is job ${had.number}.`);
  const number = db().transaction(
    (tx) => {
      const taken = tx.select().from(jobs).where(eq(jobs.number, log.number)).get();
      const highest =
        tx
          .select({ n: max(jobs.number) })
          .from(jobs)
          .get()?.n ?? 0;
      const number = taken ? highest + 1 : log.number;
      const authors = new Map(log.lines.map((l): [string | null, string] => [l.author.text, ""]));
      for (const text of authors.keys()) authors.set(text, personFor(text, now));
      tx.insert(jobs)
        .values({
          id: log.log,
          number,
          createdAt: log.createdAt,
          createdBy: authors.get(log.lines[0]!.author.text)!,
          ground: log.ground,
          seed: log.log,
          vin: ground.intake.vin,
          head: log.lines.at(-1)!.seq,
          updatedAt: log.updatedAt,
        })
        .run();
      for (const l of log.lines)
        tx.insert(jobEvents)
          .values(rowOf(log.log, l, authors.get(l.author.text)!))
          .run();
      for (const { erased, ...d } of log.documents)
        tx.insert(jobDocuments)
          .values({
            ...d,
            jobId: log.log,
            bytes: erased ? null : Buffer.from(entries.get(paperName(d.kind, d.version))!),
          })
          .run();
      for (const { sha256: hash, ...p } of log.photos)
        tx.insert(photos)
          .values({
            ...p,
            hash,
            jpeg: Buffer.from(entries.get(photoName(hash))!),
            personId: person.id,
          })
          .onConflictDoNothing()
          .run();
      tx.insert(importedJobs)
        .values({
          jobId: log.log,
          number: log.number,
          at: now,
          personId: person.id,
          head: archive.head,
        })
        .run();
      db()
        .$client.prepare("INSERT INTO job_search (jobId, words) VALUES (?, ?)")
        .run(log.log, searchWords(number, ground));
      noteShop(person, { kind: "brought-in", jobId: log.log, head: archive.head });
      return number;
    },
    { behavior: "immediate" },
  );
  ticketLater(log.log);
  renewNumbers(log.log);
  return { jobId: log.log, number };
}
