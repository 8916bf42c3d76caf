import {
  checksOf,
  itemsOf,
  putRight,
  runLogOf,
  strikes,
  type CalibrationGround,
  type JobEvent,
} from "@/core/job";
import { targetsOf, type SheetStep, type Target } from "@/core/sheet";
import { degToRad } from "@/core/units";
import { sideCameras } from "@/core/vehicle";
import { armSits } from "@/devices/bench/readiness";
import type { BenchWorld } from "@/devices/bench/world";
import type { ArmSeen } from "@/devices/scan-tool/simulated";
import {
  mountedAfter,
  onDisplay,
  turnedBy,
  type ArmCamera,
  type CabinDisplay,
  type Spot,
} from "@/devices/vehicle/mirror-camera";
import type { JobRow } from "./store";

type AimStep = Extract<SheetStep, { kind: "aim" }>;
/** The bay as one target sees it. */
type BayOf = (targetId: string) => BenchWorld;

export const aimSteps = ({ sheet }: Pick<CalibrationGround, "sheet">): AimStep[] =>
  sheet.run.filter((s) => s.kind === "aim");

/** What the tool has turned a camera by, in order. */
const turnsOf = (events: readonly JobEvent[], view: CalibrationGround, stepId: string) => {
  const struck = strikes(events);
  const own = events.filter(
    (e) =>
      e.body.kind === "run" && e.body.calibrationId === view.calibrationId && !struck.has(e.id),
  );
  return runLogOf(own).flatMap((e) =>
    e.type === "aim-turned" && e.step === stepId ? [{ pan: e.pan, tilt: e.tilt }] : [],
  );
};

/**
 * A camera on its arm, as the repair left it and as the tool has turned it since; null where the
 * vehicle's book has none at that side.
 */
function armOf(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  step: AimStep,
  world: BenchWorld,
): ArmCamera | null {
  const found = sideCameras(view.vehicle).find((c) => c.side === step.side);
  const mark = targetsOf(view.sheet).find((t) => t.id === step.mark);
  if (!found || !mark) return null;
  const { xMm, yMm, zMm } = found.sensor;
  // About where it belongs: what the repair left it off by is far more than this leaves out.
  const [dx, dy] = [placeOf(world).x - xMm, placeOf(world).y - yMm];
  const division = degToRad(step.scale.divisionDeg);
  const wanted = {
    turn: Math.atan2(-dy, -dx) - step.at.right * division,
    down: Math.atan2(zMm, Math.hypot(dx, dy)) + step.at.up * division,
  };
  const seed = `${job.seed}/${view.calibrationId}`;
  const { upMm, inMm } = armSits(world, step.side, swungOut(view, events));
  const out = Math.sign(yMm);
  const mounted = mountedAfter(seed, step.side, [xMm, yMm - out * inMm, zMm + upMm], {
    ...wanted,
    // A folded arm turns its camera to the body.
    turn: wanted.turn + (inMm > 0 ? out * FOLDED_RAD : 0),
  });
  const rad = { pan: degToRad(step.steps.panDeg), tilt: degToRad(step.steps.tiltDeg) };
  return turnedBy(mounted, turnsOf(events, view, step.id), rad, seed);
}

/** How far a folded arm turns its camera inward, rad. */
const FOLDED_RAD = 1.1;

/** Whether somebody has put the arms into driving position since the vehicle came. */
function swungOut(view: CalibrationGround, events: readonly JobEvent[]): boolean {
  const item = itemsOf(view, "ready").find((i) => i.measure?.kind === "camera-places");
  if (!item) return false;
  return (
    putRight(events, item.id) > 0 ||
    checksOf(events, "ready").get(item.id)?.body.outcome === "fixed"
  );
}

/** Where a mark truly lies. */
const placeOf = (world: BenchWorld): { x: number; y: number } => ({
  x: world.mat!.at[0],
  y: world.mat!.at[1],
});

/** The cameras of a calibration as the scan tool finds them. */
export const armsSeen = (
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  bayOf: BayOf,
): ArmSeen[] =>
  aimSteps(view).flatMap((step): ArmSeen[] => {
    const world = bayOf(step.mark);
    const arm = armOf(job, view, events, step, world);
    if (!arm) return [];
    const { x, y } = placeOf(world);
    const at = onDisplay(arm, [x, y, 0], degToRad(step.scale.divisionDeg));
    const turns = turnsOf(events, view, step.id);
    const sum = (key: "pan" | "tilt"): number => turns.reduce((t, s) => t + s[key], 0);
    return [
      {
        side: step.side,
        right: (at?.right ?? 90) - step.at.right,
        up: (at?.up ?? 90) - step.at.up,
        within: step.within,
        turned: { pan: sum("pan"), tilt: sum("tilt") },
      },
    ];
  });

/** Half the arms of a cross as people draw it, mm. */
const ARM_MM = 60;

/** The display of one camera as the bay and the log have it; null where the book has no such camera. */
export function displayOf(
  job: JobRow,
  view: CalibrationGround,
  events: readonly JobEvent[],
  bayOf: BayOf,
  stepId: string,
): CabinDisplay | null {
  const step = aimSteps(view).find((s) => s.id === stepId);
  const world = step && bayOf(step.mark);
  const arm = step && world && armOf(job, view, events, step, world);
  if (!arm) return null;
  const division = degToRad(step.scale.divisionDeg);
  const spot = (x: number, y: number, z = 0): Spot | null => onDisplay(arm, [x, y, z], division);
  const side = step.side === "left" ? 1 : -1;
  const { vehicle } = view;
  const along = (y: number): Spot[] =>
    Array.from({ length: 40 }, (_, n) => spot(arm.at[0] - 600 - 500 * n, y)).flatMap(
      (s) => s ?? [],
    );
  const marks = targetsOf(view.sheet).filter(
    (t: Target) => t.kind === "mark" && t.object.side === step.side,
  );
  const far = spot(arm.at[0] - 1e7, arm.at[1], arm.at[2]);
  return {
    side: step.side,
    crosses: marks.map((t) => {
      const { x, y } = placeOf(bayOf(t.id));
      const stroke = (dx: number, dy: number): [Spot, Spot][] => {
        const [a, b] = [spot(x - dx, y - dy), spot(x + dx, y + dy)];
        return a && b ? [[a, b]] : [];
      };
      return { id: t.id, name: t.name, strokes: [...stroke(ARM_MM, 0), ...stroke(0, ARM_MM)] };
    }),
    lines: [
      { id: "flank", spots: along((side * vehicle.widthMm) / 2) },
      { id: "hubs", spots: along(side * (vehicle.trackFrontMm / 2 + vehicle.hubCapOutMm)) },
    ],
    horizonUp: far?.up ?? 0,
  };
}
