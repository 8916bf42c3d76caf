import { EVENT_PLACES, type EventId, type Kind, type PlaceId, type SystemId } from "./names";
import type { Fitted, Rule } from "./schema";

/** Something that was done or happened, and where. */
export type Happening = { event: EventId; place: PlaceId | null; note?: string };

/** One calibration a job owes, with everything that made it owed. */
export type OwedLine = {
  /** "forward-camera/static": one line per system and kind. */
  id: string;
  system: SystemId;
  kind: Exclude<Kind, "both">;
  places: PlaceId[];
  because: { rule: Rule; happening: Happening }[];
};

/** What does not decide: shown so that nobody argues from it. */
export const EMPTY_MEMORY =
  "An empty fault memory cancels nothing: a vehicle can scan clean and look the wrong way.";

const touches = (rule: Rule, h: Happening, fitted: Fitted): boolean => {
  if (!rule.when.includes(h.event)) return false;
  // Where nobody says where it was, it may have been anywhere that it can happen: that counts as
  // near.
  const places = h.place === null ? EVENT_PLACES[h.event] : [h.place];
  // An airbag has no place; it shakes everything.
  if (places.length === 0) return !rule.at;
  return places.some(
    (p) => (!rule.at || rule.at.includes(p)) && (!rule.near || fitted.places.includes(p)),
  );
};

/**
 * How the vehicle's own sheet does a system: in the bay alone, or in the bay and then on the road.
 */
export type SheetMethod = {
  system: SystemId;
  kind: "static" | "static-then-dynamic" | "static-or-dynamic" | "dynamic";
};

/**
 * What a rule asks for, each by itself; where the vehicle's own sheet goes on to the road, so does
 * what is owed.
 */
function kindsOf(rule: Rule, methods: readonly SheetMethod[]): OwedLine["kind"][] {
  if (rule.kind === "both") return ["static", "dynamic"];
  const onward = methods.some((m) => m.system === rule.system && m.kind === "static-then-dynamic");
  return rule.kind === "static" && onward ? ["static", "dynamic"] : [rule.kind];
}

/**
 * What is owed: every rule, over everything that happened and every system that is fitted.
 *
 * A rule of kind "both" owes two lines, static and dynamic. A dynamic or static line of one system
 * that several rules ask for is one line with several reasons. Codes and clean scans are happenings
 * like others: they can add, never take away.
 *
 * @param methods how the sheets that this vehicle will get do their systems
 */
export function owedFor(
  happenings: readonly Happening[],
  fitted: readonly Fitted[],
  rules: readonly Rule[],
  methods: readonly SheetMethod[] = [],
): OwedLine[] {
  const lines = new Map<string, OwedLine>();
  for (const f of fitted)
    for (const rule of rules) {
      if (rule.system !== f.system) continue;
      for (const happening of happenings) {
        if (!touches(rule, happening, f)) continue;
        for (const kind of kindsOf(rule, methods)) {
          const id = `${f.system}/${kind}`;
          const line = lines.get(id) ?? {
            id,
            system: f.system,
            kind,
            places: f.places,
            because: [],
          };
          line.because.push({ rule, happening });
          lines.set(id, line);
        }
      }
    }
  return [...lines.values()];
}

/** The lines that would have to be done again if something were touched later. */
export function redoneBy(
  later: Happening,
  lines: readonly OwedLine[],
  fitted: readonly Fitted[],
  rules: readonly Rule[],
): string[] {
  const again = new Set(owedFor([later], fitted, rules).map((l) => l.id));
  return lines.filter((l) => again.has(l.id)).map((l) => l.id);
}
