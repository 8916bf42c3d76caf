import { eq } from "drizzle-orm";
import { z } from "zod";
import { FIRST_ZONE, timesIn, type Times } from "@/core/units";
import { db } from "../db/client";
import { settings } from "../db/schema";

/** Where the shop's clock hangs, and the day its week begins with: 0 Sunday, 1 Monday. */
const clockSchema = z.object({
  zone: z.string().refine((zone) => {
    try {
      return Boolean(timesIn(zone));
    } catch {
      return false;
    }
  }, "No time zone has this name; choose one from the list, such as Europe/London."),
  firstDay: z.number().int().min(0).max(6),
});
export type ShopClock = z.infer<typeof clockSchema>;
export { clockSchema };

/** The row of the settings that keeps it. */
export const CLOCK_KEY = "shop.clock";

/** The shop's zone and first day of the week. */
export function shopClock(): ShopClock {
  const row = db().select().from(settings).where(eq(settings.key, CLOCK_KEY)).get();
  return clockSchema.catch({ zone: FIRST_ZONE, firstDay: 1 }).parse(row?.value);
}

/** The formatter of the shop's own zone. */
export const shopTimes = (): Times => timesIn(shopClock().zone);
/** The calendar day in the shop, YYYY-MM-DD. @param at ISO time */
export const shopDay = (at = new Date().toISOString()): string => shopTimes().day(at);
