import type { Forecast } from "@/core/drive/forecast";
import { looksOf } from "@/core/drive/look";
import { networkOf } from "@/core/drive/network";
import { plansFor, type DrivePlan } from "@/core/drive/plan";
import { sunAt } from "@/core/drive/sun";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { SHEETS } from "@/demo/data/sheets";
import { driven, type Tick } from "@/devices/road/world";

export const rules = SHEETS.find((s) => s.id === "harrow-forward")!.drive!;
export const roads = island();
export const network = networkOf(roads);
const cameras = looksOf("forward-camera");

/**
 * The soonest drive on the made-up island that leaves at a moment, with hours that are all alike, and how
 * it is driven, time and again.
 */
export function islandDrive(
  departMs: number,
  { rain = 0, cloud = 0.5 } = {},
): { plan: DrivePlan; drive: (seed: string) => Generator<Tick> } {
  const forecast: Forecast = Array.from({ length: 4 }, (_, i) => ({
    fromMs: departMs + (i - 1) * 3_600_000,
    rain,
    fog: 0,
    snow: 0,
    wet: rain,
    cloud,
  }));
  const { plans } = plansFor({
    network,
    shop: SHOP_PLACE,
    rules,
    forecast,
    cameras,
    departs: [departMs],
    zoneHours: 0,
  });
  const plan = plans[0]!;
  const drive = (seed: string): Generator<Tick> =>
    driven({
      legs: plan.legs,
      departMs,
      seed,
      forecast,
      hourOfDay: (atMs) => (atMs / 3_600_000) % 24,
      sun: (atMs) => sunAt(atMs, SHOP_PLACE[1], SHOP_PLACE[0]),
      cameras,
      keepsMps: 87.5 / 3.6,
    });
  return { plan, drive };
}
