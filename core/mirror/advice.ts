import { wrapAngle } from "@/core/math/linear";
import { aimShowing, shownAt, type Aim, type Place, type Shown } from "./view";

/** Commands of the scan tool: pan turns the camera outward, tilt turns it up; less than nothing the other way. */
export type Steps = { pan: number; tilt: number };

export type AimTask = {
  side: "left" | "right";
  /** The camera as the book has it, at the height that was measured. */
  camera: Place;
  /** The floor mark as it is known to lie. */
  mark: Place;
  divisionRad: number;
  /** Where on the scale it belongs. */
  wanted: Shown;
  stepRad: { pan: number; tilt: number };
  /** How many divisions it may be off, each way. */
  within: number;
};

/** What is not known exactly of an aim: the mark's place, the camera's, and what an eye reads. */
export type AimSigma = { markMm: number; cameraMm: number; divisions: number };

export type AimAdvice = {
  inside: boolean;
  steps: Steps;
  /** Where the mark will stand when they are done. */
  then: Shown;
  /** What angle is left then, and how well the aim is known: pan outward, tilt up, rad. */
  left: { pan: number; tilt: number };
  sigma: { pan: number; tilt: number };
  /** After them it is inside; otherwise its steps are too coarse for the sheet. */
  reaches: boolean;
};

/** Headings grow counter-clockwise: outward is that on vehicle right, and the other way on vehicle left. */
const outward = (side: "left" | "right"): 1 | -1 => (side === "left" ? -1 : 1);

const isInside = (shown: Shown, { wanted, within }: AimTask): boolean =>
  Math.abs(shown.right - wanted.right) <= within && Math.abs(shown.up - wanted.up) <= within;

/** How far one aim is from another, as the tool counts: outward and up. */
const between = (task: AimTask, from: Aim, to: Aim): { pan: number; tilt: number } => ({
  pan: outward(task.side) * wrapAngle(to.headingRad - from.headingRad),
  tilt: from.downRad - to.downRad,
});

/** An aim after the tool has turned the camera. */
const turned = (task: AimTask, aim: Aim, { pan, tilt }: Steps): Aim => ({
  headingRad: aim.headingRad + outward(task.side) * pan * task.stepRad.pan,
  downRad: aim.downRad - tilt * task.stepRad.tilt,
});

/**
 * What is to be done about where the mark stands on the display: so many steps each way, and what
 * is left after them. The camera's present aim follows from the reading, exactly; so does the one that
 * is wanted.
 *
 * @param read where the mark stands, divisions from the middle of the display
 * @throws AimError where no aim shows the mark there
 */
export function adviseAim(task: AimTask, read: Shown, sigma: AimSigma): AimAdvice {
  const { camera, mark, divisionRad, wanted, stepRad } = task;
  const now = aimShowing(camera, mark, read, divisionRad);
  const right = aimShowing(camera, mark, wanted, divisionRad);
  const turn = between(task, now, right);
  const steps = {
    pan: Math.round(turn.pan / stepRad.pan) || 0,
    tilt: Math.round(turn.tilt / stepRad.tilt) || 0,
  };
  const after = turned(task, now, steps);
  const then = shownAt(camera, after, mark, divisionRad)!;
  return {
    inside: isInside(read, task),
    steps,
    then,
    left: between(task, after, right),
    sigma: aimSigma(task, read, sigma),
    reaches: isInside(then, task),
  };
}

/**
 * Standard uncertainties of the aim that follows from a reading: of a mark that lies elsewhere, a
 * camera that sits elsewhere, an eye between two divisions. By central differences of the closed form;
 * what is off is taken as independent in each direction of the floor and in height.
 */
function aimSigma(task: AimTask, read: Shown, sigma: AimSigma): { pan: number; tilt: number } {
  const { camera, mark, divisionRad } = task;
  const from = (c: Place, m: Place, at: Shown): Aim => aimShowing(c, m, at, divisionRad);
  const shifted = (p: Place, key: keyof Place, by: number): Place => ({ ...p, [key]: p[key] + by });
  const parts: ((by: number) => Aim)[] = [
    ...(["xMm", "yMm"] as const).map(
      (k) => (by: number) => from(camera, shifted(mark, k, by * sigma.markMm), read),
    ),
    ...(["xMm", "yMm", "zMm"] as const).map(
      (k) => (by: number) => from(shifted(camera, k, by * sigma.cameraMm), mark, read),
    ),
    ...(["right", "up"] as const).map(
      (k) => (by: number) => from(camera, mark, { ...read, [k]: read[k] + by * sigma.divisions }),
    ),
  ];
  const derivatives = parts.map((at) => between(task, at(-0.5), at(0.5)));
  const root = (key: "pan" | "tilt"): number => Math.hypot(...derivatives.map((d) => d[key]));
  return { pan: root("pan"), tilt: root("tilt") };
}
