import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { suitedSpans } from "./suits";

const rules = SHEETS.find((s) => s.id === "harrow-forward")!.drive!;
const HOUR = 3_600_000;
const DAWN = Date.UTC(2026, 10, 3);
const PLACE = [56.4, 1.9] as const;
const PAUSES = { breach: "pauses" as const, graceS: 0 };
const day = (rainAt: readonly number[]) =>
  Array.from({ length: 24 }, (_, h) => ({
    fromMs: DAWN + h * HOUR,
    rain: rainAt.includes(h) ? 0.8 : 0.1,
    fog: 0,
    snow: 0,
    wet: 0,
    cloud: 0.5,
  }));

describe("when a drive suits", () => {
  it("is by day, and not while it most likely rains", () => {
    const bare = {
      ...rules,
      conditions: [
        { kind: "light" as const, needs: "day" as const, ...PAUSES },
        { kind: "weather" as const, without: ["rain" as const], ...PAUSES },
      ],
    };
    const spans = suitedSpans(bare, day([11, 12]), PLACE, [DAWN, DAWN + 24 * HOUR]);
    expect(spans).toHaveLength(2);
    const [morning, afternoon] = spans as [[number, number], [number, number]];
    // Sunrise at 7:09 and sunset at 16:07 UTC that day there, by the almanac's formula.
    expect(Math.abs(morning[0] - (DAWN + 7.15 * HOUR))).toBeLessThan(0.3 * HOUR);
    expect(morning[1]).toBe(DAWN + 11 * HOUR);
    expect(afternoon[0]).toBe(DAWN + 13 * HOUR);
    expect(Math.abs(afternoon[1] - (DAWN + 16.1 * HOUR))).toBeLessThan(0.3 * HOUR);
    // Nobody knows the weather: the light alone decides.
    expect(suitedSpans(bare, null, PLACE, [DAWN, DAWN + 24 * HOUR])).toHaveLength(1);
    expect(
      suitedSpans({ ...bare, conditions: [] }, day([]), PLACE, [DAWN, DAWN + 24 * HOUR]),
    ).toEqual([[DAWN, DAWN + 24 * HOUR]]);
  });
});
