import { eq } from "drizzle-orm";
import { z } from "zod";
import { plainly, problemsIn } from "@/core/book";
import { baySchema, type Bay } from "@/core/space/bay";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { plainFile } from "../book/file-text";
import { db } from "../db/client";
import { settings } from "../db/schema";
import { noteShop } from "../log/shop";

const KEY = "bays";

/** A file of bays that cannot be taken. The message names each place and its remedy. */
export class BaysRefusal extends Refusal {
  override readonly name = "BaysRefusal";
}

const FORMAT = "iridel.bays/1";
const fileSchema = z.object({
  format: z.literal(FORMAT),
  bays: z
    .array(baySchema)
    .min(1)
    .max(40)
    .refine((bays) => new Set(bays.map((b) => b.id)).size === bays.length, "one id is used twice"),
});

/** The shop's bays, in its own order. */
export function shopBays(): Bay[] {
  const row = db().select().from(settings).where(eq(settings.key, KEY)).get();
  return row ? z.array(baySchema).parse(row.value) : [];
}

export function keepBays(bays: Bay[]): void {
  db()
    .insert(settings)
    .values({ key: KEY, value: bays })
    .onConflictDoUpdate({ target: settings.key, set: { value: bays } })
    .run();
}

/** Takes a file of bays in the place of those that were there. @returns how many @throws BaysRefusal */
export function takeBays(text: string, person: Person): number {
  let json: unknown;
  try {
    json = JSON.parse(plainFile(text));
  } catch {
    throw new BaysRefusal("file: is no JSON. Export the bays, change that file, and take it in.");
  }
  const read = fileSchema.safeParse(json, plainly);
  if (!read.success)
    throw new BaysRefusal(
      problemsIn(read.error, "file")
        .map((p) => `${p.field}: ${p.message}`)
        .join("\n"),
    );
  const { bays } = read.data;
  db().transaction(() => {
    keepBays(bays);
    noteShop(person, { kind: "kit", item: "bays", what: `${bays.length} from a file` });
  });
  return bays.length;
}

/** The shop's bays as a file. */
export const baysFile = (): string =>
  `${JSON.stringify({ format: FORMAT, bays: shopBays() }, null, 2)}\n`;
