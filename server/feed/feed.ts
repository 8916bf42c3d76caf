import { randomBytes } from "node:crypto";
import { and, eq, isNull } from "drizzle-orm";
import Papa from "papaparse";
import { z } from "zod";
import { plainMessage } from "@/core/book";
import { planFor, type TabletEvent } from "@/core/job";
import { parseShown, readingSigma, slotsFor } from "@/core/setout";
import { Refusal } from "../auth/as-writer";
import { hashOf, type Person } from "../auth/session";
import { db } from "../db/client";
import { feedTokens, instruments, jobs, people } from "../db/schema";
import { appendEvents, eventsAfter, findJob } from "../jobs/store";

/** What an instrument posts cannot be taken. The message names the field and the remedy. */
export class FeedRefusal extends Refusal {
  override readonly name = "FeedRefusal";
}

/** Gives an instrument a token to post with, in this person's name. It is shown once; only its hash is kept. */
export function makeFeedToken(instrumentId: string, person: Person): string {
  const there = db().select({ id: instruments.id }).from(instruments).where(eq(instruments.id, instrumentId)).get();
  if (!there) throw new FeedRefusal("There is no such instrument in the kit.");
  const token = randomBytes(24).toString("base64url");
  db().delete(feedTokens).where(eq(feedTokens.instrumentId, instrumentId)).run();
  db().insert(feedTokens).values({ tokenHash: hashOf(token), instrumentId, personId: person.id, createdAt: new Date().toISOString() }).run(); // prettier-ignore
  return token;
}

/** Whose token it is, or null. */
export function feedOf(token: string): { instrumentId: string; person: Person } | null {
  const row = db()
    .select({ instrumentId: feedTokens.instrumentId, id: people.id, name: people.name, initials: people.initials, role: people.role })
    .from(feedTokens)
    .innerJoin(people, eq(people.id, feedTokens.personId))
    .where(and(eq(feedTokens.tokenHash, hashOf(token)), isNull(people.retiredAt)))
    .get(); // prettier-ignore
  if (!row) return null;
  const { instrumentId, ...person } = row;
  return { instrumentId, person };
}

const readingSchema = z.object({
  /** The instrument's own number of the reading: sent twice, it is there once. */
  id: z.coerce.string().regex(/^[\w.:-]{1,40}$/, "letters, figures, dot, colon, dash; at most 40"),
  /** Which reading it is, by the slot's id. */
  slot: z.string().min(1).max(40),
  /** As shown: "2871", "2.871 m", "-14". */
  value: z.coerce.string().trim().min(1).max(40),
});
const bodySchema = z.object({ job: z.coerce.number().int(), readings: z.array(readingSchema).min(1).max(50) });

/** Reads a posted body: JSON as the schema has it, or CSV with the columns job, id, slot, value. @throws FeedRefusal */
export function parseFeed(text: string, type: string): z.infer<typeof bodySchema> {
  let json: unknown;
  if (type.includes("csv")) {
    const { data, errors } = Papa.parse<Record<string, string>>(text.trim(), { header: true, skipEmptyLines: true });
    if (errors[0]) throw new FeedRefusal(`CSV, row ${(errors[0].row ?? 0) + 2}: ${errors[0].message}`);
    const numbers = new Set(data.map((r) => r.job));
    if (numbers.size > 1) throw new FeedRefusal("job: one post is for one job.");
    json = { job: data[0]?.job, readings: data };
  } else {
    try {
      json = JSON.parse(text);
    } catch {
      throw new FeedRefusal("The body is neither JSON nor declared as text/csv.");
    }
  }
  const parsed = bodySchema.safeParse(json);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new FeedRefusal(`${issue!.path.join(".") || "body"}: ${plainMessage(issue!)}`);
}

export type FeedAnswer = { id: string; outcome: "taken" | "known" | "refused"; why?: string };

/**
 * Takes posted readings into a job's log, each judged as if it had been typed: impossible values are refused with the likely
 * meaning. Those that stand are written together; a reading already there is simply confirmed.
 *
 * @throws FeedRefusal when there is no such job
 */
export function takeFeed(feed: { instrumentId: string; person: Person }, body: z.infer<typeof bodySchema>, now = new Date()): FeedAnswer[] {
  const row = db().select({ id: jobs.id }).from(jobs).where(eq(jobs.number, body.job)).get();
  const job = row && findJob(row.id);
  if (!job) throw new FeedRefusal(`job: there is no job ${body.job}.`);
  for (let attempt = 0; attempt < 5; attempt++) {
    const events = eventsAfter(job.id);
    const known = new Set(events.map((e) => e.id));
    const plan = planFor(job.ground, events);
    const instrument = plan.instruments.find((i) => i.id === feed.instrumentId);
    if (!instrument) throw new FeedRefusal(`Instrument ${feed.instrumentId} was put into the kit after job ${body.job} was opened.`);
    const slots = slotsFor(plan).filter((s) => s.instrument === instrument.kind);
    const eventId = (id: string): string => `feed:${feed.instrumentId}:${id}`;
    const fresh: { id: string; takenAt: string; body: TabletEvent }[] = [];
    const answers = body.readings.map((r): FeedAnswer => {
      if (known.has(eventId(r.id)) || fresh.some((f) => f.id === eventId(r.id))) return { id: r.id, outcome: "known" };
      const slot = slots.find((s) => s.id === r.slot);
      if (!slot) return { id: r.id, outcome: "refused", why: `slot: ${feed.instrumentId} reads ${slots.map((s) => s.id).join(", ") || "nothing on this job"}.` };
      const parsed = parseShown(r.value, slot, "mm");
      if (!parsed.ok) return { id: r.id, outcome: "refused", why: `value: ${parsed.problem}${parsed.guess ? ` Meant as ${parsed.guess.text}?` : ""}` };
      fresh.push({ id: eventId(r.id), takenAt: now.toISOString(), body: { kind: "reading", slotId: slot.id, typed: r.value, shown: parsed.value, sigma: readingSigma(instrument, slot, parsed.value), instrumentId: instrument.id } });
      return { id: r.id, outcome: "taken" };
    });
    if (fresh.length === 0 || appendEvents(job.id, events.at(-1)!.seq, fresh, feed.person).ok) return answers;
  }
  throw new FeedRefusal("Others write to this job at once. Post again.");
} // prettier-ignore
