import { randomBytes } from "node:crypto";
import { and, count, desc, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { standingHandOver } from "@/core/job";
import { simulatedMailer } from "@/devices/mail/simulated";
import { DeviceRefusal } from "@/devices/scan-tool/scan-tool";
import { Refusal } from "../auth/as-writer";
import { hashOf, type Person } from "../auth/session";
import { db } from "../db/client";
import { people, shareLinks } from "../db/schema";
import { eventsAfter } from "../jobs/log";
import { findJob } from "../jobs/store";
import { noteShop } from "../log/shop";
import { shopTimes } from "../shop/clock";

export class ShareRefusal extends Refusal {
  override readonly name = "ShareRefusal";
}

export const shareAsked = z.object({
  reader: z.enum(["customer", "insurer", "file"]),
  days: z.number().int().min(1, "at least a day").max(90, "at most ninety days"),
  /** Where it is sent; only shown where nobody is named. */
  to: z.email("type an e-mail address, such as name@house.example").nullable(),
});
export type ShareAsked = z.infer<typeof shareAsked>;

/** A link as the shop sees it: its address is known only when it is made. */
export type ShareLink = {
  id: string;
  reader: ShareAsked["reader"];
  by: string;
  sentTo: string | null;
  createdAt: string;
  expiresAt: string;
  revokedAt: string | null;
  seenAt: string | null;
};

const DAY_MS = 86_400_000;

const READERS = { customer: "for its owner", insurer: "for the insurer", file: "whole" } as const;

/**
 * Makes a link to one paper of a job that was handed over, and sends it where somebody is named. What
 * the post refuses is taken back at once.
 *
 * @param house the shop's own address, to which the link leads
 * @throws ShareRefusal for a job that is not handed over, and where the post refuses
 */
export async function makeLink(
  jobId: string,
  { reader, days, to }: ShareAsked,
  person: Person,
  house: string,
  pace = 1,
): Promise<{ url: string; links: ShareLink[] }> {
  const job = findJob(jobId);
  if (!job) throw new ShareRefusal("There is no such job. Go back to the list.");
  if (!standingHandOver(eventsAfter(jobId)))
    throw new ShareRefusal("Only a job that is handed over is shown outside. Hand it over first.");
  const token = randomBytes(24).toString("base64url");
  const id = nanoid(12);
  const now = new Date();
  const expiresAt = new Date(now.getTime() + days * DAY_MS).toISOString();
  const before = db().select({ n: count() }).from(shareLinks).get()!.n;
  db()
    .insert(shareLinks)
    .values({
      id,
      tokenHash: hashOf(token),
      jobId,
      reader,
      personId: person.id,
      sentTo: to,
      createdAt: now.toISOString(),
      expiresAt,
    })
    .run();
  const url = `${house}/share/${token}`;
  if (to) {
    try {
      await simulatedMailer(before, pace).send({
        to,
        subject: `Calibration of your ${job.ground.vehicle.make} ${job.ground.vehicle.model}`,
        text: `The paper on job ${job.number} is here until ${shopTimes().dateAndTime(expiresAt)}: ${url}`,
      });
    } catch (error) {
      if (!(error instanceof DeviceRefusal)) throw error;
      db().delete(shareLinks).where(eq(shareLinks.id, id)).run();
      throw new ShareRefusal(`${to}: ${error.message}`);
    }
  }
  noteShop(person, {
    kind: "shared",
    jobId,
    what: `paper ${READERS[reader]} shown outside for ${days} ${days === 1 ? "day" : "days"}`,
  });
  return { url, links: linksOf(jobId) };
}

/** Takes a link back. @throws ShareRefusal where it is none of this job, or ended already */
export function revokeLink(jobId: string, id: string, person: Person): ShareLink[] {
  const done = db()
    .update(shareLinks)
    .set({ revokedAt: new Date().toISOString() })
    .where(and(eq(shareLinks.id, id), eq(shareLinks.jobId, jobId), isNull(shareLinks.revokedAt)))
    .returning({ id: shareLinks.id })
    .get();
  if (!done) throw new ShareRefusal("That link was taken back already. Reload the page.");
  noteShop(person, { kind: "shared", jobId, what: "link taken back" });
  return linksOf(jobId);
}

/** A job's links, the last first. */
export const linksOf = (jobId: string): ShareLink[] =>
  db()
    .select({
      id: shareLinks.id,
      reader: shareLinks.reader,
      by: people.name,
      sentTo: shareLinks.sentTo,
      createdAt: shareLinks.createdAt,
      expiresAt: shareLinks.expiresAt,
      revokedAt: shareLinks.revokedAt,
      seenAt: shareLinks.seenAt,
    })
    .from(shareLinks)
    .innerJoin(people, eq(people.id, shareLinks.personId))
    .where(eq(shareLinks.jobId, jobId))
    .orderBy(desc(shareLinks.createdAt))
    .all();

/**
 * What a link shows, as its maker. @returns null for one that is unknown, ended or taken back: a stranger
 * is not told which
 */
export function openLink(
  token: string,
  now = new Date(),
): {
  jobId: string;
  reader: ShareAsked["reader"];
  person: Pick<Person, "id" | "name" | "initials">;
} | null {
  const found = db()
    .select({
      id: shareLinks.id,
      jobId: shareLinks.jobId,
      reader: shareLinks.reader,
      expiresAt: shareLinks.expiresAt,
      revokedAt: shareLinks.revokedAt,
      person: { id: people.id, name: people.name, initials: people.initials },
    })
    .from(shareLinks)
    .innerJoin(people, eq(people.id, shareLinks.personId))
    .where(eq(shareLinks.tokenHash, hashOf(token)))
    .get();
  if (!found || found.revokedAt || found.expiresAt <= now.toISOString()) return null;
  db()
    .update(shareLinks)
    .set({ seenAt: now.toISOString() })
    .where(eq(shareLinks.id, found.id))
    .run();
  return { jobId: found.jobId, reader: found.reader, person: found.person };
}
