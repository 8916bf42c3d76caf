import type { BoardKnowledge, Setting } from "@/core/camera";
import { centredProbability } from "./chance";
import { nominalTarget, type SetOutPlan } from "./plan";
import { planHalfWidths } from "./proof";
import type { SetOutSolution } from "./solve";
import { insideChance, scalarErrors } from "./verdict";

/** What the vehicle's computer believes, from vehicle and sheet. */
export function roadSetting(plan: Pick<SetOutPlan, "vehicle" | "target" | "rearToe">): Setting {
  const { vehicle, target: wanted } = plan;
  // Of boards that share a beam each has its own place: the middle of the beam is not what is seen.
  const { beam: _, ...alone } = wanted;
  const target = nominalTarget({ ...plan, target: alone });
  return {
    camera: vehicle.camera,
    board: {
      aheadMm: target.xMm - vehicle.camera.xMm,
      leftMm: target.yMm - vehicle.camera.yMm,
      heightMm: wanted.placement.heightMm,
      widthMm: wanted.object.widthMm,
    },
  };
}

/**
 * What is known of the board, as the road needs it. The aim counts in the datum's axes, which lie
 * within a few milliradians of the vehicle's: errors of a few millimetres change by their product
 * with that, hundredths of one. Null while nothing solves.
 */
export function boardKnowledge(s: SetOutSolution): BoardKnowledge | null {
  if (!s.aim) return null;
  const scalar = new Map(scalarErrors(s).map((q) => [q.id, q]));
  const of = (id: "height" | "pitch" | "roll") => scalar.get(id) ?? { error: 0, sigma: 0 };
  return {
    mean: {
      alongMm: s.aim.alongMm,
      acrossMm: s.aim.acrossMm,
      twistRad: s.aim.twistRad,
      heightMm: of("height").error,
      pitchRad: of("pitch").error,
      rollRad: of("roll").error,
    },
    planCovariance: s.aim.covariance,
    sigma: { heightMm: of("height").sigma, pitchRad: of("pitch").sigma, rollRad: of("roll").sigma },
  };
}

/** What the chance of being inside hangs on, as plain figures that a worker can be handed. */
export type ToleranceCase = {
  mean: [number, number, number];
  covariance: number[][];
  halves: [number, number, number];
  scalars: { error: number; sigma: number; half: number }[];
};

/** The case of a solution; null while nothing solves. */
export const toleranceCase = (s: SetOutSolution): ToleranceCase | null =>
  s.aim && {
    mean: [s.aim.alongMm, s.aim.acrossMm, s.aim.twistRad],
    covariance: s.aim.covariance,
    halves: planHalfWidths(s.plan.target),
    scalars: scalarErrors(s).map(({ error, sigma, half }) => ({ error, sigma, half })),
  };

/** The chance that everything lies inside `k` times the sheet's tolerances, for each `k`. */
export const chanceByTolerance = (
  c: ToleranceCase,
  factors: readonly number[],
): { factor: number; chance: number }[] =>
  factors.map((factor) => ({
    factor,
    chance: c.scalars.reduce(
      (p, q) => p * insideChance(q.error, q.sigma, q.half * factor),
      centredProbability(
        c.mean,
        c.covariance,
        c.halves.map((h) => h * factor),
      ),
    ),
  }));
