import { clockOf } from "@/core/units/minute";
import { formatChance } from "@/core/units";
import type { Card, Part, ShopDay } from "@/core/schedule/shop";
import type { Broken, WayOut } from "@/core/schedule/why";

/** What a part of a job is called on the board. */
export const PART_WORDS: Record<Part, string> = {
  glass: "Glass",
  bay: "Calibrate",
  cure: "Cures",
  road: "Drive",
  prove: "Prove",
};

export const nameOf = (shop: ShopDay, id: string): string => {
  const card = shop.cards.find((c) => c.id === id);
  return card ? callOf(card) : id;
};

/** A vehicle and whose it is, as one speaks of it. */
export const callOf = (card: Card): string => `${card.title}, ${card.customer}`;

/** Why a promise breaks, in one sentence. */
export function causeWords(shop: ShopDay, { cause }: Broken): string {
  switch (cause.kind) {
    case "work":
      return "Its own work takes longer than there is time.";
    case "idle":
      return `It is there since ${clockOf(cause.sinceMin)}, and nobody has begun it.`;
    case "hours":
      return `It can go on at ${clockOf(cause.fromMin)} only: a break, or hours that suit.`;
    case "bay":
    case "person":
    case "thing":
      return `It waits for ${cause.name} until ${clockOf(cause.untilMin)}: ${nameOf(shop, cause.heldBy)} has it.`;
  }
}

/** What can be done about it, in one sentence. */
export function wayWords(shop: ShopDay, broken: Broken, way: WayOut): string {
  const promised = (id: string): number => shop.cards.find((c) => c.id === id)?.promiseMin ?? 0;
  const minutes = Math.ceil(way.minutes);
  switch (way.kind) {
    case "call":
      return `Call ${shop.cards.find((c) => c.id === broken.job)?.customer}: ${clockOf(broken.endMin)} instead of ${clockOf(promised(broken.job))}.`;
    case "call-other":
      return `Call ${shop.cards.find((c) => c.id === way.name)?.customer}: ${clockOf(promised(way.name) + minutes)} instead of ${clockOf(promised(way.name))}, and this one first.`;
    case "earlier":
      return `Have it brought ${minutes} min earlier.`;
    case "another-thing":
      return `With a second ${way.name} it is less late.`;
    case "another-person":
      return "With one person more it is less late.";
    case "another-bay":
      return "With one bay more it is less late.";
  }
}

export const chanceWords = (chance: number | null): string =>
  chance === null ? "not promised" : `holds with ${formatChance(chance)}`;
