import type { Bay } from "./bay";
import { bestFit, type Fit, type Zone } from "./fit";

/** What one calibration has to have free about the vehicle. */
export type Need = { name: string; zones: Zone[] };

/** One place of the vehicle, and what is done there. */
export type Place = { needs: string[]; zones: Zone[]; fit: Fit };

/** More calibrations than these are not parted among places: they are asked for at one. */
const MOST_PARTED = 6;

/** All ways to part things into so many groups, none of them empty. */
function* partings<T>(things: readonly T[], groups: number): Generator<T[][]> {
  const [first, ...rest] = things;
  if (first === undefined) {
    if (groups === 0) yield [];
    return;
  }
  // The first thing stands alone, or joins a group of the rest.
  if (groups > 0) for (const p of partings(rest, groups - 1)) yield [[first], ...p];
  for (const p of partings(rest, groups))
    for (const [i, group] of p.entries())
      yield [...p.slice(0, i), [first, ...group], ...p.slice(i + 1)];
}

/**
 * The fewest places of the vehicle at which all of it fits, with the most room to spare at the tightest of
 * them. Where something fits at no place by itself, that one alone, with what hinders it.
 */
export function placesFor(bay: Bay, vehicle: Zone, needs: readonly Need[]): Place[] {
  const known = new Map<string, Place>();
  const at = (group: readonly Need[]): Place => {
    const key = group.map((n) => needs.indexOf(n)).join();
    let is = known.get(key);
    if (!is) {
      const zones = [vehicle, ...group.flatMap((n) => n.zones)];
      is = { needs: group.map((n) => n.name), zones, fit: bestFit(bay, zones) };
      known.set(key, is);
    }
    return is;
  };
  const fits = (p: Place): boolean => p.fit.marginMm >= 0;
  const whole = at(needs);
  if (fits(whole) || needs.length < 2 || needs.length > MOST_PARTED) return [whole];
  const alone = needs.map((n) => at([n]));
  const hindered = alone.find((p) => !fits(p));
  if (hindered) return [hindered];
  for (let groups = 2; groups < needs.length; groups++) {
    let best: Place[] | null = null;
    const tightest = (places: readonly Place[]): number =>
      Math.min(...places.map((p) => p.fit.marginMm));
    for (const parting of partings(needs, groups)) {
      const places = parting.map(at);
      if (places.every(fits) && (!best || tightest(places) > tightest(best))) best = places;
    }
    if (best) return best;
  }
  return alone;
}
