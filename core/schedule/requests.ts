import type { Happening } from "@/core/owed";
import type { Sheet } from "@/core/sheet";
import type { RoomAsk } from "@/core/space/room";
import type { Vehicle } from "@/core/vehicle";
import type { Card } from "./shop";

/** What is asked of whoever brings a vehicle, before it comes. */
export type Request =
  | { kind: "fuel"; minShare: number }
  | { kind: "load" }
  | { kind: "printout" }
  | { kind: "trailer" }
  | { kind: "trim" }
  | { kind: "papers"; questions: string[] }
  | { kind: "room"; aheadM: number; behindM: number; sidesM: number }
  | { kind: "network" };

/** A letter to whoever brings a vehicle. */
export type LetterBefore = {
  shop: string;
  day: string;
  card: Pick<
    Card,
    | "id"
    | "kind"
    | "title"
    | "customer"
    | "plate"
    | "done"
    | "arriveMin"
    | "promiseMin"
    | "place"
    | "said"
  >;
  requests: Request[];
};

/**
 * What the sheets of a vehicle's calibrations ask of its keeper: what is done at home costs nobody a
 * bay.
 *
 * @param asks what each calibration in the bay needs about the vehicle
 * @param away whether it is done at the customer's place
 */
export function requestsOf(
  sheets: readonly Sheet[],
  vehicle: Vehicle,
  {
    happenings,
    asks,
    away,
  }: { happenings: readonly Happening[]; asks: readonly RoomAsk[]; away: boolean },
): Request[] {
  const systems = new Set<string>(asks.map((a) => a.system));
  const own = sheets.filter(
    (s) => s.appliesTo.vehicles.includes(vehicle.id) && systems.has(s.appliesTo.system),
  );
  const items = own.flatMap((s) => s.ready);
  const fuel = items.flatMap(({ measure }) => (measure?.kind === "fuel" ? [measure.minShare] : []));
  const requests: Request[] = [];
  if (fuel.length > 0) requests.push({ kind: "fuel", minShare: Math.max(...fuel) });
  if (items.some((i) => i.looksFor === "load")) requests.push({ kind: "load" });
  if (
    items.some((i) => i.measure?.kind === "alignment") ||
    happenings.some((h) => h.event === "alignment")
  )
    requests.push({ kind: "printout" });
  if (systems.has("trailer-camera")) requests.push({ kind: "trailer" });
  // Where the glass was set elsewhere, how the camera and its bracket sit is to be seen first.
  if (systems.has("forward-camera") && !happenings.some((h) => h.event === "glass-out"))
    requests.push({ kind: "trim" });
  const questions = vehicle.questions?.map((q) => q.ask) ?? [];
  if (questions.length > 0) requests.push({ kind: "papers", questions });
  if (away) {
    const most = (of: (a: RoomAsk) => number): number => Math.max(0, ...asks.map(of));
    requests.push({
      kind: "room",
      aheadM: most((a) => a.room.ahead),
      behindM: most((a) => a.room.behind),
      sidesM: most((a) => a.room.sides),
    });
    if (vehicle.gateway) requests.push({ kind: "network" });
  }
  return requests;
}
