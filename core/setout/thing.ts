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

/** An end of a beam, by the side of the vehicle it points to. */
export type BeamEnd = "left" | "right" | "front" | "rear";

/** What an end is called before the word "end", and what the side is called that it points to. */
export const endWord = (end: BeamEnd): string =>
  end === "left" || end === "right" ? `vehicle-${end}` : end;
export const sideWord = (end: BeamEnd): string =>
  end === "left" || end === "right" ? `vehicle ${end}` : end;

/**
 * What lies which way of a board. `x` and `y`: going forward and to vehicle left, and the other way.
 * `ends`: its beam's end to the right of whoever looks out of it at the car, then the one to the left.
 */
export type Ways = Record<"x" | "y", readonly [string, string]> & {
  ends: readonly [BeamEnd, BeamEnd];
};

export const WAYS_AHEAD: Ways = {
  x: ["away from the car", "toward the car"],
  y: ["toward vehicle left", "toward vehicle right"],
  ends: ["left", "right"],
};

export const waysOf = (stands: Stands): Ways =>
  stands === "ahead" ? WAYS_AHEAD : onFloor().waysAround[stands];
