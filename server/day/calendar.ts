import { randomBytes, timingSafeEqual } from "node:crypto";
import { eq } from "drizzle-orm";
import { createEvents, type EventAttributes } from "ics";
import { z } from "zod";
import type { Forecast } from "@/core/drive/forecast";
import { planShop } from "@/core/schedule/plan-shop";
import type { Part } from "@/core/schedule/shop";
import { DayError } from "@/core/schedule/types";
import { hashOf } from "../auth/session";
import { shopBays } from "../bays/store";
import { db } from "../db/client";
import { settings } from "../db/schema";
import { shopDay } from "../shop/clock";
import { shopDayOf, utcOf, weatherOn } from "./build";

const KEY = "day.calendar";
const AHEAD_DAYS = 7;
const DAY_MS = 86_400_000;

/** What a part of a job is called in a calendar. */
const PART_NAMES: Record<Part, string> = {
  glass: "glass",
  bay: "calibration",
  cure: "adhesive cures",
  road: "drive",
  prove: "prove and give back",
};

/** The key of the shop's calendar; made when it is first asked for. */
export function calendarKey(): string {
  const row = db().select().from(settings).where(eq(settings.key, KEY)).get();
  const kept = z.string().safeParse(row?.value);
  if (kept.success) return kept.data;
  const key = randomBytes(24).toString("base64url");
  db().insert(settings).values({ key: KEY, value: key }).run();
  return key;
}

/** Makes the key anew: calendars that know the old one get nothing more. */
export function newCalendarKey(): string {
  db().delete(settings).where(eq(settings.key, KEY)).run();
  return calendarKey();
}

export function isCalendarKey(given: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(calendarKey())];
  return a.length === b.length && timingSafeEqual(a, b);
}

/**
 * The plan of some days as an iCalendar (RFC 5545): one entry for each part of each job. It names no
 * customer: a calendar is seen by more people than the shop's own.
 *
 * @param person only what this person does; everybody's where it is null
 */
export async function calendarText(
  from: string,
  days: number,
  person: string | null,
): Promise<string> {
  const bays = shopBays();
  const eventsOn = (day: string, forecast: Forecast | null): EventAttributes[] => {
    const shop = shopDayOf(day, forecast);
    if (shop.cards.length === 0 || bays.length === 0) return [];
    try {
      const { plan } = planShop(shop, bays);
      return plan.placed
        .filter((p) => person === null || p.people.includes(person))
        .map((p): EventAttributes => {
          const card = shop.cards.find((c) => c.id === p.job)!;
          const name = bays.find((b) => b.id === p.bay)?.name;
          const who = p.people.map((id) => shop.people.find((x) => x.id === id)!.name);
          return {
            // The name of a booking opens its letter: a calendar gets another.
            uid: `${hashOf(`${day}/${p.job}/${p.task}`).slice(0, 24)}@iridel`,
            title: `${card.title}${card.plate ? `, ${card.plate}` : ""}: ${PART_NAMES[p.task as Part]}`,
            start: utcOf(day, p.startMin),
            end: utcOf(day, p.endMin),
            startInputType: "utc",
            endInputType: "utc",
            ...(name ? { location: name } : {}),
            description: who.join(", "),
            calName: "Iridel",
            productId: "iridel/day",
          };
        });
    } catch (error) {
      if (error instanceof DayError) return [];
      throw error;
    }
  };
  const events: EventAttributes[] = [];
  for (let n = 0; n < days; n++) {
    const day = new Date(Date.parse(from) + n * DAY_MS).toISOString().slice(0, 10);
    events.push(...eventsOn(day, await weatherOn(day)));
  }
  const { error, value } = createEvents(events, { calName: "Iridel", productId: "iridel/day" });
  if (error || !value) throw error ?? new Error("The calendar could not be written.");
  return value;
}

/** What a subscription is given: today and the days after it. */
export const subscribedText = (person: string | null): Promise<string> =>
  calendarText(shopDay(), AHEAD_DAYS, person);
