import type Database from "better-sqlite3";
import { digestOf, firstHash, lineHash, newSalt } from "./chain";
import { groundDigest } from "./ground";
import { splitPersonal } from "./personal";
import { searchWords } from "../jobs/search-words";
import { upcastGround, type StoredGround } from "@/core/job";

type OldRow = {
  seq: number;
  id: string;
  version: number;
  at: string;
  personId: string;
  body: string;
};
type Author = { id: string; name: string; initials: string };

/**
 * Seals the logs of jobs that are older than the chain, and enters them in the search; one
 * transaction, once.
 */
export function sealOldLogs(connection: Database.Database): void {
  const jobs = connection
    .prepare("SELECT DISTINCT jobId FROM job_events WHERE hash = ''")
    .pluck()
    .all() as string[];
  if (jobs.length === 0) return;
  const people = new Map(
    (connection.prepare("SELECT id, name, initials FROM people").all() as Author[]).map((p) => [
      p.id,
      p,
    ]),
  );
  const rows = connection.prepare(
    "SELECT seq, id, version, at, personId, body FROM job_events WHERE jobId = ? ORDER BY seq",
  );
  const ground = connection.prepare("SELECT number, ground FROM jobs WHERE id = ?");
  const seal = connection.prepare(
    "UPDATE job_events SET author = ?, authorSalt = ?, authorDigest = ?, body = ?, personal = ?, personalSalt = ?, personalDigest = ?, hash = ? WHERE jobId = ? AND seq = ?",
  );
  const search = connection.prepare("INSERT INTO job_search (jobId, words) VALUES (?, ?)");
  connection
    .transaction(() => {
      for (const jobId of jobs) {
        const job = ground.get(jobId) as { number: number; ground: string };
        const documents = JSON.parse(job.ground) as StoredGround;
        let previous = firstHash(jobId, groundDigest(documents));
        for (const row of rows.all(jobId) as OldRow[]) {
          const author = JSON.stringify(people.get(row.personId));
          const authorSalt = newSalt();
          const authorDigest = digestOf(authorSalt, author);
          const { rest, personal } = splitPersonal(JSON.parse(row.body) as { kind: string });
          const personalSalt = personal === null ? null : newSalt();
          const personalDigest = personal === null ? null : digestOf(personalSalt!, personal);
          const { seq, id, version, at } = row;
          const line = {
            log: jobId,
            seq,
            id,
            version,
            at,
            receivedAt: null,
            clockBehindS: null,
            authorDigest,
            seen: null,
            body: rest,
            personalDigest,
          };
          previous = lineHash(line, previous);
          seal.run(
            author,
            authorSalt,
            authorDigest,
            rest,
            personal,
            personalSalt,
            personalDigest,
            previous,
            jobId,
            seq,
          );
        }
        search.run(jobId, searchWords(job.number, upcastGround(documents)));
      }
    })
    .immediate();
}
