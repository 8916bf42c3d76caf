import { z } from "zod";
import { limitsFor, type PoseLimits, type RoadEffect } from "@/core/camera";
import type { Problem } from "@/core/book";
import { radToDeg } from "@/core/units";

/**
 * A source often names a place and no tolerance. The limits are the shop's own then, derived from
 * what a board in the wrong place may do on the road, by where this vehicle's camera sits.
 */
export const ownLimit = z.object({
  /** How far to the side a lane line 60 m ahead may be believed of where it is. */
  laneMm: z.number().min(50).max(3000),
  /** How wrong a distance of 60 m may be believed. */
  rangeMm: z.number().min(500).max(30000),
  /** Where the camera of each vehicle was taken to be: its height, the board's centre from there. */
  seen: z
    .array(
      z.object({
        cameraHeightMm: z.number().min(200).max(4000),
        aheadMm: z.number().min(300).max(20000),
        leftMm: z.number().min(-5000).max(5000),
      }),
    )
    .min(1),
});
export type OwnLimit = z.infer<typeof ownLimit>;

/** What a shop that has no other idea of it may begin with. */
export const USUAL_EFFECT: RoadEffect = { laneMm: 300, rangeMm: 6000 };

/** Hands prove no smaller limit than this: mm, degrees. */
const SMALLEST = { mm: 2, deg: 0.1 };

type Figures = {
  ownLimit?: OwnLimit;
  placement?: { heightMm?: number };
  object?: { widthMm?: number };
  tolerance?: Partial<Record<keyof Tolerance, number>>;
};
type Tolerance = {
  alongMm: number;
  acrossMm: number;
  twistDeg: number;
  heightMm: number;
  pitchDeg: number;
  rollDeg: number;
};

/** Rounded toward the careful side: whole millimetres, twentieths of a degree. */
const down = (value: number, step: number): number =>
  Math.round(Math.floor(value / step + 1e-9) * step * 1000) / 1000;

/**
 * The limits of a board that an effect on the road leaves, in the sheet's own units, rounded down;
 * of several vehicles the smaller. All six: a sheet states those of lean and level only where it
 * asks for them.
 */
export function ownTolerance(own: OwnLimit, heightMm: number, widthMm: number): Tolerance {
  const each = own.seen.map(({ cameraHeightMm, aheadMm, leftMm }) =>
    limitsFor(
      {
        camera: { xMm: 0, yMm: 0, zMm: cameraHeightMm },
        board: { aheadMm, leftMm, heightMm, widthMm },
      },
      own,
    ),
  );
  const least = (part: keyof PoseLimits): number => Math.min(...each.map((t) => t[part]));
  const t = Object.fromEntries(
    Object.keys(each[0]!).map((part) => [part, least(part as keyof PoseLimits)]),
  ) as PoseLimits;
  return {
    alongMm: down(t.alongMm, 1),
    acrossMm: down(t.acrossMm, 1),
    twistDeg: down(radToDeg(t.twistRad), 0.05),
    heightMm: down(t.heightMm, 1),
    pitchDeg: down(radToDeg(t.pitchRad), 0.05),
    rollDeg: down(radToDeg(t.rollRad), 0.05),
  };
}

/**
 * What is wrong with the limits of one target that says they come from the road: another figure than
 * the road gives, or one that no hands can prove.
 *
 * @param at path of the target in its sheet
 */
export function ownLimitProblems(target: unknown, at: string): Problem[] {
  const t = target as Figures;
  const own = ownLimit.safeParse(t.ownLimit);
  const [height, width] = [t.placement?.heightMm, t.object?.widthMm];
  if (!own.success || typeof height !== "number" || typeof width !== "number") return [];
  const derived = ownTolerance(own.data, height, width);
  return Object.entries(t.tolerance ?? {}).flatMap(([part, value]): Problem[] => {
    const field = `${at}.tolerance.${part}`;
    if (value !== derived[part as keyof Tolerance])
      return [
        {
          field,
          message: `is not what the effect on the road leaves: that is ${derived[part as keyof Tolerance]}. Say again how much the road may be off.`,
        },
      ];
    const smallest = part.endsWith("Mm") ? SMALLEST.mm : SMALLEST.deg;
    return value < smallest
      ? [{ field, message: `${value} is less than hands can prove. Allow more on the road.` }]
      : [];
  });
}
