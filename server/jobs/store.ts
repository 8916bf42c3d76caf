import { and, asc, desc, eq, gt, inArray, max } from "drizzle-orm";
import { nanoid } from "nanoid";
import {
  freeStands,
  intakeSchema,
  planFor,
  setOutEntries,
  settlementOf,
  sheetNow,
  type EventBody,
  type Intake,
  type JobEvent,
  type JobGround,
} from "@/core/job";
import { checkBoard } from "@/core/kit";
import { FIRST_PLACE } from "@/core/sheet";
import { happeningName } from "@/core/owed";
import { boosterFor, nextAct, outOfReach, solveSetOut } from "@/core/setout";
import { checkVin } from "@/core/vehicle";
import type { Person } from "../auth/session";
import { config } from "../config";
import { db } from "../db/client";
import { jobEvents, jobs, people, presence } from "../db/schema";
import { failedStands, listBoards } from "../kit/store";
import { announce } from "../stand/live";
import { photoExists } from "../photos/store";
import { glassPolicy, listInstruments, listSheets, listStands, listVehicles, ruleBook } from "../shop/store";

export type JobRow = {
  id: string;
  number: number;
  createdAt: string;
  ground: JobGround;
  seed: string;
  head: number;
  updatedAt: string;
};

/** The request does not fit what is stored. The message says what to do. */
export class JobRefusal extends Error {
  override readonly name = "JobRefusal";
}

export const findJob = (id: string): JobRow | null => db().select().from(jobs).where(eq(jobs.id, id)).get() ?? null;

const eventColumns = {
  id: jobEvents.id,
  jobId: jobEvents.jobId,
  seq: jobEvents.seq,
  at: jobEvents.at,
  body: jobEvents.body,
  personId: people.id,
  name: people.name,
  initials: people.initials,
};
type EventRow = {
  id: string;
  jobId: string;
  seq: number;
  at: string;
  body: EventBody;
  personId: string;
  name: string;
  initials: string;
};

const toEvent = (r: EventRow): JobEvent => ({
  id: r.id,
  seq: r.seq,
  at: r.at,
  by: { id: r.personId, name: r.name, initials: r.initials },
  body: r.body,
});

const selectEvents = () =>
  db().select(eventColumns).from(jobEvents).innerJoin(people, eq(people.id, jobEvents.personId));

/** The log of a job after a place, in order. */
export const eventsAfter = (jobId: string, seq = 0): JobEvent[] =>
  selectEvents().where(and(eq(jobEvents.jobId, jobId), gt(jobEvents.seq, seq))).orderBy(asc(jobEvents.seq)).all().map(toEvent); // prettier-ignore

export type AppendResult =
  | { ok: true; events: JobEvent[] }
  /** Somebody else wrote in between; `missing` is what this tablet has not seen. */
  | { ok: false; missing: JobEvent[] };

export type NewEvent = { id: string; takenAt: string; body: EventBody | { kind: "settle" } };

/**
 * Adds events to a job's log in one transaction.
 *
 * @param baseSeq the last place the writer had seen; anything newer is a conflict, never an overwrite
 * @throws JobRefusal for a job that is not there or an event that cannot be true now
 */
export function appendEvents(
  jobId: string,
  baseSeq: number,
  incoming: readonly NewEvent[],
  person: Person,
): AppendResult {
  const result = db().transaction(
    (tx) => {
      const job = tx.select().from(jobs).where(eq(jobs.id, jobId)).get();
      if (!job) throw new JobRefusal("There is no such job. Go back to the list.");
      const ids = incoming.map((e) => e.id);
      const already = new Set(tx.select({ id: jobEvents.id }).from(jobEvents).where(inArray(jobEvents.id, ids)).all().map((r) => r.id)); // prettier-ignore
      const fresh = incoming.filter((e) => !already.has(e.id));
      // A tablet that lost the answer sends again: what is already there is simply confirmed.
      if (fresh.length === 0) return { ok: true as const, events: eventsAfter(jobId, baseSeq) };
      // What the writer sends again, it has seen: only what others wrote can be missing.
      const missing = eventsAfter(jobId, baseSeq).filter((e) => !already.has(e.id));
      if (missing.length > 0) return { ok: false as const, missing };

      const now = new Date().toISOString();
      let seq = job.head;
      for (const e of fresh) {
        seq += 1;
        const body = e.body.kind === "settle" ? settle(jobId, job.ground) : e.body;
        if (body.kind === "strike") checkStrike(jobId, body.target);
        if (body.kind === "position") checkPosition(job.ground, eventsAfter(jobId), body);
        if (body.kind === "board") {
          const finding = checkBoard(
            body.code,
            job.ground.boards ?? [],
            sheetNow(job.ground, eventsAfter(jobId)).board,
          );
          if (finding?.kind === "stop" || (finding && !body.reason)) throw new JobRefusal(finding.say);
        }
        if (body.kind === "photo" && !photoExists(body.photo))
          throw new JobRefusal("The photo did not arrive. Send it again.");
        tx.insert(jobEvents)
          .values({ id: e.id, jobId, seq, at: e.takenAt <= now ? e.takenAt : now, personId: person.id, body })
          .run();
      }
      tx.update(jobs)
        .set({ head: seq, updatedAt: fresh.at(-1)!.takenAt <= now ? fresh.at(-1)!.takenAt : now })
        .where(eq(jobs.id, jobId))
        .run();
      return { ok: true as const, events: eventsAfter(jobId, baseSeq) };
    },
    { behavior: "immediate" },
  );
  if (result.ok && result.events.length > 0) announce(jobId);
  return result;
}

const judgeNow = (ground: JobGround, events: readonly JobEvent[]) =>
  nextAct(solveSetOut(planFor(ground, events), setOutEntries(events)));

/** The server's own judgement: a tablet asks to settle, it does not say with what figures. */
function settle(jobId: string, ground: JobGround): EventBody {
  const judged = judgeNow(ground, eventsAfter(jobId));
  const settlement = settlementOf(judged);
  if (!settlement)
    throw new JobRefusal("The readings do not prove the board in place. Follow the next act, then settle.");
  return settlement;
}

/** A place of the sheet, and a stand of its own where the board before it stays. */
function checkPosition(g: JobGround, events: readonly JobEvent[], { to, standId }: { to: string; standId?: string | undefined }): void {
  const place = g.sheet.positions?.find((p) => p.id === to);
  if (!place && to !== FIRST_PLACE) throw new JobRefusal("The sheet has no such place.");
  const free = freeStands(g, events, to);
  if (place?.beside && !free.some((s) => s.id === standId))
    throw new JobRefusal(`Stand: the board before stays, so this one needs another stand: ${free.map((s) => s.id).join(", ") || "there is none in this job's kit"}.`);
  if (!place?.beside && standId !== undefined) throw new JobRefusal("Stand: this place is set out with the job's own stand.");
} // prettier-ignore

function checkStrike(jobId: string, target: string): void {
  const event = eventsAfter(jobId).find((e) => e.id === target);
  if (!event) throw new JobRefusal("The line to strike is not in this job.");
  if (
    !["reading", "move", "touch", "check", "owed-decline", "owed-done", "owed-add", "measured", "glass", "walk", "photo", "consent", "rear-toe", "board"].includes(event.body.kind) // prettier-ignore
  )
    throw new JobRefusal("This line cannot be struck.");
}

/**
 * Opens a job from its intake: freezes the documents in force and writes the first event.
 *
 * @throws JobRefusal naming the field at fault
 */
export function takeIn(input: unknown, person: Person, options: { seed?: string; at?: string } = {}): string {
  const intake: Intake = intakeSchema.parse(input);
  const vin = checkVin(intake.vin);
  if (!vin.ok && !intake.vinReason)
    throw new JobRefusal(`VIN: ${vin.problems[0]!.message} Correct it, or keep it with a reason.`);
  const vehicle = listVehicles().find((v) => v.id === intake.vehicleId);
  if (!vehicle) throw new JobRefusal("Vehicle: choose one from the shop's list.");
  const sheet = listSheets().find((s) => s.id === intake.sheetId && s.version === intake.sheetVersion);
  if (!sheet) throw new JobRefusal("Sheet: this version is no longer the newest. Reload the page and choose again.");
  if (!sheet.appliesTo.vehicles.includes(vehicle.id))
    throw new JobRefusal(`Sheet: ${sheet.title} is not for the ${vehicle.model}.`);
  const stand = listStands().find((s) => s.id === intake.standId);
  if (!stand) throw new JobRefusal("Stand: choose one from the kit.");
  for (const { heightMm } of [
    sheet.placement,
    ...(sheet.positions ?? []).filter((p) => !p.beside).map((p) => p.placement),
  ])
    if (boosterFor(stand, heightMm) === undefined) throw new JobRefusal(`Stand: ${outOfReach(stand, heightMm)}`);
  const failed = failedStands().get(stand.id);
  if (failed)
    throw new JobRefusal(`Stand: ${stand.id} failed its zero check (${failed}). Put it right and check it again, or choose another.`); // prettier-ignore
  if (sheet.datum === "thrust" && !intake.rearToeDeg)
    throw new JobRefusal(
      "Rear toe: the sheet squares the board to the thrust line; enter left and right from the printout.",
    );

  const id = nanoid(12);
  const at = options.at ?? new Date().toISOString();
  const ground: JobGround = {
    intake,
    vehicle,
    sheet,
    stand,
    stands: listStands().filter((s) => !failedStands().has(s.id)),
    instruments: listInstruments(),
    boards: listBoards(),
    ruleBook: ruleBook(),
    glassPolicy: glassPolicy(),
  };
  db().transaction(
    (tx) => {
      const number = (tx.select({ n: max(jobs.number) }).from(jobs).get()?.n ?? 1040) + 1;
      tx.insert(jobs).values({ id, number, createdAt: at, createdBy: person.id, ground, seed: options.seed ?? config.baySeed ?? id, head: 1, updatedAt: at }).run();
      tx.insert(jobEvents).values({ id: nanoid(16), jobId: id, seq: 1, at, personId: person.id, body: { kind: "taken-in", intake } }).run();
    },
    { behavior: "immediate" },
  ); // prettier-ignore
  return id;
}

/** Notes that a person has a job open, and says who else has (seen in the last 15 seconds). */
export function seen(jobId: string, person: Person): { name: string; initials: string }[] {
  const now = Date.now();
  const seenAt = new Date(now).toISOString();
  db().insert(presence).values({ jobId, personId: person.id, seenAt }).onConflictDoUpdate({ target: [presence.jobId, presence.personId], set: { seenAt } }).run(); // prettier-ignore
  return (
    peopleOn(now)
      .get(jobId)
      ?.filter((p) => p.id !== person.id) ?? []
  );
}

/** Who is on what, by job. */
export function peopleOn(now = Date.now()): Map<string, { id: string; name: string; initials: string }[]> {
  const since = new Date(now - 15_000).toISOString();
  const on = new Map<string, { id: string; name: string; initials: string }[]>();
  const rows = db().select({ jobId: presence.jobId, id: people.id, name: people.name, initials: people.initials }).from(presence).innerJoin(people, eq(people.id, presence.personId)).where(gt(presence.seenAt, since)).all(); // prettier-ignore
  for (const { jobId, ...p } of rows) on.set(jobId, [...(on.get(jobId) ?? []), p]);
  return on;
}

/** A vehicle the shop has had before, newest visit first. */
export type PastVehicle = {
  vin: string;
  vehicleId: string;
  vehicle: string;
  plate: string;
  customer: string;
  answers: Intake["answers"];
  visits: { id: string; number: number; at: string; done: string }[];
};

/** Every vehicle the shop has taken in, by VIN; what is known of it is what was written last. */
export function pastVehicles(): PastVehicle[] {
  const known = new Map<string, PastVehicle>();
  const rows = db().select({ id: jobs.id, number: jobs.number, createdAt: jobs.createdAt, ground: jobs.ground }).from(jobs).orderBy(desc(jobs.createdAt)).all(); // prettier-ignore
  for (const { id, number, createdAt, ground } of rows) {
    const { intake, vehicle } = ground;
    const visit = { id, number, at: createdAt, done: intake.happenings.map(happeningName).join(", ") };
    const before = known.get(intake.vin);
    if (before) before.visits.push(visit);
    else
      known.set(intake.vin, {
        vin: intake.vin,
        vehicleId: vehicle.id,
        vehicle: `${vehicle.make} ${vehicle.model}`,
        plate: intake.plate,
        customer: intake.customer,
        answers: intake.answers,
        visits: [visit],
      });
  }
  return [...known.values()];
}
