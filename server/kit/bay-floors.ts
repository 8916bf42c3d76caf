import { eq } from "drizzle-orm";
import { bayStandX, itemsOf, measuredOf, viewsOf } from "@/core/job";
import { asBayFloor, BAY_FLOOR_DAYS, bayFloorAge, type BayFloor } from "@/core/ready";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { bayFloors } from "../db/schema";
import { eventsAfter } from "../jobs/log";
import { findJob } from "../jobs/store";
import { noteShop } from "../log/shop";

/** The floors of the shop's bays that are still good. */
export const goodBayFloors = (now = new Date().toISOString()): BayFloor[] =>
  db()
    .select({ doc: bayFloors.doc })
    .from(bayFloors)
    .orderBy(bayFloors.bay)
    .all()
    .map((r) => r.doc)
    .filter((f) => bayFloorAge(f, now) <= BAY_FLOOR_DAYS);

/**
 * Keeps the floor that was read on a job as the floor of its bay. @throws Refusal naming the field
 */
export function keepBayFloor(jobId: string, name: string, person: Person): void {
  const bay = name.trim();
  if (bay.length < 2 || bay.length > 40)
    throw new Refusal("Bay: name it in two to forty letters, such as Bay 1.");
  const job = findJob(jobId);
  if (!job) throw new Refusal("There is no such job. Go back to the list.");
  const events = eventsAfter(jobId);
  const item = itemsOf(viewsOf(job.ground)[0]!, "ready").find((i) => i.measure?.kind === "floor");
  const measured = item && measuredOf(events).get(item.id);
  if (!measured || measured.body.bay)
    throw new Refusal("Floor: read it on this job first, then keep it for the bay.");
  const standX = bayStandX(job.ground, events);
  if (standX === null)
    throw new Refusal("Floor: a bay keeps the floor of a stand that stands ahead of the vehicle.");
  const doc = asBayFloor(bay, measured.at, measured.body.values, job.ground.vehicle, standX);
  if (!doc) throw new Refusal("Floor: it was not read at all four tyres and at the stand.");
  db().transaction(() => {
    db().delete(bayFloors).where(eq(bayFloors.bay, bay)).run();
    db().insert(bayFloors).values({ bay, doc, personId: person.id }).run();
    noteShop(person, {
      kind: "kit",
      item: bay,
      what: `floor kept, read ${measured.at.slice(0, 10)}`,
    });
  });
}
