import { floorStep, wantedHeight, type Judged } from "@/core/setout";
import type { Settlement } from "./events";

/**
 * The figures that are printed when a board is accepted as set. Null while the verdict is not
 * "set".
 */
export function settlementOf(judged: Judged): Settlement | null {
  const { solution: s, verdict } = judged;
  if (verdict.kind !== "set" || !s.aim) return null;
  const sd = s.aim.covariance.map((row, i) => Math.sqrt(row[i]!));
  return {
    kind: "settled",
    chance: verdict.chance,
    alongMm: s.aim.alongMm,
    acrossMm: s.aim.acrossMm,
    twistRad: s.aim.twistRad,
    heightMm: s.scalars.height.value - wantedHeight(s.plan),
    sigma: {
      alongMm: sd[0]!,
      acrossMm: sd[1]!,
      twistRad: sd[2]!,
      heightMm: Math.sqrt(s.scalars.height.variance + floorStep(s.plan).sigma ** 2),
    },
    readingIds: s.readings.filter((r) => r.state === "counts").map((r) => r.id),
  };
}
