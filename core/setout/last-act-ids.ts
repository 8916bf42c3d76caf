/**
 * What is done to a stand last, once its board is where it must be or nearly so, in the order a stand
 * is finished in: it disturbs the stand, so "set" is said only of a stand on which all of it was done
 * and seen through by readings.
 */
export const LAST_ACT_IDS = [
  "locked",
  "feet-down",
  "laser-off",
  "hung",
  "tethered",
  "covered",
] as const;
export type LastActId = (typeof LAST_ACT_IDS)[number];
