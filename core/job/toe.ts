import { ROLLED_TOE_SIGMA, toeSeen, type SetOutSolution } from "@/core/setout";
import { degToRad, formatNumber, radToDeg } from "@/core/units";
import type { CalibrationGround } from "./ground";
import { lastOf, type JobEvent } from "./job";

/** Rear toe as this job knows it already, so that nobody types it again. */
export type KnownToe = {
  how: "printed" | "rolled" | "read";
  /** As it would be typed, degrees: by the fields of the readiness item. */
  typed: { left: string; right: string; sigma?: string };
};

/** Everything that is known of the rear toe, the best last: printout, the car rolled, light from the wheels. */
export function knownToes(
  g: CalibrationGround,
  events: readonly JobEvent[],
  solution: SetOutSolution | null,
): KnownToe[] {
  const words = (left: number, right: number, sigma?: number): KnownToe["typed"] => ({
    left: plain(left),
    right: plain(right),
    ...(sigma === undefined ? {} : { sigma: plain(sigma) }),
  });
  const printed = g.intake.rearToeDeg;
  const rolled = lastOf(events, "rear-toe")?.body;
  const seen = solution && toeSeen(solution);
  return [
    ...(printed
      ? [{ how: "printed", typed: words(degToRad(printed.left), degToRad(printed.right)) } as const]
      : []),
    ...(rolled
      ? [
          {
            how: "rolled",
            typed: words(degToRad(rolled.leftDeg), degToRad(rolled.rightDeg), ROLLED_TOE_SIGMA),
          } as const,
        ]
      : []),
    ...(seen ? [{ how: "read", typed: words(seen.left, seen.right, seen.sigma) } as const] : []),
  ];
}

const plain = (rad: number): string => formatNumber(radToDeg(rad), 2).replace("\u2212", "-");
