import type { RoadPlace } from "./road";
import type { DriveSample, LineSeen } from "./sample";

/** What is kept of one second of a drive: what was known of it, and where it was. */
export type LoggedSample = DriveSample & { place: RoadPlace | null; online: boolean | null };

const LINES = ["none", "broken", "solid"] as const satisfies readonly LineSeen[];
const LIGHTS = ["night", "dusk", "day"] as const;
const WEATHERS = ["rain", "fog", "snow", "wet-road"] as const;
/** Beyond this a curve is none, metres. */
export const STRAIGHT_M = 20_000;

/**
 * A second as a row of whole numbers, so that an hour of them is small: tenths of a second since the
 * part began, cm/s, left and right line, radius (0 straight) and gap (-1 nobody) in metres, light,
 * weather as bits, tenths of a degree off the sun, key, longitude and latitude in millionths, network.
 */
type Num = number | null;
export type DriveRow = [number, Num, Num, Num, Num, Num, Num, Num, Num, Num, Num, Num, Num];

const rounded = (v: number | null, by: number): number | null =>
  v === null ? null : Math.round(v * by);
const flag = (v: boolean | null): number | null => (v === null ? null : Number(v));

/** @param startMs of the part it belongs to, not later than the sample */
export function packed(s: LoggedSample, startMs: number): DriveRow {
  return [
    Math.round((s.atMs - startMs) / 100),
    rounded(s.speedMps, 100),
    s.lines && LINES.indexOf(s.lines.left),
    s.lines && LINES.indexOf(s.lines.right),
    s.radiusM === "straight"
      ? 0
      : s.radiusM && Math.min(STRAIGHT_M, Math.max(1, Math.round(s.radiusM))),
    s.gapM === "nobody" ? -1 : rounded(s.gapM, 1),
    s.light && LIGHTS.indexOf(s.light),
    s.weather && WEATHERS.reduce((bits, w, i) => bits + (s.weather!.includes(w) ? 1 << i : 0), 0),
    rounded(s.sunOffDeg, 10),
    flag(s.keyOn),
    rounded(s.place?.[0] ?? null, 1e6),
    rounded(s.place?.[1] ?? null, 1e6),
    flag(s.online),
  ];
}

export function unpacked(row: DriveRow, startMs: number): LoggedSample {
  const [t, speed, left, right, radius, gap, light, weather, sun, key, lon, lat, online] = row;
  return {
    atMs: startMs + t * 100,
    speedMps: speed === null ? null : speed / 100,
    lines: left === null || right === null ? null : { left: LINES[left]!, right: LINES[right]! },
    radiusM: radius === 0 ? "straight" : radius,
    gapM: gap === -1 ? "nobody" : gap,
    light: light === null ? null : LIGHTS[light]!,
    weather: weather === null ? null : WEATHERS.filter((_, i) => weather & (1 << i)),
    sunOffDeg: sun === null ? null : sun / 10,
    keyOn: key === null ? null : key === 1,
    place: lon === null || lat === null ? null : [lon / 1e6, lat / 1e6],
    online: online === null ? null : online === 1,
  };
}
