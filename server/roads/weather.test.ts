import { describe, expect, it } from "vitest";
import { SimulatedWeather } from "@/devices/weather/simulated";
import { WeatherTrouble, type WeatherService } from "@/devices/weather/weather";
import { ShopWeather } from "./weather";

const NOON = Date.UTC(2026, 10, 3, 12);
const HOUR = 3_600_000;

describe("the weather as the shop knows it", () => {
  it("is that of a stand-in that now and then refuses, and the same for the same hour", async () => {
    const rough = new SimulatedWeather("here", { refuses: 0.4, takesMs: 1 });
    const answers = await Promise.allSettled(
      Array.from({ length: 60 }, () => rough.forecast(NOON, 27)),
    );
    const refused = answers.filter((a) => a.status === "rejected");
    expect(refused.length).toBeGreaterThan(10);
    expect(refused.length).toBeLessThan(40);
    expect(refused.every((a) => a.reason instanceof WeatherTrouble)).toBe(true);
    const [first, ...others] = answers.flatMap((a) => (a.status === "fulfilled" ? [a.value] : []));
    expect(first).toHaveLength(27);
    expect(first![0]!.fromMs).toBe(NOON);
    for (const o of others) expect(o).toEqual(first);
  });
  it("is what was heard last where nobody answers, for some hours, and then nothing", async () => {
    let [silent, now, asked] = [false, NOON, 0];
    const good = new SimulatedWeather("here", { refuses: 0, takesMs: 0 });
    const service: WeatherService = {
      forecast: (from, hours) => {
        asked++;
        return silent ? Promise.reject(new WeatherTrouble("busy")) : good.forecast(from, hours);
      },
    };
    const shop = new ShopWeather(service, () => now);
    const heard = await shop.of(NOON, 27);
    expect(heard!.heardAt).toBe(new Date(NOON).toISOString());
    expect(await shop.of(NOON + 60_000, 27)).toBe(heard);
    expect(asked).toBe(1);
    [silent, now] = [true, NOON + 3 * HOUR];
    expect(await shop.of(now, 27)).toBe(heard);
    expect(asked).toBe(4);
    now = NOON + 13 * HOUR;
    expect(await shop.of(now, 27)).toBeNull();
    silent = false;
    expect((await shop.of(now, 27))!.forecast[0]!.fromMs).toBe(now);
  });
});
