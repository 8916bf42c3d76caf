import { randomFrom, seedFrom } from "@/core/math/random";
import type { HourWeather } from "@/core/drive/forecast";
import { WeatherTrouble, type WeatherService } from "./weather";

const HOUR_MS = 3_600_000;

/**
 * The made-up island's weather: it drifts from hour to hour between fair and foul, fog lies in the early
 * hours, and a road stays wet for a while. The same seed and hour give the same weather.
 */
export class SimulatedWeather implements WeatherService {
  private asked = 0;

  /**
   * @param faults how it behaves: the share of what is asked that it refuses, and how long it takes,
   * milliseconds
   */
  constructor(
    private readonly seed: string,
    private readonly faults: { refuses: number; takesMs: number },
  ) {}

  /** @throws WeatherTrouble now and then */
  async forecast(fromMs: number, hours: number): Promise<HourWeather[]> {
    const nth = this.asked++;
    const takes = this.faults.takesMs * (0.5 + this.noise(`takes/${nth}`));
    await new Promise((done) => setTimeout(done, takes));
    if (this.noise(`refuses/${nth}`) < this.faults.refuses)
      throw new WeatherTrouble("The weather service is busy.");
    const first = Math.floor(fromMs / HOUR_MS);
    return Array.from({ length: hours }, (_, i) => this.hour(first + i));
  }

  private hour(n: number): HourWeather {
    const foul = this.drift(n);
    const at = ((n % 24) + 24) % 24;
    const rain = clamp((foul - 0.45) * 1.3);
    const before = clamp((this.drift(n - 1) - 0.45) * 1.3);
    return {
      fromMs: n * HOUR_MS,
      rain,
      fog: at >= 3 && at < 8 ? clamp(0.35 * this.noise(`fog/${Math.floor(n / 24)}`)) : 0,
      snow: 0,
      wet: clamp(Math.max(rain, before * 0.8)),
      cloud: clamp(0.15 + foul),
    };
  }

  /** Between 0, fair, and 1, foul: a slow wave with a quick one on it. */
  private drift(n: number): number {
    const knot = (every: number, part: string): number => {
      const [k, t] = [Math.floor(n / every), (n % every) / every];
      const ease = t * t * (3 - 2 * t);
      return this.noise(`${part}/${k}`) * (1 - ease) + this.noise(`${part}/${k + 1}`) * ease;
    };
    return 0.7 * knot(9, "slow") + 0.3 * knot(2, "quick");
  }

  private readonly noise = (name: string): number =>
    randomFrom(seedFrom(`${this.seed}/weather/${name}`))();
}

const clamp = (x: number): number => Number(Math.min(0.97, Math.max(0, x)).toFixed(3));
