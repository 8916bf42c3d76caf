import type { Instrument } from "@/core/setout";

/** An instrument with what is known of its last check. */
export type CheckedInstrument = Instrument & {
  /** ISO date of the last check against something better; null when nobody knows. */
  checkedOn: string | null;
  /** Days a check is good for. */
  everyDays: number;
};

/** How much less an instrument is believed once its check is overdue. */
export const WIDENED = 1.5;

const DAY_MS = 86_400_000;

/** Whether the check has run out. @param today the shop's calendar day, YYYY-MM-DD */
export const isOverdue = (
  i: Pick<CheckedInstrument, "checkedOn" | "everyDays">,
  today: string,
): boolean =>
  i.checkedOn === null || Date.parse(today) - Date.parse(i.checkedOn) > i.everyDays * DAY_MS;

/**
 * The instrument as the arithmetic takes it: an overdue one stays usable, with its uncertainty
 * widened, so that the verdict asks for more instead of the shop standing still.
 */
export function inForce(i: CheckedInstrument, today: string): Instrument {
  const { checkedOn: _, everyDays: __, ...plain } = i;
  if (!isOverdue(i, today)) return plain;
  return {
    ...plain,
    name: `${plain.name} (check overdue)`,
    sigmaMm: plain.sigmaMm * WIDENED,
    sigmaMmPerM: plain.sigmaMmPerM * WIDENED,
    sigmaRad: plain.sigmaRad * WIDENED,
  };
}
