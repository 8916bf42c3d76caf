import { describe, expect, it } from "vitest";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { SHEETS } from "@/demo/data/sheets";
import { looksOf } from "./look";
import { networkOf } from "./network";
import { plansFor, type PlanAsked } from "./plan";
import { turnsOf } from "./route";

const rules = SHEETS.find((s) => s.id === "harrow-forward")!.drive!;
const NOON = Date.UTC(2026, 10, 3, 12);
const hours = (rain: (h: number) => number) =>
  Array.from({ length: 8 }, (_, h) => ({
    fromMs: NOON + h * 3_600_000,
    rain: rain(h),
    fog: 0,
    snow: 0,
    wet: 0,
    cloud: 1,
  }));
const network = networkOf(island());
const ask = (more: Partial<PlanAsked>): PlanAsked => ({
  network,
  shop: SHOP_PLACE,
  rules,
  forecast: hours(() => 0),
  cameras: looksOf("forward-camera"),
  departs: [NOON],
  zoneHours: 0,
  ...more,
});

describe("plans of a drive", () => {
  it("are truly different where two are asked for, the soonest first", () => {
    const [first, second] = plansFor(ask({ loops: 2 })).plans;
    expect(first!.seconds).toBeLessThanOrEqual(second!.seconds);
    const roads = new Set(first!.legs.map((l) => l.name));
    const shared = second!.legs.filter((l) => roads.has(l.name)).length / second!.legs.length;
    expect(shared).toBeLessThan(0.75);
  });
  it("take longer through rain, and there is none after dark", () => {
    const wet = plansFor(
      ask({ forecast: hours((h) => (h === 0 ? 0.6 : 0)), departs: [NOON, NOON + 3_600_000] }),
    ).plans;
    expect(wet[0]!.seconds).toBeGreaterThan(wet[1]!.seconds + 300);
    expect(wet[0]!.chance).toBeLessThan(wet[1]!.chance);
    for (const p of wet) expect(p.leastS).toBeLessThanOrEqual(p.seconds);
    expect(wet[0]!.weather!.rain).toBe(0.6);
    // On 3 November the sun is down there before five.
    expect(plansFor(ask({ departs: [NOON + 6 * 3_600_000] }))).toEqual({ plans: [], spent: [] });
  });
  it("say each turn once, and all of the way", () => {
    const [plan] = plansFor(ask({})).plans;
    const turns = turnsOf(plan!.legs);
    expect(turns[0]!.turn).toBe("leave");
    // What counts on the way home counts too: that is what a drive that lags behind still gathers.
    expect(plan!.expected).toHaveLength(plan!.legs.length);
    expect(plan!.expected.at(-1)!.countS).toBeGreaterThan(rules.enough.seconds! * 1.1);
    expect(turns.length).toBeLessThan(plan!.legs.length / 2);
    expect(turns.reduce((s, t) => s + t.metres, 0)).toBeCloseTo(plan!.metres, 3);
    turns
      .slice(1)
      .forEach((t, i) => expect(t.turn === "on" && t.name === turns[i]!.name).toBe(false));
  });
});
