import { wrapAngle } from "@/core/math/linear";
import { acrossId, alongId, bentId } from "@/core/ready";
import { nominalTarget, solveScene } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import {
  CORNERS,
  forecastSteps,
  playCauses,
  SIDES,
  weighCauses,
  type Found,
  type KnownMat,
  type Seen,
  type StepForecast,
} from "@/core/surround";
import type { CalibrationGround } from "./ground";
import type { JobEvent } from "./job";
import { planFor, sceneNow } from "./set-out";
import { surroundOf } from "./surround-of";

/** What is thought of a mat that nobody has measured: hands put it there by eye. */
const BY_EYE = { alongMm: 25, acrossMm: 20, headingRad: 0.006 } as const;

/** The mats of a calibration as everything read says they lie. */
type MatsNow = {
  mats: KnownMat[];
  /** How each lies off its place, along, across, heading in turn, with the joint covariance. */
  mean: number[];
  covariance: number[][];
};

/**
 * The mats of a calibration as the job's one estimate has them, in vehicle axes; one that nothing
 * was read of lies where an eye puts it.
 */
export function matsNow(view: CalibrationGround, events: readonly JobEvent[]): MatsNow {
  const targets = targetsOf(view.sheet).filter((t) => t.kind === "mat");
  const order = 3 * targets.length;
  const mean = Array.from({ length: order }, () => 0);
  const covariance = mean.map((_, i) => {
    const sigma = [BY_EYE.alongMm, BY_EYE.acrossMm, BY_EYE.headingRad][i % 3]!;
    return mean.map((__, j) => (i === j ? sigma * sigma : 0));
  });
  const wanted = targets.map((t) => nominalTarget(planFor(view, events, t.id)));
  if (targets.length > 0) {
    const { scene, entries } = sceneNow(view, events, targets[0]!.id);
    const solved = [...solveScene(scene, entries).targets.values()];
    const rows = targets.flatMap((t, i) => {
      const s = solved.find((x) => x.plan.target.id === t.id);
      const row = s?.adjustment?.joint.index[s.body];
      if (row === undefined) return [];
      const { pose } = s!.board;
      // Where it belongs about the wheels as they were read, not as the book draws them.
      const { pose: place } = s!.target;
      [
        pose.xMm - place.xMm,
        pose.yMm - place.yMm,
        wrapAngle(pose.headingRad - place.headingRad),
      ].forEach((v, k) => (mean[3 * i + k] = v));
      return [{ i, row, joint: s!.adjustment!.joint }];
    });
    for (const a of rows)
      for (const b of rows)
        for (let k = 0; k < 3; k++)
          for (let l = 0; l < 3; l++)
            covariance[3 * a.i + k]![3 * b.i + l] =
              a.joint.covariance[(a.row + k) * a.joint.order + b.row + l]!;
  }
  const mats = targets.map((t, i): KnownMat => {
    const sigma = (k: number): number => Math.sqrt(covariance[3 * i + k]![3 * i + k]!);
    const { aheadMm = 0, lengthMm = 0, widthMm } = t.object;
    return {
      id: t.id,
      wanted: wanted[i]!,
      form: { aheadMm, lengthMm, widthMm },
      sigma: { alongMm: sigma(0), acrossMm: sigma(1), headingRad: sigma(2) },
    };
  });
  return { mats, mean, covariance };
}

/** What was typed of a joined picture, as it is weighed. */
export const seenIn = (values: Readonly<Record<string, number>>): Seen => ({
  steps: CORNERS.flatMap((corner) => {
    const [alongMm, acrossMm] = [values[alongId(corner)], values[acrossId(corner)]];
    if (alongMm === undefined && acrossMm === undefined) return [];
    return [
      {
        corner,
        ...(alongMm === undefined ? {} : { alongMm }),
        ...(acrossMm === undefined ? {} : { acrossMm }),
      },
    ];
  }),
  bent: SIDES.filter((s) => values[bentId(s)] === 1),
  straight: SIDES.filter((s) => values[bentId(s)] === 0),
});

/** What can have made the steps that were read, the likeliest first. */
export function seamCauses(
  view: CalibrationGround,
  events: readonly JobEvent[],
  values: Readonly<Record<string, number>>,
): Found {
  const { mats } = matsNow(view, events);
  return weighCauses(playCauses(surroundOf(view.vehicle), mats), seenIn(values));
}

/** The steps that the mats would make as they are thought to lie. */
export function stepsAhead(view: CalibrationGround, events: readonly JobEvent[]): StepForecast {
  const { mats, mean, covariance } = matsNow(view, events);
  return forecastSteps(surroundOf(view.vehicle), mats, mean, covariance);
}
