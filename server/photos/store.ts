import { createHash } from "node:crypto";
import { eq } from "drizzle-orm";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { photos } from "../db/schema";
import { preparePhoto } from "./prepare";

/** What a tablet is told of a photo it sent. */
export type KeptPhoto = { photo: string; width: number; height: number; takenAt: string | null };

/**
 * Keeps a photo in the database under the hash of what is kept, so that the same picture sent twice
 * is there once and no name from outside ever reaches a path. One insert: either all of it is there
 * or nothing.
 *
 * @throws PhotoRefusal
 */
export async function keepPhoto(bytes: Buffer, person: Person): Promise<KeptPhoto> {
  const { jpeg, width, height, takenAt } = await preparePhoto(bytes);
  const photo = createHash("sha256").update(jpeg).digest("hex");
  db()
    .insert(photos)
    .values({
      hash: photo,
      jpeg,
      width,
      height,
      takenAt,
      keptAt: new Date().toISOString(),
      personId: person.id,
    })
    .onConflictDoNothing()
    .run();
  return { photo, width, height, takenAt };
}

/** The kept JPEG, or null. */
export const photoBytes = (hash: string): Buffer | null =>
  db().select({ jpeg: photos.jpeg }).from(photos).where(eq(photos.hash, hash)).get()?.jpeg ?? null;

export const photoExists = (hash: string): boolean =>
  db().select({ hash: photos.hash }).from(photos).where(eq(photos.hash, hash)).get() !== undefined;
