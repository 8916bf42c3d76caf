import { expose } from "comlink";
import { planShop, proposed, type ShopPlan } from "@/core/schedule/plan-shop";
import type { Card, ShopDay } from "@/core/schedule/shop";
import { DayError } from "@/core/schedule/types";
import type { Bay } from "@/core/space/bay";

/** A plan, or in words why there is none. */
export type Planned = { plan: ShopPlan; problem: null } | { plan: null; problem: string };

function plan(shop: ShopDay, bays: readonly Bay[]): Planned {
  try {
    return { plan: planShop(shop, bays), problem: null };
  } catch (error) {
    if (error instanceof DayError) return { plan: null, problem: error.message };
    throw error;
  }
}

// Thousands of orders of a day: beside the page, so that the page stays quick.
const day = {
  plan,
  /** When one more can be promised for; null where the day cannot be planned with it. */
  propose: (shop: ShopDay, bays: readonly Bay[], card: Card) => {
    const { plan: is } = plan({ ...shop, cards: [...shop.cards, card] }, bays);
    return is && proposed(is, card.id);
  },
};
export type DayWorker = typeof day;
expose(day);
