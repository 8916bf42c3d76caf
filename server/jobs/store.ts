import { eq } from "drizzle-orm";
import type { JobGround } from "@/core/job";
import { db } from "../db/client";
import { jobs } from "../db/schema";

export type JobRow = {
  id: string;
  number: number;
  createdAt: string;
  ground: JobGround;
  seed: string;
  head: number;
  updatedAt: string;
};

export const findJob = (id: string): JobRow | null =>
  db().select().from(jobs).where(eq(jobs.id, id)).get() ?? null;

/** The job with a number of the shop, or null. */
export const findJobByNumber = (number: number): JobRow | null =>
  db().select().from(jobs).where(eq(jobs.number, number)).get() ?? null;
