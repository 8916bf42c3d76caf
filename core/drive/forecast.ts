import { z } from "zod";

const chance = z.number().min(0).max(1);

/** What one hour's weather may be, each as the chance that it is so at a moment of that hour. */
export const hourWeather = z.object({
  fromMs: z.number().int(),
  rain: chance,
  fog: chance,
  snow: chance,
  /** The road is wet: while it rains and after. */
  wet: chance,
  /** The sun does not come through. */
  cloud: chance,
});
export type HourWeather = z.infer<typeof hourWeather>;
/** Hours that follow each other, the earliest first. */
export type Forecast = readonly HourWeather[];

const HOUR_MS = 3_600_000;

/** The hour a moment lies in; before the first and after the last hour that is known, null. */
export function weatherAt(forecast: Forecast, atMs: number): HourWeather | null {
  const first = forecast[0];
  if (!first) return null;
  const hour = forecast[Math.floor((atMs - first.fromMs) / HOUR_MS)];
  return hour && atMs < hour.fromMs + HOUR_MS ? hour : null;
}
