import type { Card } from "@/core/schedule/shop";
import { requestsOf, type LetterBefore } from "@/core/schedule/requests";
import { listSheets } from "../shop/store";
import { letterhead } from "../shop/letterhead";
import { shopDay } from "../shop/clock";
import { shopDayOf } from "./build";
import { findBooking } from "./store";

/** A card of a day; null where there is none. */
export const cardOn = (day: string, id: string): Card | null =>
  shopDayOf(day).cards.find((c) => c.id === id) ?? null;

/** What is written to whoever brings a vehicle. */
export function letterBefore(day: string, id: string): LetterBefore | null {
  const card = cardOn(day, id);
  if (!card) return null;
  const { vehicle, happenings, asks, place } = card;
  return {
    shop: letterhead()?.name ?? "",
    day,
    card,
    requests: requestsOf(listSheets(), vehicle, { happenings, asks, away: place === "van" }),
  };
}

/** The same for whoever has the link of a booking; null once its day is over or it is taken in. */
export function letterForKeeper(id: string): LetterBefore | null {
  const had = findBooking(id);
  if (!had || had.jobId !== null || had.day < shopDay()) return null;
  return letterBefore(had.day, `booking:${id}`);
}
