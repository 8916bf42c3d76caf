import { markOut, nominalTarget, plainFigure, wantedHeight, type SchoolId } from "@/core/setout";
import { formatNumber, radToDeg } from "@/core/units";
import type { CalibrationGround } from "./ground";
import { eventsOf, type JobEvent } from "./job";
import { planFor } from "./set-out";
import { calibrationLog, targetInHand } from "./standing";

/** What is known of the next place before the vehicle's clock runs. */
export type Preparation = {
  /** Its name in the sheet, and the code of what hangs there. */
  name: string;
  code: string;
  /** How the stand goes there from where it stands, by the sheet's figures. */
  moves: string[];
  /** What its readings show when it stands right. */
  readings: { name: string; shows: string }[];
};

/** Less is nothing to be moved by, mm and rad. */
const LEAST = { mm: 2, rad: 0.0017 };

/**
 * How the board goes to a place of the sheet from the one it stands at, and what is read there when it
 * is right.
 */
export function prepare(
  view: CalibrationGround,
  events: readonly JobEvent[],
  toId: string,
): Preparation {
  const here = targetInHand(view, events);
  const [from, to] = [here.id, toId].map((id) => planFor(view, events, id)) as [
    ReturnType<typeof planFor>,
    ReturnType<typeof planFor>,
  ];
  const [a, b] = [nominalTarget(from), nominalTarget(to)];
  const [dx, dy] = [b.xMm - a.xMm, b.yMm - a.yMm];
  const up = wantedHeight(to) - wantedHeight(from);
  const turn = Math.atan2(
    Math.sin(b.headingRad - a.headingRad),
    Math.cos(b.headingRad - a.headingRad),
  );
  const mm = (v: number): string => `${formatNumber(Math.abs(v))} mm`;
  const cross = to.stand.joints.find((j) => j.kind === "slide" && j.axis === "cross");
  const slides =
    cross?.kind === "slide" && Math.abs(dy) <= cross.limitMm && Math.abs(dx) < LEAST.mm;
  const moves = [
    ...(Math.abs(dx) >= LEAST.mm
      ? [`Roll the stand ${mm(dx)} ${dx > 0 ? "away from" : "toward"} the vehicle.`]
      : []),
    ...(Math.abs(dy) >= LEAST.mm
      ? [
          `${slides ? "Slide the cross slide" : "Roll the stand"} ${mm(dy)} to vehicle ${dy > 0 ? "left" : "right"}.`,
        ]
      : []),
    ...(Math.abs(turn) >= LEAST.rad
      ? [`Turn the board ${formatNumber(Math.abs(radToDeg(turn)), 1)}°.`]
      : []),
    ...(Math.abs(up) >= LEAST.mm ? [`Crank it ${mm(up)} ${up > 0 ? "up" : "down"}.`] : []),
  ];
  const { code } = to.target.object;
  if (code !== from.target.object.code) moves.push(`Hang ${code}.`);
  const chosen = eventsOf(calibrationLog(view, events), "school").at(-1)?.body.school;
  const school: SchoolId = chosen ?? "tapes";
  return {
    name: to.target.name,
    code,
    moves,
    readings: markOut(to, school)
      .steps.filter(
        ({ slot }) => slot.observes.in === "plan" && slot.quantity.dimension === "length",
      )
      .slice(0, 4)
      .map(({ slot, expected }) => ({
        name: slot.name,
        shows: `${plainFigure(slot, slot.sides ? Math.abs(expected) : expected, "mm")} mm`,
      })),
  };
}
