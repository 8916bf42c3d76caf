import type { Target } from "@/core/sheet";

/**
 * A board this far beside the line is missed by beams that run along the wheels: panels and scales
 * are half as wide.
 */
const ASIDE_MM = 250;
export const isAside = (target: Pick<Target, "placement" | "beam">): boolean =>
  Math.abs(target.beam?.acrossMm ?? target.placement.acrossMm) > ASIDE_MM;
