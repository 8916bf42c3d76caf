import type { Measure } from "@/core/sheet";

/** Where one stands to check something: what belongs to one place is checked in one go. */
export const CHECK_PLACES = {
  cabin: "In the cabin",
  wheels: "Round the wheels",
  floor: "On the floor",
  round: "Round the car and the bay",
} as const;
export type CheckPlace = keyof typeof CHECK_PLACES;

const OF: Record<Measure["kind"], CheckPlace> = {
  scan: "cabin",
  rescan: "cabin",
  road: "cabin",
  dash: "cabin",
  "self-test": "cabin",
  battery: "cabin",
  fuel: "cabin",
  steering: "cabin",
  pressures: "wheels",
  tyres: "wheels",
  arches: "wheels",
  alignment: "wheels",
  floor: "floor",
  articulation: "round",
  "clear-zone": "floor",
  seams: "cabin",
  "camera-places": "round",
};

/** Where an item is checked; what is only looked at is looked at on the last way round. */
export const placeOfCheck = ({ measure }: { measure?: Measure | undefined }): CheckPlace =>
  measure ? OF[measure.kind] : "round";

/** The same items, place by place; in the sheet's own order within each. */
export function byPlace<T extends { measure?: Measure | undefined }>(items: readonly T[]): T[] {
  const order = Object.keys(CHECK_PLACES);
  const rank = (item: T): number => order.indexOf(placeOfCheck(item));
  return items.toSorted((a, b) => rank(a) - rank(b));
}
