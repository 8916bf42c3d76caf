import { EVENTS, KINDS, PLACES, SYSTEMS } from "./names";
import type { Happening, OwedLine } from "./owed";

/** "Forward camera, static". */
export const lineName = (l: Pick<OwedLine, "system" | "kind">): string =>
  `${SYSTEMS[l.system]}, ${KINDS[l.kind]}`;

/** "Bumper taken off or replaced (rear)". */
export const happeningName = (h: Happening): string =>
  EVENTS[h.event] +
  (h.place && h.place !== "windshield" && h.place !== "chassis" ? ` (${PLACES[h.place]})` : "");

/** "1 h 25 min". */
export function minutesWords(minutes: number): string {
  const [h, m] = [Math.floor(minutes / 60), Math.round(minutes % 60)];
  if (h === 0) return `${m} min`;
  return m === 0 ? `${h} h` : `${h} h ${m} min`;
}
