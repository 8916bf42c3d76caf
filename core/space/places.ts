import type { Bay } from "./bay";
import { bestFit, isWithin, SLACK_MM, type Fit, type FloorRule, type Zone } from "./fit";

/** What one calibration has to have free about the vehicle. */
export type Need = { name: string; zones: Zone[]; floor?: FloorRule | null };

/** One place of the vehicle, and what is done there. */
export type Place = { needs: string[]; zones: Zone[]; fit: Fit };

/** More calibrations than these are not parted among places: they are asked for at one. */
const MOST_PARTED = 6;

/**
 * Whether a group fits somewhere is asked of many groups: on a surveyed floor one that shows no place
 * after so many looks is taken to have none.
 */
const LOOKS_A_GROUP = 20_000;

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

/** What is had wherever another is: it goes along with that one. */
type Led = { lead: Need; along: Need[] };

/** Needs of which none lies within another's: what does is had along with that. */
function led(needs: readonly Need[]): Led[] {
  const inside = (a: Need, b: Need): boolean =>
    a !== b &&
    (!a.floor || a.floor === b.floor) &&
    a.zones.every((z) => b.zones.some((y) => isWithin(z, y)));
  const leads: Led[] = [];
  const below = (a: Need): Need | undefined =>
    needs.find((b) => inside(a, b) && (!inside(b, a) || needs.indexOf(b) < needs.indexOf(a)));
  const leadOf = (a: Need): Need => {
    const over = below(a);
    return over ? leadOf(over) : a;
  };
  for (const n of needs) if (!below(n)) leads.push({ lead: n, along: [] });
  for (const n of needs) {
    const over = leadOf(n);
    if (over !== n) leads.find((l) => l.lead === over)!.along.push(n);
  }
  return leads;
}

/** The strictest of what several ask of the floor. */
function floorFor(group: readonly Need[]): FloorRule | null {
  const rules = [...new Set(group.flatMap((n) => (n.floor ? [n.floor] : [])))];
  const [first, ...others] = rules;
  if (!first || others.length === 0) return first ?? null;
  const joined = first.joined?.(others);
  if (joined) return joined;
  return {
    used: (pose) => Math.max(...rules.map((r) => r.used(pose))),
    changes: (...of) => Math.max(...rules.map((r) => r.changes(...of))),
    straysMm: (...of) => Math.max(...rules.map((r) => r.straysMm(...of))),
  };
}

const good = (fit: Fit): boolean =>
  fit.marginMm >= 0 && (fit.floorUsed === null || fit.floorUsed <= 1);

/** Whether all of it fits there, and the floor is good enough. */
export const isGood = ({ fit }: Place): boolean => good(fit);

/**
 * The fewest places of the vehicle at which all of it fits, with the most room to spare at the tightest of
 * them. Where something fits at no place by itself, that one alone, with what hinders it.
 *
 * @param whether only that it fits is asked: the first place with room does, not the roomiest
 */
export function placesFor(
  bay: Bay,
  vehicle: Zone,
  needs: readonly Need[],
  whether = false,
): Place[] {
  const zonesOf = (group: readonly Need[]): Zone[] => [vehicle, ...group.flatMap((n) => n.zones)];
  const at = (group: readonly Need[]): Place => ({
    needs: group.map((n) => n.name),
    zones: zonesOf(group),
    fit: bestFit(bay, zonesOf(group), {
      floor: floorFor(group),
      ...(whether ? { atLeastMm: 0 } : {}),
    }),
  });
  const whole = at(needs);
  if (good(whole.fit)) return [whole];
  const parts = led(needs);
  if (parts.length < 2 || needs.length > MOST_PARTED) return [whole];
  /** What is known of a group of parts: at least so much room, at the most so much. */
  const known = new Map<number, { least: number; most: number }>();
  const groupOf = (set: number): Need[] => {
    const group = new Set(
      parts.filter((_, i) => set & (1 << i)).flatMap((p) => [p.lead, ...p.along]),
    );
    return needs.filter((n) => group.has(n));
  };
  /** Whether a group has as much room as that somewhere. */
  const reaches = (set: number, mm: number): boolean => {
    const own = known.get(set) ?? { least: -Infinity, most: Infinity };
    if (own.least >= mm) return true;
    // More parts never have more room: what is known of fewer or of more says it as well.
    for (const [other, is] of known) {
      if ((other & set) === set && is.least >= mm) return true;
      if ((other & set) === other && is.most < mm) return false;
    }
    const group = groupOf(set);
    const floor = floorFor(group);
    const fit = bestFit(bay, zonesOf(group), {
      floor,
      atLeastMm: mm,
      ...(floor ? { mostLooks: LOOKS_A_GROUP } : {}),
    });
    const holds = good(fit) || (fit.floorUsed ?? 0) <= 1;
    known.set(set, {
      least: Math.max(own.least, holds ? fit.marginMm : -Infinity),
      most: Math.min(own.most, holds ? fit.boundMm : -Infinity),
    });
    return holds && fit.marginMm >= mm;
  };
  const ones = parts.map((_, i) => i);
  const hindered = ones.find((i) => !reaches(1 << i, 0));
  if (hindered !== undefined) return [at([parts[hindered]!.lead])];
  const setOf = (group: readonly number[]): number => group.reduce((s, i) => s | (1 << i), 0);
  for (let groups = 2; groups < parts.length; groups++) {
    let [best, room]: [number[] | null, number] = [null, 0];
    for (const parting of partings(ones, groups)) {
      const sets = parting.map(setOf);
      if (!sets.every((s) => reaches(s, room))) continue;
      best = sets;
      // As good as this is known already: another is worth it only with more room by the slack.
      room = Math.min(...sets.map((s) => known.get(s)?.least ?? room)) + SLACK_MM;
    }
    if (best) return best.map((s) => at(groupOf(s)));
  }
  return ones.map((i) => at(groupOf(1 << i)));
}
