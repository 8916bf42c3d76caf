import type { Target } from "@/core/sheet";
import { onFloor } from "./on-floor";

declare module "./on-floor" {
  interface FloorParts {
    waysAround: Record<Around, Ways>;
  }
}

/** Where a board stands about the vehicle. */
export type Stands = NonNullable<Target["stands"]>;
export type Around = Exclude<Stands, "ahead">;
export const standsOf = ({ stands }: Pick<Target, "stands">): Stands => stands ?? "ahead";

/** What a target on a stand is called, what it hangs on, and where about the vehicle it stands. */
export type Thing = { thing: "board" | "reflector"; beam: "beam" | "bar"; stands: Stands };

/** A reflector's stand has a short bar. */
export const thingOf = (target: Pick<Target, "object" | "stands">): Thing => ({
  ...(target.object.is === "reflector"
    ? { thing: "reflector", beam: "bar" }
    : { thing: "board", beam: "beam" }),
  stands: standsOf(target),
});

/**
 * What lies which way of a board. `x` and `y`: going forward and to vehicle left, and the other way.
 * `ends`: its beam's end to the right of whoever looks out of it at the car, then the one to the left.
 */
export type Ways = Record<"x" | "y" | "ends", readonly [string, string]>;

export const WAYS_AHEAD: Ways = {
  x: ["away from the car", "toward the car"],
  y: ["toward vehicle left", "toward vehicle right"],
  ends: ["vehicle-left", "vehicle-right"],
};

export const waysOf = (stands: Stands): Ways =>
  stands === "ahead" ? WAYS_AHEAD : onFloor().waysAround[stands];

/**
 * Whether what is read from one end of the beam to the other is told the other way round than the
 * arithmetic has it: people name vehicle left first, and the front.
 */
export const endsTurned = (stands: Stands): boolean => stands === "behind" || stands === "left";
