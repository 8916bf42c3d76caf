import type { Card } from "@/core/schedule/shop";
import { requestsOf, type LetterBefore } from "@/core/schedule/requests";
import { listSheets } from "../shop/store";
import { letterhead } from "../shop/letterhead";
import { shopDayOf } from "./build";

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
