import type { Target } from "@/core/sheet";

/** Where a board stands about the vehicle. */
export type Stands = NonNullable<Target["stands"]>;
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

const CAR = ["away from the car", "toward the car"] as const;
const LEFT = ["toward vehicle left", "toward vehicle right"] as const;
const AHEAD = ["forward", "back"] as const;
const turned = ([a, b]: readonly [string, string]) => [b, a] as const;

/**
 * What lies which way of a board. `x` and `y`: going forward and to vehicle left, and the other way.
 * `ends`: its beam's end to the right of whoever looks out of it at the car, then the one to the left.
 */
type Ways = Record<"x" | "y" | "ends", readonly [string, string]>;

const SIDE_ENDS = ["rear", "front"] as const;
const LEFT_ENDS = ["vehicle-left", "vehicle-right"] as const;

export const WAYS: Record<Stands, Ways> = {
  ahead: { x: CAR, y: LEFT, ends: LEFT_ENDS },
  behind: { x: turned(CAR), y: LEFT, ends: turned(LEFT_ENDS) },
  left: { x: AHEAD, y: CAR, ends: SIDE_ENDS },
  right: { x: AHEAD, y: turned(CAR), ends: turned(SIDE_ENDS) },
};

/**
 * Whether what is read from one end of the beam to the other is told the other way round than the
 * arithmetic has it: people name vehicle left first, and the front.
 */
export const endsTurned = (stands: Stands): boolean => stands === "behind" || stands === "left";
