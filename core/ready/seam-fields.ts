import { CORNERS, SIDES } from "@/core/surround/names";
import type { Field } from "./field";
import { acrossId, alongId, bentId, SEAM_NAMES } from "./seams";

/** More than this is no step but another picture, mm. */
const MOST_MM = 400;

/**
 * What is read off a joined picture: two steps at each seam, and whether lines are bent in any of
 * the four parts. A step says how far the side camera's part lies from the other one, forward and to
 * vehicle left.
 */
export function seamFields(): Field[] {
  const step = (id: string, name: string): Field => ({
    id,
    name,
    at: null,
    unit: "mm",
    quantity: { name: `the step ${name}`, dimension: "length", min: -MOST_MM, max: MOST_MM },
  });
  return [
    ...CORNERS.flatMap((c) => [
      step(alongId(c), `${SEAM_NAMES[c]}, lines across, forward +`),
      step(acrossId(c), `${SEAM_NAMES[c]}, lines along, to the left +`),
    ]),
    ...SIDES.map((s): Field => ({
      id: bentId(s),
      name: `lines bent in the ${s} picture`,
      at: null,
      optional: true,
      unit: "share",
      quantity: { name: "whether lines are bent", dimension: "count", min: 0, max: 1 },
    })),
  ];
}
