import { checksOf, itemsOf, type CalibrationGround, type JobEvent } from "@/core/job";
import { placeOfCheck } from "@/core/ready";
import { cautionAt, type CheckItem } from "@/core/sheet";

/** What protects whoever works at the wheels: said as one comes to them, not over every item. */
export function cautionOf(
  ground: CalibrationGround,
  events: readonly JobEvent[],
  item: CheckItem,
): string | undefined {
  if (placeOfCheck(item) !== "wheels") return undefined;
  const done = checksOf(events, "ready");
  const begun = itemsOf(ground, "ready").some(
    (i) => i.id !== item.id && placeOfCheck(i) === "wheels" && done.has(i.id),
  );
  return begun ? undefined : cautionAt(ground.sheet, "wheels");
}
