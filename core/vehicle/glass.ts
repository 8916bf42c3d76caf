import { combine, fitLinear, type LinearFit } from "@/core/math/fit";

/** Places round the windshield where its depth against the body is read: corners and mid-edges. */
export const GLASS_SPOTS = [
  "top-left",
  "top",
  "top-right",
  "left",
  "right",
  "bottom-left",
  "bottom",
  "bottom-right",
] as const;
export type GlassSpot = (typeof GLASS_SPOTS)[number];

/** A windshield: its size in its own plane and how far it leans from the horizontal. */
export type Glass = {
  widthMm: number;
  heightMm: number;
  rakeRad: number;
  bracketAcrossMm: number;
  bracketUpMm: number;
};

type Estimate = { value: number; sigma: number };

export type GlassSeat = {
  fit: LinearFit;
  /** Turn of the glass, and so of the bracket glued to it, in vehicle axes; radians. */
  yawRad: Estimate;
  pitchRad: Estimate;
  rollRad: Estimate;
  /**
   * Twist of the glass: how far the corners depart from a plane, alternately, mm. Null where
   * nothing shows it.
   */
  twistMm: Estimate | null;
  /** How far the bracket stands proud of its place, mm. */
  proudMm: Estimate;
  /** The spot that fits least, when it is surely off (|w| above 3.29). */
  odd: GlassSpot | null;
};

/**
 * A spot's place in the glass's own plane, from its centre: u to vehicle left, v up along the
 * glass.
 */
export const glassPlace = (g: Glass, spot: GlassSpot): { u: number; v: number } => ({
  u: (spot.includes("left") ? 0.5 : spot.includes("right") ? -0.5 : 0) * g.widthMm,
  v: (spot.includes("top") ? 0.5 : spot.includes("bottom") ? -0.5 : 0) * g.heightMm,
});

/**
 * Seat of the glass from seating depths: how proud (+) or deep (-) it stands against the body at
 * each spot, mm.
 *
 * Depth d(u, v) = c + a u + b v + t u v / (area / 4); a plane when fewer than six spots were read.
 * The normal of the glass points forward and up. A slope b along the glass turns it about the
 * vehicle's y axis; a slope a across turns it by -a about the direction up along the glass, (-cos
 * rake, 0, sin rake) in vehicle axes, which is part roll, part yaw:
 *   pitch = b (nose-down positive about y), yaw = -a sin(rake), roll = a cos(rake).
 * Seating depth cannot show a turn of the glass in its own plane; the gaps at its edges do.
 *
 * @param depths mm at three or more spots, not in a line
 * @param sigmaMm standard uncertainty of one depth
 * @throws LooseFitError
 */
export function fitGlass(
  g: Glass,
  depths: Partial<Record<GlassSpot, number>>,
  sigmaMm: number,
): GlassSeat {
  const taken = GLASS_SPOTS.filter((s) => depths[s] !== undefined);
  const twisted = taken.length >= 6;
  const rows = taken.map((s) => {
    const { u, v } = glassPlace(g, s);
    return twisted ? [1, u, v, (4 * u * v) / (g.widthMm * g.heightMm)] : [1, u, v];
  });
  const fit = fitLinear(
    rows,
    taken.map((s) => depths[s]!),
    taken.map(() => sigmaMm),
  );
  const pad = (by: number[]): number[] => (twisted ? [...by, 0] : by);
  const bracket = [1, g.bracketAcrossMm, g.bracketUpMm];
  const worst = fit.w.reduce((k, w, i) => (Math.abs(w) > Math.abs(fit.w[k]!) ? i : k), 0);
  return {
    fit,
    pitchRad: combine(fit, pad([0, 0, 1])),
    yawRad: combine(fit, pad([0, -Math.sin(g.rakeRad), 0])),
    rollRad: combine(fit, pad([0, Math.cos(g.rakeRad), 0])),
    twistMm: twisted ? combine(fit, [0, 0, 0, 1]) : null,
    proudMm: combine(
      fit,
      twisted
        ? [...bracket, (4 * g.bracketAcrossMm * g.bracketUpMm) / (g.widthMm * g.heightMm)]
        : bracket,
    ),
    odd: Math.abs(fit.w[worst] ?? 0) > 3.29 ? taken[worst]! : null,
  };
}
