import type { Forecast } from "@/core/drive/forecast";
import { WeatherTrouble, type WeatherService } from "@/devices/weather/weather";

/** What was last heard of the weather, and when. */
export type Heard = { forecast: Forecast; heardAt: string };

const TRIES = 3;
/** What was heard is asked for anew after this, and is worth nothing after that, milliseconds. */
const FRESH_MS = 10 * 60_000;
const WORTH_MS = 12 * 3_600_000;

/** The weather as the shop knows it: asked for a few times, and what was heard last where nobody answers. */
export class ShopWeather {
  private last: (Heard & { fromMs: number }) | null = null;

  constructor(
    private readonly service: WeatherService,
    private readonly now: () => number = Date.now,
  ) {}

  /** Null where the service is silent and nothing was heard for the last hours. */
  async of(fromMs: number, hours: number): Promise<Heard | null> {
    const { last } = this;
    const age = last ? this.now() - Date.parse(last.heardAt) : Infinity;
    const since = last ? fromMs - last.fromMs : -1;
    const covers = since >= 0 && since < WORTH_MS;
    if (covers && age < FRESH_MS && since < FRESH_MS) return last;
    for (let n = 0; n < TRIES; n++)
      try {
        const forecast = await this.service.forecast(fromMs, hours);
        this.last = { forecast, heardAt: new Date(this.now()).toISOString(), fromMs };
        return this.last;
      } catch (error) {
        if (!(error instanceof WeatherTrouble)) throw error;
      }
    return covers && age < WORTH_MS ? last : null;
  }
}
