/**
 * The one formatter of times: UTC in, the shop's zone out. The zone is fixed at build time, alike
 * on both sides.
 */
const ZONE = "Europe/London";

const clock = new Intl.DateTimeFormat("en-GB", {
  timeZone: ZONE,
  hour: "2-digit",
  minute: "2-digit",
});
const whole = new Intl.DateTimeFormat("en-GB", {
  timeZone: ZONE,
  day: "numeric",
  month: "short",
  year: "numeric",
  hour: "2-digit",
  minute: "2-digit",
});

export const clockTime = (iso: string): string => clock.format(new Date(iso));
export const dateAndTime = (iso: string): string => whole.format(new Date(iso));
