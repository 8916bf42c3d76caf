import { quantitiesOf, type Judged, type Quantity } from "@/core/setout";
import type { Target } from "@/core/sheet";
import { degToRad } from "@/core/units";
import type { Settlement } from "./events";

/**
 * The figures that are printed when a board is accepted as set. Null while the verdict is not
 * "set", or something is still to be done to the stand.
 */
export function settlementOf(
  { solution, verdict }: Judged,
  of: { calibrationId: string; targetId: string },
): Settlement | null {
  if (verdict.kind !== "set" || solution.lacking.length > 0) return null;
  return {
    kind: "settled",
    ...of,
    chance: verdict.chance,
    quantities: quantitiesOf(solution),
    ...(verdict.assumes.length > 0 ? { assumes: verdict.assumes } : {}),
    readingIds: solution.readings.filter((r) => r.state === "counts").map((r) => r.id),
  };
}

/**
 * The quantities of a settlement as it was accepted. Older ones name four figures; their limits are
 * the target's.
 */
export function settledQuantities(body: Settlement, target: Target): Quantity[] {
  if ("quantities" in body) return body.quantities;
  const { tolerance } = target;
  const one = (
    id: Quantity["id"],
    error: number,
    sigma: number,
    half: number | undefined,
    unit: Quantity["unit"] = "mm",
  ): Quantity => {
    const limit = half ?? Infinity;
    return { id, unit, error, sigma, lower: -limit, upper: limit };
  };
  return [
    one("along", body.alongMm, body.sigma.alongMm, tolerance.alongMm),
    one("across", body.acrossMm, body.sigma.acrossMm, tolerance.acrossMm),
    one(
      "twist",
      body.twistRad,
      body.sigma.twistRad,
      degToRad(tolerance.twistDeg ?? Infinity),
      "rad",
    ),
    one("height", body.heightMm, body.sigma.heightMm, tolerance.heightMm),
  ];
}
