import { tzOffset } from "@date-fns/tz";

/** The zone of shops and records from before it was a setting. */
export const FIRST_ZONE = "Europe/London";

/** Instants as a shop writes them: ISO 8601 in UTC in, the shop's own zone out. */
export type Times = {
  zone: string;
  /** 14:05 */
  clockTime: (iso: string) => string;
  /** 28 Nov 2026, 14:05 */
  dateAndTime: (iso: string) => string;
  /** The calendar day there, as YYYY-MM-DD. */
  day: (iso: string) => string;
  /** What its clocks are ahead of UTC by at that moment, hours. */
  zoneHours: (iso: string) => number;
};

const known = new Map<string, Times>();

/**
 * The formatter of a zone, alike on server and tablet whatever zone those are in.
 *
 * @param zone IANA name of a time zone
 * @throws RangeError for a zone that is none
 */
export function timesIn(zone: string): Times {
  const before = known.get(zone);
  if (before) return before;
  const clock = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    hour: "2-digit",
    minute: "2-digit",
  });
  const whole = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  });
  // Canada writes its days as ISO 8601 does.
  const day = new Intl.DateTimeFormat("en-CA", { timeZone: zone });
  const times: Times = {
    zone,
    clockTime: (iso) => clock.format(new Date(iso)),
    dateAndTime: (iso) => whole.format(new Date(iso)),
    day: (iso) => day.format(new Date(iso)),
    zoneHours: (iso) => tzOffset(zone, new Date(iso)) / 60,
  };
  known.set(zone, times);
  return times;
}
