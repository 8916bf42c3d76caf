import { randomBytes } from "node:crypto";
import { and, eq, isNull } from "drizzle-orm";
import Papa from "papaparse";
import { z } from "zod";
import { plainly, plainMessage } from "@/core/book";
import {
  calibrationInHand,
  judgeTarget,
  planFor,
  standingAt,
  standingHandOver,
  targetIn,
  targetInHand,
  type CalibrationGround,
  type JobEvent,
} from "@/core/job";
import { targetsOf } from "@/core/sheet";
import { takeReading } from "@/core/setout";
import { Refusal } from "../auth/as-writer";
import { hashOf, type Person } from "../auth/session";
import { db } from "../db/client";
import { feedTokens, instruments, people } from "../db/schema";
import { noteShop } from "../log/shop";
import { writeOwn, type OwnLine } from "../jobs/append";
import { eventsAfter } from "../jobs/log";
import { showFigure } from "./live";
import { findJobByNumber } from "../jobs/store";
import { WRITERS } from "../auth/guard";
import { sha256 } from "../log/chain";
import { plainFile } from "../book/file-text";

/** What an instrument posts cannot be taken. The message names the field and the remedy. */
export class FeedRefusal extends Refusal {
  override readonly name = "FeedRefusal";
}

/**
 * Gives an instrument a token to post with, in this person's name. It is shown once; only its hash
 * is kept.
 */
export function makeFeedToken(instrumentId: string, person: Person): string {
  const there = db()
    .select({ id: instruments.id })
    .from(instruments)
    .where(eq(instruments.id, instrumentId))
    .get();
  if (!there) throw new FeedRefusal("There is no such instrument in the kit.");
  const token = randomBytes(24).toString("base64url");
  const row = {
    tokenHash: hashOf(token),
    instrumentId,
    personId: person.id,
    createdAt: new Date().toISOString(),
  };
  db().transaction(() => {
    db().delete(feedTokens).where(eq(feedTokens.instrumentId, instrumentId)).run();
    db().insert(feedTokens).values(row).run();
    noteShop(person, { kind: "feed", instrumentId, what: "token made" });
  });
  return token;
}

/** Ends an instrument's token at once. @throws FeedRefusal where it has none */
export function revokeFeedToken(instrumentId: string, person: Person): void {
  db().transaction(() => {
    const done = db().delete(feedTokens).where(eq(feedTokens.instrumentId, instrumentId)).run();
    if (done.changes === 0)
      throw new FeedRefusal(`${instrumentId} has no token that could be revoked.`);
    noteShop(person, { kind: "feed", instrumentId, what: "token revoked" });
  });
}

/**
 * Where more than this was read, touched or moved of one target, an instrument runs by itself: nobody
 * is asked to seat anything, and a flood of posts is not judged one by one.
 */
const MOST_JUDGED = 30;
/** Judging what is posted may take so much of the shop's time in so long a while, for one job, ms. */
const JUDGING = { most: 1000, within: 10_000 } as const;
const spent = new Map<string, { from: number; ms: number }>();

/** Lets a judgement run if there is time left for it; figures that go nowhere take very long. */
function inTime(jobId: string, judge: () => boolean): boolean {
  const now = performance.now();
  const before = spent.get(jobId);
  const at = before && now - before.from < JUDGING.within ? before : { from: now, ms: 0 };
  if (at.ms > JUDGING.most) return false;
  const judged = judge();
  spent.set(jobId, { ...at, ms: at.ms + performance.now() - now });
  return judged;
}

/** Whether what a slot goes through was to be seated anew: then it was, before the figure came. */
function askedAnew(
  view: CalibrationGround,
  events: readonly JobEvent[],
  targetId: string,
  slotId: string,
): boolean {
  const own = events.filter(
    ({ body }) => ["reading", "touch", "move"].includes(body.kind) && targetIn(body) === targetId,
  );
  if (own.length > MOST_JUDGED) return false;
  const { next } = judgeTarget(view, events, targetId);
  return next.kind === "read" && next.candidate.anew && next.candidate.slot.id === slotId;
}

/** Whose token it is, or null. */
export function feedOf(token: string): { instrumentId: string; person: Person } | null {
  const row = db()
    .select({
      instrumentId: feedTokens.instrumentId,
      id: people.id,
      name: people.name,
      initials: people.initials,
      role: people.role,
    })
    .from(feedTokens)
    .innerJoin(people, eq(people.id, feedTokens.personId))
    .where(and(eq(feedTokens.tokenHash, hashOf(token)), isNull(people.retiredAt)))
    .get();
  // A token writes in its maker's name, and may no more than its maker.
  if (!row || !WRITERS.includes(row.role)) return null;
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
  /** Of which target, by its id, where several stand; the one last worked on where it is not said. */
  target: z.string().max(64).optional(),
});
const bodySchema = z.object({
  job: z.coerce.number().int(),
  readings: z.array(readingSchema).min(1).max(50),
});
/** What an instrument shows while something is turned: shown to who watches, and not kept. */
const liveSchema = z.object({
  job: z.coerce.number().int(),
  live: readingSchema.omit({ id: true }),
});

/**
 * Reads a posted body: JSON as the schema has it, or CSV with the columns job, id, slot, value.
 * @throws FeedRefusal
 */
export function parseFeed(text: string, type: string): z.infer<typeof bodySchema> {
  let json: unknown;
  if (type.includes("csv")) {
    const { data, errors } = Papa.parse<Record<string, string>>(plainFile(text).trim(), {
      header: true,
      skipEmptyLines: true,
    });
    if (errors[0])
      throw new FeedRefusal(`CSV, row ${(errors[0].row ?? 0) + 2}: ${errors[0].message}`);
    const numbers = new Set(data.map((r) => r.job));
    if (numbers.size > 1) throw new FeedRefusal("job: one post is for one job.");
    json = { job: data[0]?.job, readings: data };
  } else {
    try {
      json = JSON.parse(plainFile(text));
    } catch {
      throw new FeedRefusal("The body is neither JSON nor declared as text/csv.");
    }
  }
  return fitting(bodySchema, json);
}

function fitting<T>(schema: z.ZodType<T>, json: unknown): T {
  const parsed = schema.safeParse(json, plainly);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new FeedRefusal(`${issue!.path.join(".") || "body"}: ${plainMessage(issue!)}`);
}

/**
 * The figure an instrument shows just now, where a body is of that kind; null where it is not.
 *
 * @throws FeedRefusal
 */
export function liveIn(text: string): z.infer<typeof liveSchema> | null {
  try {
    const json: unknown = JSON.parse(plainFile(text));
    if (typeof json !== "object" || json === null || !("live" in json)) return null;
    return fitting(liveSchema, json);
  } catch (error) {
    if (error instanceof FeedRefusal) throw error;
    return null;
  }
}

/**
 * Passes on what an instrument shows now, judged like a reading and written nowhere.
 *
 * @throws FeedRefusal when there is no such job or nothing to watch, or the figure cannot be
 */
export function takeLive(
  feed: { instrumentId: string },
  { job: number, live }: z.infer<typeof liveSchema>,
): void {
  const job = findJobByNumber(number);
  if (!job) throw new FeedRefusal(`job: there is no job ${number}.`);
  const events = eventsAfter(job.id);
  if (standingHandOver(events))
    throw new FeedRefusal(`job: ${number} is handed over; nothing is turned in it.`);
  const view = calibrationInHand(job.ground, events);
  if (targetsOf(view.sheet).length === 0)
    throw new FeedRefusal(`job: ${view.sheet.title} sets nothing out; no figure is wanted.`);
  const targetId = live.target || targetInHand(view, events).id;
  if (!standingAt(view, events, targetId))
    throw new FeedRefusal(`target: nothing called “${targetId}” stands in this job now.`);
  const told = { slotId: live.slot, typed: live.value, instrumentId: feed.instrumentId };
  const taken = takeReading(planFor(view, events, targetId), told);
  if (!taken.ok)
    throw new FeedRefusal(`${taken.problem}${taken.guess ? ` Meant as ${taken.guess.text}?` : ""}`);
  showFigure(job.id, { targetId, slotId: live.slot, shown: taken.shown });
}

export type FeedAnswer = { id: string; outcome: "taken" | "known" | "refused"; why?: string };

/** What is known under an instrument's own number in a job: the digest of what was posted. */
const numberOf = (instrumentId: string, id: string): string => `feed:${instrumentId}:${id}`;

/**
 * Takes posted readings into a job's log, each judged as if it had been typed: impossible values
 * are refused with the likely meaning. Those that stand are written together; a reading already
 * there is simply confirmed. Numbers count per job and instrument; another reading under a number
 * that is known is refused and says so.
 *
 * @throws FeedRefusal when there is no such job, or it is handed over
 */
export function takeFeed(
  feed: { instrumentId: string; person: Person },
  body: z.infer<typeof bodySchema>,
  now = new Date(),
): FeedAnswer[] {
  const job = findJobByNumber(body.job);
  if (!job) throw new FeedRefusal(`job: there is no job ${body.job}.`);
  let answers: FeedAnswer[] = [];
  const make = (
    events: readonly JobEvent[],
    sentUnder: ReadonlyMap<string, string | null>,
  ): OwnLine[] => {
    if (standingHandOver(events))
      throw new FeedRefusal(`job: ${body.job} is handed over; nothing more is read into it.`);
    const view = calibrationInHand(job.ground, events);
    if (targetsOf(view.sheet).length === 0)
      throw new FeedRefusal(`job: ${view.sheet.title} sets nothing out; no reading is wanted.`);
    const { calibrationId } = view;
    const inHand = targetInHand(view, events).id;
    if (!job.ground.instruments.some((i) => i.id === feed.instrumentId))
      throw new FeedRefusal(
        `Instrument ${feed.instrumentId} was put into the kit after job ${body.job} was opened.`,
      );
    const known = new Map(sentUnder);
    const fresh: OwnLine[] = [];
    answers = body.readings.map((r): FeedAnswer => {
      const id = numberOf(feed.instrumentId, r.id);
      const sent = sha256(JSON.stringify([r.slot, r.value]));
      const before = known.get(id);
      if (before === null || before === sent) return { id: r.id, outcome: "known" };
      if (before !== undefined)
        return {
          id: r.id,
          outcome: "refused",
          why: `id: ${r.id} was another reading of this job before. Give each reading a number of its own.`,
        };
      const targetId = r.target || inHand;
      if (!standingAt(view, events, targetId))
        return {
          id: r.id,
          outcome: "refused",
          why: `target: nothing called “${targetId}” stands in this job now.`,
        };
      const told = { slotId: r.slot, typed: r.value, instrumentId: feed.instrumentId };
      const taken = takeReading(planFor(view, events, targetId), told);
      if (!taken.ok)
        return {
          id: r.id,
          outcome: "refused",
          why: `${taken.problem}${taken.guess ? ` Meant as ${taken.guess.text}?` : ""}`,
        };
      known.set(id, sent);
      const { shown, sigma, slot } = taken;
      const anew =
        slot.seat !== undefined && inTime(job.id, () => askedAnew(view, events, targetId, slot.id));
      fresh.push({
        id,
        at: now.toISOString(),
        sent,
        body: {
          kind: "reading",
          calibrationId,
          targetId,
          ...told,
          shown,
          sigma,
          ...(anew ? { anew } : {}),
        },
      });
      return { id: r.id, outcome: "taken" };
    });
    return fresh;
  };
  writeOwn(job.id, make, feed.person);
  return answers;
}
