import {
  AIM_AXES,
  boardBias,
  fitOfAim,
  foretellAim,
  stanceBias,
  UNREAD_ROLL,
  UNREAD_STANCE,
  type AimAxis,
  type BodyStance,
} from "@/core/guide";
import { glassSeatOf, stanceFrom } from "@/core/ready";
import { nominalTarget } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import { degToRad, radToDeg } from "@/core/units";
import { isAboutVehicle } from "./board-sides";
import type { CalibrationGround } from "./ground";
import { putRight } from "./item";
import { itemsOf } from "./items";
import { eventsOf, lastOf, measuredOf, type JobEvent } from "./job";
import { planFor } from "./set-out";
import { settledQuantities } from "./settle";
import { calibrationLog, runOf, standingAt } from "./standing";

/** The learned aim beside the one that was foretold before the vehicle looked, degrees. */
export type AimForetold = {
  axes: { axis: AimAxis; learnedDeg: number; meanDeg: number; sigmaDeg: number; w: number }[];
  /** The share of cars, all in order, whose aim lies at least so far from the foretold one. */
  p: number;
  /** Whether the seat of the glass was measured, and tells how the camera sits. */
  glass: boolean;
  /** Whether the body's stance was measured at its arches. */
  stance: boolean;
};

/** Below the first an aim is unusual; below the second it does not go with what was measured. */
const UNUSUAL_P = 0.05;
const AT_ODDS_P = 0.001;
export const aimFits = ({ p }: Pick<AimForetold, "p">): "fits" | "unusual" | "at-odds" =>
  p < AT_ODDS_P ? "at-odds" : p < UNUSUAL_P ? "unusual" : "fits";

/** A camera as the book has it; null where nobody entered where it sits. */
export function cameraOf({
  vehicle: v,
  sheet,
}: CalibrationGround): { xMm: number; yMm: number; zMm: number } | null {
  const { system } = sheet.appliesTo;
  if (system === "forward-camera") return v.camera;
  // Two cameras of one system share one answer of the routine: it is none of either.
  const entered = v.sensors?.filter((s) => s.system === system) ?? [];
  return entered.length === 1 ? entered[0]! : null;
}

/** How the glass sits that the camera hangs on; null where it was not measured, or it hangs elsewhere. */
export function glassOf(
  { vehicle, sheet }: CalibrationGround,
  events: readonly JobEvent[],
): Parameters<typeof foretellAim>[0] {
  const depths = lastOf(events, "glass")?.body.depths;
  const forward = sheet.appliesTo.system === "forward-camera";
  const seat = forward && depths ? (glassSeatOf(vehicle, depths)?.seat ?? null) : null;
  return seat && { seat, rakeRad: degToRad(vehicle.glass.rakeDeg) };
}

/** How the body stood when its arches were last measured, and was not put right since; else as cars do. */
function stanceOf(view: CalibrationGround, events: readonly JobEvent[]): BodyStance {
  const item = itemsOf(view, "ready").find((i) => i.measure?.kind === "arches");
  const read = item && measuredOf(events).get(item.id);
  if (!item || !read || read.seq < putRight(events, item.id)) return UNREAD_STANCE;
  const { pitchRad, rollRad, cameraHeightMm } = stanceFrom(view.vehicle, read.body.values);
  const { value, sigma } = cameraHeightMm;
  return { pitchRad, rollRad, riseMm: { value: value - view.vehicle.camera.zMm, sigma } };
}

/** What the body's stance adds to what a camera learns of a board so far away. */
export function bodyBias(
  view: CalibrationGround,
  events: readonly JobEvent[],
  rangeMm: number,
): ReturnType<typeof stanceBias> {
  const { system } = view.sheet.appliesTo;
  const entered = view.vehicle.sensors?.find((s) => s.system === system);
  const heading = system === "forward-camera" ? 0 : degToRad(entered?.headingDeg ?? 0);
  return stanceBias(rangeMm, heading, stanceOf(view, events));
}

/**
 * The aim a camera learned beside what set-out and glass seat had foretold of it, each with its
 * spread. A board that stood beside its place, or a bracket that sits askew, shows here where every
 * reading may agree with every other.
 *
 * @returns null while it has learned none, and where no board was proved or the book does not say
 *   where the camera sits
 */
export function aimForetold(
  view: CalibrationGround,
  events: readonly JobEvent[],
): AimForetold | null {
  const { result } = runOf(view, events).state;
  const camera = cameraOf(view);
  const learned = [result?.learnedYawDeg, result?.learnedPitchDeg, result?.learnedRollDeg];
  if (!camera || learned.some((v) => v === undefined)) return null;
  const looked = eventsOf(calibrationLog(view, events), "run").at(-1)!;
  const then = events.filter((e) => e.seq <= looked.seq || e.body.kind === "strike");
  const ranges: number[] = [];
  const boards = targetsOf(view.sheet)
    .filter(isAboutVehicle)
    .flatMap((target) => {
      const settled = standingAt(view, then, target.id)?.settled;
      if (!settled) return [];
      const place = nominalTarget(planFor(view, then, target.id));
      const [dx, dy] = [place.xMm - camera.xMm, place.yMm - camera.yMm];
      const rangeMm = Math.hypot(dx, dy);
      const of = (id: string) => settledQuantities(settled.body, target).find((q) => q.id === id);
      const [along, across, height] = [of("along"), of("across"), of("height")];
      if (!along || !across || !height) return [];
      // A quarter turn left of the line of sight: what of an error the camera sees beside it.
      const [nx, ny] = [-dy / rangeMm, dx / rangeMm];
      const roll = of("roll");
      ranges.push(rangeMm);
      return [
        boardBias(
          rangeMm,
          {
            mm: nx * along.error + ny * across.error,
            sigma: Math.hypot(nx * along.sigma, ny * across.sigma),
          },
          { mm: height.error, sigma: height.sigma },
          { rad: roll?.error ?? 0, sigma: roll?.sigma ?? UNREAD_ROLL },
        ),
      ];
    });
  if (boards.length === 0) return null;
  const glass = glassOf(view, events);
  const meanRange = ranges.reduce((s, r) => s + r, 0) / ranges.length;
  const foretold = foretellAim(glass, boards, bodyBias(view, then, meanRange));
  const rad = learned.map((v) => degToRad(v!)) as [number, number, number];
  const fit = fitOfAim(rad, foretold);
  return {
    axes: AIM_AXES.map((axis, i) => ({
      axis,
      learnedDeg: learned[i]!,
      meanDeg: radToDeg(foretold.mean[i]!),
      sigmaDeg: radToDeg(Math.sqrt(foretold.covariance[i]![i]!)),
      w: fit.w[i]!,
    })),
    p: fit.p,
    glass: glass !== null,
    stance: stanceOf(view, then) !== UNREAD_STANCE,
  };
}

/** What an aim that does not fit may come from, and what to do; null where it fits. */
export function aimAdvice(
  aim: Pick<AimForetold, "axes" | "p" | "glass">,
): { say: string; todo: string } | null {
  const fits = aimFits(aim);
  if (fits === "fits") return null;
  const worst = aim.axes.reduce((a, b) => (Math.abs(b.w) > Math.abs(a.w) ? b : a));
  const share = aim.p < 0.0005 ? "fewer than 1 of 2,000" : `about 1 of ${Math.round(1 / aim.p)}`;
  return {
    say:
      fits === "at-odds"
        ? `The learned ${worst.axis} does not go with what was measured: ${share} cars in order lies so far off.`
        : `The learned ${worst.axis} is unusual: ${share} cars in order lies so far off.`,
    todo: aim.glass
      ? "Read the board again before anything is touched, and look at bracket and camera."
      : "Read the board again before anything is touched, and measure the seat of the glass.",
  };
}
