import { eq } from "drizzle-orm";
import { z } from "zod";
import { db } from "../db/client";
import { settings } from "../db/schema";

/** The shop as it stands at the head of its reports. */
export const letterheadSchema = z.object({
  name: z.string().trim().min(2, "Name of the shop: type at least two letters.").max(80),
  /** Up to four lines: street, place, telephone. */
  address: z
    .string()
    .trim()
    .max(240)
    .refine((a) => a.split("\n").length <= 4, "Address: four lines at most."),
});
export type Letterhead = z.infer<typeof letterheadSchema>;

/** The row of the settings that keeps it. */
export const LETTERHEAD_KEY = "shop.letterhead";

/** Whose reports these are; null where nobody has said. */
export function letterhead(): Letterhead | null {
  const row = db().select().from(settings).where(eq(settings.key, LETTERHEAD_KEY)).get();
  return letterheadSchema
    .nullable()
    .catch(null)
    .parse(row?.value ?? null);
}
