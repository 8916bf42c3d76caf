import { eq, max } from "drizzle-orm";
import { upcastGround, type JobGround, type StoredGround } from "@/core/job";
import { installFloorSlots } from "@/core/setout/floor-slots";
import { db } from "../db/client";
import { jobs } from "../db/schema";

installFloorSlots();

export type JobRow = {
  id: string;
  number: number;
  createdAt: string;
  ground: JobGround;
  seed: string;
  head: number;
  updatedAt: string;
};

/** A job as it lies in the database. */
type StoredJob = Omit<JobRow, "ground"> & { ground: StoredGround };

const read = (row: StoredJob | undefined): JobRow | null =>
  row ? { ...row, ground: upcastGround(row.ground) } : null;

export const findJob = (id: string): JobRow | null =>
  read(db().select().from(jobs).where(eq(jobs.id, id)).get());

/** The number of the job that was opened last; 0 in a shop without jobs. */
export const newestNumber = (): number =>
  db()
    .select({ n: max(jobs.number) })
    .from(jobs)
    .get()?.n ?? 0;

/** The job with a number of the shop, or null. */
export const findJobByNumber = (number: number): JobRow | null =>
  read(db().select().from(jobs).where(eq(jobs.number, number)).get());
