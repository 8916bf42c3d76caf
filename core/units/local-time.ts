import { TZDate } from "@date-fns/tz";

/**
 * The instant of a wall clock in a zone. An hour that the clock skips in spring is read as the one
 * after it.
 *
 * @param local YYYY-MM-DDTHH:mm as the shop's clock shows it
 * @param zone IANA name of a time zone
 * @returns ISO 8601 in UTC; null where the text is no time
 */
export function instantOf(local: string, zone: string): string | null {
  const [y, mo, d, h, mi] = local.split(/[-T:]/).map(Number);
  const at = new TZDate(y!, mo! - 1, d!, h!, mi!, zone);
  return Number.isNaN(at.getTime()) ? null : new Date(at.getTime()).toISOString();
}
