import { checksOf, itemsOf, type CalibrationGround, type JobEvent } from "@/core/job";
import { placeOfCheck } from "@/core/ready";
import { cautionAt, type CheckItem } from "@/core/sheet";

/** Between a vehicle and its trailer somebody can be crushed, whatever the sheet says. */
const BETWEEN = {
  taped: "Chocks in at both before anyone goes between vehicle and trailer.",
  pulled: "Nobody stands between vehicle and trailer, or behind it, while it is pulled.",
};

/**
 * What protects whoever works at the wheels: said as one comes to them, not over every item.
 *
 * @param outside what was read asks for the vehicle to be moved
 */
export function cautionOf(
  ground: CalibrationGround,
  events: readonly JobEvent[],
  item: CheckItem,
  outside = false,
): string | undefined {
  if (item.measure?.kind === "articulation") return BETWEEN[outside ? "pulled" : "taped"];
  if (placeOfCheck(item) !== "wheels") return undefined;
  const done = checksOf(events, "ready");
  const begun = itemsOf(ground, "ready").some(
    (i) => i.id !== item.id && placeOfCheck(i) === "wheels" && done.has(i.id),
  );
  return begun ? undefined : cautionAt(ground.sheet, "wheels");
}
