import { eq } from "drizzle-orm";
import { z } from "zod";
import { junctionFields, roadFields, roadPlace } from "@/core/drive/road";
import { db } from "../db/client";
import { settings } from "../db/schema";

const KEY = "roads";

/** The roads a shop knows, and where on them it stands. */
const shopRoadsSchema = z.object({
  shop: roadPlace,
  roads: z.array(
    roadFields.extend({ id: z.string().min(1).max(40), points: z.array(roadPlace).min(2) }),
  ),
  junctions: z.array(junctionFields.extend({ at: roadPlace })),
});
export type ShopRoads = z.infer<typeof shopRoadsSchema>;

/** Null in a shop that has none yet. */
export function shopRoads(): ShopRoads | null {
  const row = db().select().from(settings).where(eq(settings.key, KEY)).get();
  return row ? shopRoadsSchema.parse(row.value) : null;
}

export function keepRoads(roads: ShopRoads): void {
  db()
    .insert(settings)
    .values({ key: KEY, value: roads })
    .onConflictDoUpdate({ target: settings.key, set: { value: roads } })
    .run();
}
