import { floorStep, insideChance, DEFAULT_THRESHOLDS } from "@/core/setout";
import { targetsOf, type Sheet } from "@/core/sheet";
import type { JobGround } from "./ground";

type Item = Sheet["ready"][number];

/** Asked where a sheet does not ask for the floor and its height tolerance cannot do without. */
export const ASKED_FLOOR: Item = {
  id: "floor-asked",
  ask: "Floor read at the four tyres and at the stand",
  why: "The height counts from the car’s plane; the sheet’s tolerance is finer than what an unmeasured floor may fall.",
  measure: { kind: "floor", slopeDeg: 1, twistMm: 10 },
};

/**
 * What is to be checked at a stage: the sheet's own items, and the floor where the sheet forgot it.
 */
export function itemsOf(g: Pick<JobGround, "sheet" | "vehicle">, stage: "ready" | "prove"): Item[] {
  const items: Item[] = g.sheet[stage];
  if (stage === "prove" || items.some((i) => i.measure?.kind === "floor")) return items;
  const sure = targetsOf(g.sheet).every((target) => {
    const { sigma } = floorStep({ target, vehicle: g.vehicle });
    return insideChance(0, sigma, target.tolerance.heightMm) >= DEFAULT_THRESHOLDS.setChance;
  });
  return sure ? items : [...items, ASKED_FLOOR];
}

/** One item of a stage by its id. */
export const itemOf = (
  g: Pick<JobGround, "sheet" | "vehicle">,
  stage: "ready" | "prove",
  id: string,
): Item | undefined => itemsOf(g, stage).find((i) => i.id === id);
