import type { Forecast } from "./forecast";
import { weatherAt } from "./forecast";
import type { DriveRules } from "./rules";
import { sunAt } from "./sun";

const STEP_MS = 15 * 60_000;
/** A moment with this chance or more of what is forbidden is none to leave at. */
const TOO_LIKELY = 0.5;

/** A span of time, milliseconds since 1970. */
export type TimeSpan = [fromMs: number, toMs: number];

/**
 * When a drive's own conditions let it be done at all: light, and weather that is forbidden less likely
 * than not. Roads and traffic are not asked: the drive is planned when it is left for.
 *
 * @param forecast null where nobody knows the weather: then the light alone decides
 */
export function suitedSpans(
  rules: DriveRules,
  forecast: Forecast | null,
  [latDeg, lonDeg]: readonly [number, number],
  [fromMs, toMs]: TimeSpan,
): TimeSpan[] {
  const names = { rain: "rain", fog: "fog", snow: "snow", "wet-road": "wet" } as const;
  const suits = (atMs: number): boolean =>
    rules.conditions.every((c) => {
      if (c.kind === "light") {
        const { altitudeDeg } = sunAt(atMs, latDeg, lonDeg);
        return altitudeDeg > -0.833 || (c.needs === "day-or-dusk" && altitudeDeg > -6);
      }
      const hour = c.kind === "weather" && forecast ? weatherAt(forecast, atMs) : null;
      return c.kind !== "weather" || !hour || c.without.every((w) => hour[names[w]] < TOO_LIKELY);
    });
  const spans: TimeSpan[] = [];
  for (let at = fromMs; at < toMs; at += STEP_MS) {
    if (!suits(at + STEP_MS / 2)) continue;
    const last = spans.at(-1);
    if (last && last[1] === at) last[1] = at + STEP_MS;
    else spans.push([at, at + STEP_MS]);
  }
  return spans;
}
