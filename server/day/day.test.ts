import { eq } from "drizzle-orm";
import ICAL from "ical.js";
import { beforeAll, describe, expect, it } from "vitest";
import { keepBays } from "@/server/bays/store";
import { faultsOf } from "@/core/schedule/check";
import { planShop, proposed } from "@/core/schedule/plan-shop";
import { dayOf, leftOff } from "@/core/schedule/shop";
import { BAYS } from "@/demo/data/bays";
import { toolsOn } from "@/demo/data/kit";
import { INES, openTestShop } from "@/tests/shop-database";
import { shopBays } from "../bays/store";
import { draftCard, shopDayOf } from "./build";
import { calendarKey, calendarText, isCalendarKey, newCalendarKey } from "./calendar";
import { db } from "../db/client";
import { boards, scanTools } from "../db/schema";
import { checkStand, listBoards } from "../kit/store";
import { shopDay } from "../shop/clock";
import { pickedFor } from "./kit-needs";
import { remindersFor } from "./reminders";
import { letterBefore, letterForKeeper } from "./paper";
import { dayRules, dropBooking, keepBooking, keepDayRules, keepPin, keepSaid } from "./store";

const DAY = "2031-03-04";
const booking = {
  customer: "Kit Lowe",
  plate: "SK 808 K",
  vehicleId: "norvane-lisse",
  happenings: [{ event: "glass-out", place: "windshield" }],
  place: "shop",
  arriveMin: 540,
  promiseMin: 900,
};
const book = (more: object = {}): string =>
  keepBooking({ id: null, day: DAY, booking: { ...booking, ...more } }, INES);

beforeAll(() => {
  openTestShop();
  keepBays(BAYS);
});

describe("a day of the shop", () => {
  it("is planned from what is booked: glass first, the calibration in the same bay, then the rest", () => {
    const id = book();
    const shop = shopDayOf(DAY);
    const { day, plan, unfit } = planShop(shop, shopBays());
    expect(unfit).toEqual([]);
    expect(faultsOf(day, plan.placed)).toEqual([]);
    const own = plan.placed.filter((p) => p.job === `booking:${id}`);
    expect(own.map((p) => p.task)).toEqual(["glass", "bay", "cure", "prove"]);
    expect(new Set(own.slice(0, 3).map((p) => p.bay)).size).toBe(1);
    expect(own[0]!.startMin).toBe(540);
    // One more can be promised for when nine days in ten it is done by then.
    const draft = draftCard({ ...booking, customer: "B", arriveMin: 600, promiseMin: null });
    const both = planShop({ ...shop, cards: [...shop.cards, draft] }, shopBays());
    const offer = proposed(both, draft.id)!;
    expect(offer.chance).toBeGreaterThanOrEqual(0.9);
    expect(offer.atMin % 10).toBe(0);
    expect(offer.atMin).toBeGreaterThan(own.at(-1)!.endMin - 60);
    dropBooking(id);
    expect(shopDayOf(DAY).cards).toEqual([]);
    expect(() => dropBooking(id)).toThrow(/gone already/);
  });
  it("keeps what is set by hand until it is let go", () => {
    const id = book();
    const card = `booking:${id}`;
    keepPin({ day: DAY, card, part: "bay", pin: { startMin: 780 } });
    keepPin({ day: DAY, card, part: "glass", pin: { bay: "bay-1" } });
    const start = (): number =>
      planShop(shopDayOf(DAY), shopBays()).plan.placed.find((p) => p.task === "bay")!.startMin;
    expect(start()).toBe(780);
    keepPin({ day: DAY, card, part: "bay", pin: null });
    expect(start()).toBeLessThan(700);
    expect(shopDayOf(DAY).cards[0]!.pins).toEqual({ glass: { bay: "bay-1" } });
    expect(() => keepPin({ day: DAY, card, part: "paint", pin: null })).toThrow(/^part: /);
    dropBooking(id);
  });
  it("names what is wrong in a booking and in the hours, and keeps what was there", () => {
    const wrong: [object, RegExp][] = [
      [{ customer: " " }, /^customer: name the customer/],
      [{ happenings: [] }, /^what is to be done: say what is to be done/],
      [{ promiseMin: 500 }, /^promised for: must be after it arrives/],
      [{ arriveMin: 1500 }, /^arrives: /],
    ];
    for (const [more, words] of wrong) expect(() => book(more)).toThrow(words);
    expect(() => draftCard({ ...booking, vehicleId: "none" })).toThrow(/no such vehicle/);
    const before = dayRules();
    expect(() => keepDayRules({ ...before, toMin: 100 }, INES)).toThrow(/must end after/);
    expect(() => keepDayRules({ ...before, cureMin: "long" }, INES)).toThrow(
      /^until its adhesive lets it be driven: /,
    );
    expect(dayRules()).toEqual(before);
    expect(shopDayOf(DAY).cards).toEqual([]);
  });
  it("leaves out what cannot be had that day by name, and plans the rest", () => {
    const [id, other] = [book(), book({ customer: "B" })];
    const shop = shopDayOf(DAY);
    const night: [number, number][] = [[0, 300]];
    const cards = shop.cards.map((c) =>
      c.id === `booking:${id}`
        ? { ...c, road: { things: [], minutes: 20, method: "dynamic", windows: night } }
        : c,
    );
    const { plan, leftOut } = planShop({ ...shop, cards }, shopBays());
    expect(leftOut.map((l) => l.card)).toEqual([`booking:${id}`]);
    expect(leftOut[0]!.words).toMatch(/its hours are over for today/);
    expect(new Set(plan.placed.map((p) => p.job))).toEqual(new Set([`booking:${other}`]));
    dropBooking(id);
    dropBooking(other);
  });
  it("takes up a stand that carries what the sheet has standing, and a scan tool that serves", () => {
    const id = book();
    const card = shopDayOf(DAY).cards.find((c) => c.id === `booking:${id}`)!;
    const [boards, stands, tools] = card.bay!.things;
    expect(boards).toHaveLength(1);
    // The reflector's stand is too low for a board, and a tool whose software is out serves nobody.
    expect(stands!.length).toBeGreaterThanOrEqual(2);
    expect(stands).not.toContain("S-4");
    expect(tools).toBeUndefined();
    for (const doc of toolsOn(DAY)) db().insert(scanTools).values({ id: doc.id, doc }).run();
    const again = shopDayOf(DAY).cards.find((c) => c.id === card.id)!;
    expect(again.bay!.things.at(-1)).toEqual(["D-1", "D-3"]);
    // One that is registered with no gateway serves none that has one.
    const van = draftCard({ ...booking, vehicleId: "tesmar-harrow" });
    expect(van.bay!.things.at(-1)).toEqual(["D-1"]);
    expect(pickedFor(DAY, again).map((any) => any.map((x) => x.code))).toEqual(again.bay!.things);
    // Not all of it at one place: the vehicle is stood elsewhere in between.
    const shop = shopDayOf(DAY);
    const minutes = (places: number): number =>
      dayOf(shop, () => ({ bays: ["bay-1"], places })).jobs[0]!.tasks.find((t) => t.id === "bay")!
        .minutes;
    expect(Math.abs(minutes(3) - minutes(1) - 2 * shop.rules.moveMin)).toBeLessThan(3);
    dropBooking(id);
  });
  it("goes on with what somebody wrote of last; what was left off before it is taken up again, shorter", () => {
    const [one, other] = [book(), book({ customer: "B" })];
    const shop = shopDayOf(DAY);
    const of = (id: string) => shop.cards.find((c) => c.id === `booking:${id}`)!;
    const begun = { part: "bay" as const, startMin: 560, by: INES.id, bay: "bay-1", things: [] };
    const cards = [
      { ...of(one), glass: false, begun: { ...begun, lastMin: 640 }, spentMin: { bay: 20 } },
      { ...of(other), glass: false, begun: { ...begun, lastMin: 600 }, spentMin: { bay: 20 } },
    ];
    const left = leftOff(cards);
    expect(left.map((c) => c.begun !== null)).toEqual([true, false]);
    expect(
      leftOff([cards[1]!, { ...cards[0]!, begun: { ...begun, by: "mara", lastMin: 640 } }]),
    ).toEqual([cards[1], { ...cards[0]!, begun: { ...begun, by: "mara", lastMin: 640 } }]);
    const minutes = dayOf({ ...shop, cards: left }, () => ({
      bays: ["bay-1"],
      places: 1,
    })).jobs.map((j) => j.tasks.find((t) => t.id === "bay")!.minutes);
    expect(minutes[0]! - minutes[1]!).toBeGreaterThan(15);
    for (const id of [one, other]) dropBooking(id);
  });
  it("keeps a bay for the vehicle that was last said to stand in it, unless it is set elsewhere by hand", () => {
    const [one, other] = [book(), book({ customer: "B" })];
    const shop = shopDayOf(DAY);
    const standing = (sinceMin: number) => ({ standsIn: { bay: "bay-1", sinceMin } });
    const cards = shop.cards.map((c) => ({
      ...c,
      ...standing(c.id === `booking:${one}` ? 500 : 520),
    }));
    const stands = (of: typeof cards): (string | undefined)[] =>
      dayOf({ ...shop, cards: of }, () => ({ bays: ["bay-2"], places: 1 })).jobs.map(
        (j) => j.standsIn,
      );
    const wanted = cards.map((c) => (c.id === `booking:${other}` ? "bay-1" : undefined));
    expect(stands(cards)).toEqual(wanted);
    const byHand = cards.map((c) => ({ ...c, pins: { bay: { bay: "bay-2" } } }));
    expect(stands(byHand)).toEqual([undefined, undefined]);
    for (const id of [one, other]) dropBooking(id);
  });
  it("reminds of what is due, away or closing, and of nothing that is not", () => {
    const id = book();
    const shop = shopDayOf(DAY);
    const said = (of = shop): string[] => remindersFor(of);
    expect(said().some((r) => /HQ-14|suit until|Zero/.test(r))).toBe(false);
    const board = listBoards().find((b) => shop.cards[0]!.bay!.things[0]!.includes(b.code))!;
    const lend = (more: object): void =>
      void db()
        .update(boards)
        .set({ doc: { ...board, ...more } })
        .where(eq(boards.code, board.code))
        .run();
    lend({ lentTo: "Brae Body Works", backOn: "2031-03-06" });
    expect(said()).toContain(
      `${board.code} is lent to Brae Body Works, back on 6 Mar 2031. Fetch it: Norvane Lisse wants it.`,
    );
    lend({ lentTo: "Brae Body Works", backOn: DAY });
    expect(said().join()).not.toContain("HQ-14 is lent");
    lend({});
    const road = (windows: [number, number][]) =>
      shop.cards.map((c) => ({
        ...c,
        road: { things: [], minutes: 30, method: "dynamic", windows },
      }));
    expect(said({ ...shop, cards: road([[400, 870]]) })).toContain(
      "Drives that suit until 14:30 only: Norvane Lisse, Kit Lowe.",
    );
    // The window after it is too short for the drive; the whole day is nothing to say.
    const short = said({
      ...shop,
      cards: road([
        [400, 870],
        [900, 920],
      ]),
    });
    expect(short.join()).toContain("until 14:30");
    expect(said({ ...shop, cards: road([[0, 1440]]) }).join()).not.toContain("suit until");
    // Today's stands are checked before the first job.
    const today = { ...shop, day: shopDay() };
    expect(said(today).find((r) => r.startsWith("Zero check"))).toMatch(/: S-1, S-2/);
    const at = { scale: 1000, rule: 1000, left: 600, right: 600, dot: 0 };
    checkStand("S-1", at, INES);
    expect(said(today).join()).toMatch(/S-1 has failed its zero check: .*off by/);
    dropBooking(id);
  });
  it("leaves out who is away", () => {
    const id = book();
    const before = dayRules();
    const everybody = shopDayOf(DAY).people;
    keepDayRules(
      { ...before, people: Object.fromEntries(everybody.slice(1).map((p) => [p.id, null])) },
      INES,
    );
    const { plan } = planShop(shopDayOf(DAY), shopBays());
    expect(new Set(plan.placed.flatMap((p) => p.people))).toEqual(new Set([everybody[0]!.id]));
    keepDayRules(before, INES);
    dropBooking(id);
  });
  it("goes out as a calendar that another program reads, without anybody's name", async () => {
    const id = book();
    const text = await calendarText(DAY, 2, null);
    const events = new ICAL.Component(ICAL.parse(text) as unknown[])
      .getAllSubcomponents("vevent")
      .map((e) => new ICAL.Event(e));
    const { plan } = planShop(shopDayOf(DAY), shopBays());
    expect(events).toHaveLength(plan.placed.length);
    for (const p of plan.placed) {
      const at = new Date(Date.parse(`${DAY}T00:00:00Z`) + p.startMin * 60_000).toISOString();
      expect(events.map((e) => e.startDate.toJSDate().toISOString())).toContain(at);
    }
    expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
    expect(text).not.toContain("Kit Lowe");
    expect(text).not.toContain(id);
    const key = calendarKey();
    expect(isCalendarKey(key)).toBe(true);
    expect(newCalendarKey()).not.toBe(key);
    expect(isCalendarKey(key)).toBe(false);
    dropBooking(id);
  });
  it("asks beforehand what the sheets ask, and keeps what was said", () => {
    const id = book({ place: "van" });
    const letter = letterBefore(DAY, `booking:${id}`)!;
    expect(letter.requests.map((r) => r.kind)).toEqual(
      expect.arrayContaining(["fuel", "room"]) as string[],
    );
    // Its glass is set here: nobody else has to leave a cover off.
    expect(letter.requests.map((r) => r.kind)).not.toContain("trim");
    const bracket = book({ happenings: [{ event: "bracket-touched", place: "windshield" }] });
    expect(letterBefore(DAY, `booking:${bracket}`)!.requests.map((r) => r.kind)).toContain("trim");
    dropBooking(bracket);
    keepSaid(id, { fuel: "half full" });
    keepSaid(id, { load: "nothing in it" });
    expect(letterBefore(DAY, `booking:${id}`)!.card.said).toEqual({
      fuel: "half full",
      load: "nothing in it",
    });
    expect(letterBefore(DAY, "booking:none")).toBeNull();
    expect(letterForKeeper(id)?.card.said.fuel).toBe("half full");
    expect(letterForKeeper("none")).toBeNull();
    const gone = keepBooking({ id: null, day: "2020-01-02", booking }, INES);
    expect(letterForKeeper(gone)).toBeNull();
    dropBooking(id);
  });
});
