import { randomFrom, seedFrom, type Random } from "@/core/math/random";
import type { Bay } from "@/core/space/bay";
import { isRoomy, roomIn } from "@/core/space/room";
import { holdsBy, outlooksOf, type Outlook } from "./promise";
import { dayOf, type Card, type Fits, type ShopDay } from "./shop";
import { planDay } from "./solve";
import { DayError, type Day, type Plan } from "./types";
import { brokenOf, waysOut, type Broken, type WayOut } from "./why";

/** What the day comes to. */
export type ShopPlan = {
  day: Day;
  plan: Plan;
  outlooks: Outlook[];
  broken: (Broken & { ways: WayOut[] })[];
  /** Cards of which all fits into no bay at one place or more; they are planned into any. */
  unfit: string[];
  /** Cards that cannot be had this day at all, and why. */
  leftOut: { card: string; words: string }[];
};

/**
 * At how many places of a bay all of a card fits is looked for once for each vehicle, set of needs and
 * bay; 0 where it does not.
 */
const known = new Map<string, number>();
const MOST_KNOWN = 2000;

function placesIn(card: Card, bay: Bay): number {
  const { id, version } = card.vehicle;
  const key = JSON.stringify([id, version, card.asks, bay]);
  let is = known.get(key);
  if (is === undefined) {
    const places = card.asks.length === 0 ? [] : roomIn(bay, card.vehicle, card.asks, true);
    is = places.every(isRoomy) ? Math.max(1, places.length) : 0;
    if (known.size > MOST_KNOWN) known.clear();
    known.set(key, is);
  }
  return is;
}

/** The bays that take a card at the fewest places: turning a vehicle about costs more than waiting. */
function fitsOf(card: Card, bays: readonly Bay[]): Fits {
  if (card.place === "van") return { bays: [], places: 1 };
  const each = bays
    .map((b) => ({ id: b.id, places: placesIn(card, b) }))
    .filter((b) => b.places > 0);
  const places = Math.min(...each.map((b) => b.places));
  return each.length === 0
    ? { bays: [], places: 1 }
    : { bays: each.filter((b) => b.places === places).map((b) => b.id), places };
}

/** Broken promises whose ways out are worked out; more are only named. */
const MOST_WAYS = 3;

/**
 * Plans a shop's day: into which bays each job fits, when everything is done, how likely each promise
 * holds, and what breaks one.
 *
 * @throws DayError naming what lacks
 */
export function planShop(shop: ShopDay, bays: readonly Bay[]): ShopPlan {
  if (bays.length === 0) throw new DayError("The shop has no bays yet: write one down under Bays.");
  const fits = new Map(shop.cards.map((c) => [c.id, fitsOf(c, bays)]));
  const unfit = shop.cards.filter((c) => c.place === "shop" && fits.get(c.id)!.bays.length === 0);
  for (const c of unfit) fits.set(c.id, { bays: bays.map((b) => b.id), places: 1 });
  // Set into a bay by hand: whoever does so answers for it.
  for (const c of shop.cards)
    for (const pin of Object.values(c.pins))
      if (pin?.bay && !fits.get(c.id)!.bays.includes(pin.bay)) {
        const bay = bays.find((b) => b.id === pin.bay);
        if (!bay) continue;
        fits.set(c.id, { bays: [pin.bay], places: Math.max(1, placesIn(c, bay)) });
      }
  const random = randomFrom(seedFrom(`${shop.day}/plan`));
  const whole = dayOf(shop, (c) => fits.get(c.id)!);
  const { day, plan, leftOut } = asMuchAs(whole, random);
  const broken = brokenOf(day, plan);
  return {
    day,
    plan,
    outlooks: outlooksOf(day, plan, randomFrom(seedFrom(`${shop.day}/days`))),
    broken: broken.map((b, i) => ({
      ...b,
      ways: i < MOST_WAYS ? waysOut(day, plan, b, random) : [],
    })),
    unfit: unfit.map((c) => c.id),
    leftOut,
  };
}

/** The plan of all that can be had that day: one that cannot is left out, and the others are not held up. */
function asMuchAs(whole: Day, random: Random): Pick<ShopPlan, "day" | "plan" | "leftOut"> {
  const leftOut: ShopPlan["leftOut"] = [];
  for (let day = whole; ;) {
    try {
      return { day, plan: planDay(day, random), leftOut };
    } catch (error) {
      if (!(error instanceof DayError) || error.job === null) throw error;
      const { job, message } = error;
      leftOut.push({ card: job, words: message });
      day = { ...day, jobs: day.jobs.filter((j) => j.id !== job) };
    }
  }
}

/** A time to promise goes up to the next of these, minutes. */
const ROUND_MIN = 10;

/**
 * When something that is not promised yet can be promised for, so that it holds nine times in ten.
 *
 * @returns null where the card is not planned, or too often cannot be had that day
 */
export function proposed(plan: ShopPlan, card: string): { atMin: number; chance: number } | null {
  const outlook = plan.outlooks.find((o) => o.job === card);
  // Where its hours are often over before it comes to it, no time can be promised.
  if (!outlook || outlook.ninetyMin === Infinity) return null;
  const atMin = Math.ceil(outlook.ninetyMin / ROUND_MIN) * ROUND_MIN;
  return { atMin, chance: holdsBy(outlook, atMin) };
}
