import type { Happening } from "@/core/owed";
import type { RoomAsk } from "@/core/space/room";
import type { Vehicle } from "@/core/vehicle";
import { paceOf, type Sample } from "./durations";
import type { DayRules } from "./rules";
import type { Day, DayJob, DayPerson, DayTask } from "./types";

/** The parts a job's day has, in the order in which they are done. */
export const PARTS = ["glass", "bay", "cure", "road", "prove"] as const;
export type Part = (typeof PARTS)[number];

export type Pin = {
  startMin?: number | undefined;
  bay?: string | undefined;
  person?: string | undefined;
};

/** What the day has of one vehicle: a job that is there, or one that is booked. */
export type Card = {
  id: string;
  kind: "job" | "booking";
  /** The vehicle and whose it is. */
  title: string;
  customer: string;
  plate: string;
  /** What is done to it, in words and as what it is. */
  done: string;
  happenings: readonly Happening[];
  /** What its keeper said before it came. */
  said: Readonly<Record<string, string>>;
  arriveMin: number;
  promiseMin: number | null;
  /** Where it is done: here, or where the customer has it. */
  place: "shop" | "van";
  vehicle: Vehicle;
  /** What each calibration in the bay needs about the vehicle. */
  asks: RoomAsk[];
  glass: boolean;
  /** When the adhesive lets it be driven; null where none cures, or it is not set yet. */
  curedMin: number | null;
  /** `things`: for everything it takes those that serve. */
  bay: { minutes: number; things: string[][]; method: string } | null;
  road: {
    minutes: number;
    things: string[][];
    method: string;
    windows: [number, number][] | null;
  } | null;
  /** Minutes that were spent on a part already. */
  spentMin: Partial<Record<Part, number>>;
  /** What is over, and when. */
  over: Partial<Record<Part, number>>;
  /** What has begun, when, and who is at it. */
  begun: {
    part: Part;
    startMin: number;
    /** When something was last written of it, and by whom. */
    lastMin: number;
    by: string;
    bay: string | null;
    things: string[];
  } | null;
  pins: Partial<Record<Part, Pin>>;
  /** The bay its vehicle was said to stand in, and when; null where nobody said, or it is done there. */
  standsIn: { bay: string; sinceMin: number } | null;
};

export type ShopDay = {
  /** Calendar day at the shop, ISO. */
  day: string;
  nowMin: number;
  rules: DayRules;
  people: { id: string; name: string }[];
  bays: { id: string; name: string }[];
  /** What the things of the kit are called, by what they go by in a plan. */
  kit: Record<string, string>;
  cards: Card[];
  samples: Sample[];
};

/**
 * Nobody is at two jobs at once: of what somebody has begun, that which he wrote of last goes on, and the
 * rest was left off and is to be taken up again, by whoever is free.
 */
export function leftOff(cards: readonly Card[]): Card[] {
  const last = new Map<string, Card>();
  for (const c of cards) {
    const other = c.begun && last.get(c.begun.by);
    if (c.begun && (!other || other.begun!.lastMin < c.begun.lastMin)) last.set(c.begun.by, c);
  }
  return cards.map((c) => (c.begun && last.get(c.begun.by) !== c ? { ...c, begun: null } : c));
}

/** The card whose vehicle stands in each bay: the one of which it was said last. */
function standingIn(cards: readonly Card[]): Map<string, string> {
  const last = new Map<string, Card>();
  for (const c of cards) {
    if (!c.standsIn) continue;
    const other = last.get(c.standsIn.bay);
    if (!other || other.standsIn!.sinceMin < c.standsIn.sinceMin) last.set(c.standsIn.bay, c);
  }
  return new Map([...last].map(([bay, c]) => [c.id, bay]));
}

/** People with their hours that day; those who are away are left out. */
const peopleOf = ({ people, rules }: ShopDay): DayPerson[] =>
  people.flatMap((p) => {
    const own = rules.people[p.id];
    if (own === null) return [];
    const { fromMin, toMin } = own ?? rules;
    return [{ ...p, fromMin, toMin, breaks: rules.rest ? [rules.rest] : [] }];
  });

/** Bays in which all of a card fits, and at how many places of one it stands one after another. */
export type Fits = { bays: readonly string[]; places: number };

/** Of what was begun and left off this share is always left: one has to find one's way into it again. */
const LEAST_LEFT = 0.3;

/** Minutes a part still takes; what goes on counts from its beginning. */
const leftOf = ({ begun, spentMin }: Card, part: Part, minutes: number): number =>
  begun?.part === part ? minutes : Math.max(LEAST_LEFT * minutes, minutes - (spentMin[part] ?? 0));

/** A card as tasks one after another. */
function jobOf(
  shop: ShopDay,
  card: Card,
  { bays: fits, places }: Fits,
  held: Set<string>,
  stands: string | undefined,
): DayJob {
  const { rules, samples } = shop;
  const everybody = shop.people.map((p) => p.id);
  const inShop = card.place === "shop";
  const task = (
    part: Part,
    minutes: number,
    kind: DayTask["kind"],
    of: Sample["part"],
    method: string,
    more: Partial<DayTask>,
  ): DayTask => {
    const pace = (person: string | null) => paceOf(samples, { part: of, method, person });
    const shopPace = pace(null);
    const own = everybody.map((p): [string, number] => [p, pace(p).factor / shopPace.factor]);
    const begun = card.begun?.part === part ? card.begun : null;
    const pin = card.pins[part];
    return {
      id: part,
      kind,
      minutes: kind === "cure" ? minutes : Math.max(1, Math.round(minutes * shopPace.factor)),
      spread: kind === "cure" ? 0.02 : shopPace.spread,
      pace: kind === "cure" ? {} : Object.fromEntries(own),
      stay: null,
      bays: [],
      people: [everybody],
      things: [],
      windows: null,
      doneMin: card.over[part] ?? null,
      begun: begun && {
        startMin: begun.startMin,
        bay: begun.bay,
        people: everybody.includes(begun.by) ? [begun.by] : [],
        // What nobody has said it holds is taken to be one that no other is said to hold.
        things: (more.things ?? []).map((any) => {
          const own = any.find((x) => begun.things.includes(x));
          const one = own ?? any.find((x) => !held.has(x)) ?? any[0]!;
          held.add(one);
          return one;
        }),
      },
      pin: pin
        ? {
            ...(pin.startMin !== undefined ? { startMin: pin.startMin } : {}),
            ...(pin.bay !== undefined ? { bay: pin.bay } : {}),
            ...(pin.person !== undefined ? { person: pin.person } : {}),
          }
        : null,
      ...more,
    };
  };
  const stay = { stay: 0, bays: fits };
  const tasks: DayTask[] = [];
  if (!inShop) {
    // Everything is done on one trip: the van is away with whoever drives it.
    const minutes =
      2 * rules.travelMin +
      (card.glass ? rules.glassMin : 0) +
      (card.bay?.minutes ?? 0) +
      (card.road?.minutes ?? 0);
    const all = [["the van"], ...(card.bay?.things ?? []), ...(card.road?.things ?? [])];
    const things = all.filter((any, i) => all.findIndex((o) => o.join() === any.join()) === i);
    tasks.push(task("bay", minutes, "van", "bay", card.bay?.method ?? "static", { things }));
  } else {
    const calibrating = card.bay?.minutes ?? 0;
    if (card.glass) tasks.push(task("glass", rules.glassMin, "bay", "bay", "glass", { ...stay }));
    if (card.bay) {
      const { minutes, things, method } = card.bay;
      const all = leftOf(card, "bay", minutes + (places - 1) * rules.moveMin);
      tasks.push(task("bay", all, "bay", "bay", method, { ...stay, things }));
    }
    // It cures while it is calibrated; what is left of that it stands where it is.
    if (card.glass && rules.cureMin > calibrating)
      tasks.push(
        task("cure", rules.cureMin - calibrating, "cure", "bay", "cure", { ...stay, people: [] }),
      );
    if (card.road) {
      const { minutes, things, method, windows } = card.road;
      const cured = card.curedMin;
      tasks.push(
        task("road", leftOf(card, "road", minutes), "road", "road", method, {
          things,
          people:
            rules.secondOnDrive && everybody.length > 1 ? [everybody, everybody] : [everybody],
          windows:
            cured !== null
              ? (windows ?? [[0, 2880]]).map(([a, b]): [number, number] => [Math.max(a, cured), b])
              : windows,
        }),
      );
    }
  }
  tasks.push(task("prove", rules.proveMin, "desk", "desk", "prove", {}));
  return {
    id: card.id,
    name: `${card.title}, ${card.customer}`,
    arriveMin: card.arriveMin,
    promiseMin: card.promiseMin,
    ...(stands ? { standsIn: stands } : {}),
    tasks,
  };
}

/**
 * A shop's day as it can be planned.
 *
 * @param fitsOf bays in which all of a card fits; a bay it is set into by hand counts as well
 */
export function dayOf(shop: ShopDay, fitsOf: (card: Card) => Fits): Day {
  const held = new Set(shop.cards.flatMap((c) => c.begun?.things ?? []));
  const standing = standingIn(shop.cards);
  return {
    nowMin: shop.nowMin,
    people: peopleOf(shop),
    bays: shop.bays,
    jobs: shop.cards.map((c) => {
      // Set into another bay by hand, it is driven there.
      const byHand = Object.values(c.pins).some((pin) => pin?.bay);
      const there = standing.get(c.id);
      const stands = byHand || !shop.bays.some((b) => b.id === there) ? undefined : there;
      const fits = fitsOf(c);
      const bays = [
        ...new Set([
          ...fits.bays,
          ...(c.begun?.bay ? [c.begun.bay] : []),
          ...(stands ? [stands] : []),
        ]),
      ];
      return jobOf(shop, c, { ...fits, bays }, held, stands);
    }),
  };
}
