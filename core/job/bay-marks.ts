import { floorMarks, MissingThrustError } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import type { Bay } from "@/core/space/bay";
import type { Vec } from "@/core/space/convex";
import type { FloorDrawing } from "@/core/space/drawing-file";
import { placed, type Pose } from "@/core/space/fit";
import { parkMarks, vehicleZone } from "@/core/space/zones";
import { formatNumber } from "@/core/units";
import { viewsOf, type JobGround } from "./ground";
import type { JobEvent } from "./job";
import { planFor } from "./set-out";

/** Marks that are the vehicle's own, whatever is set out about it. */
const OF_VEHICLE = /^(hub|badge|axle-)/;

/**
 * What is marked on a bay's floor for a job: the vehicle where it is to stand with the tapes to its
 * wheels, and where the targets of its calibrations belong about it, as the book has the vehicle.
 *
 * @param pose of the vehicle in the bay
 */
export function bayMarks(
  ground: JobGround,
  events: readonly JobEvent[],
  bay: Bay,
  pose: Pose,
): FloorDrawing {
  const { vehicle } = ground;
  const inBay = (shape: readonly Vec[]): Vec[] => placed(shape, pose);
  const points: FloorDrawing["points"] = [];
  const lines: FloorDrawing["lines"] = [
    { name: "vehicle", shape: inBay(vehicleZone(vehicle).shape), closed: true },
  ];
  const wheels: Vec[] = [
    [vehicle.wheelbaseMm, vehicle.trackFrontMm / 2],
    [0, vehicle.trackRearMm / 2],
  ];
  parkMarks(bay, vehicle, pose).forEach(({ wheel, from }, i) => {
    const tapes = from.map(({ wall, mm }) => `wall ${wall} ${formatNumber(mm)} mm`).join(", ");
    points.push({ name: `${wheel}: ${tapes}`, at: inBay([wheels[i]!])[0]! });
  });
  for (const view of viewsOf(ground))
    for (const target of targetsOf(view.sheet)) {
      // What stands about the trailer has its place from the trailer.
      if (target.frame) continue;
      try {
        const marks = floorMarks(planFor(view, events, target.id));
        const own = marks.filter((m) => !OF_VEHICLE.test(m.id));
        const at = own.map((m) => inBay([[m.xMm, m.yMm]])[0]!);
        own.forEach((m, k) => points.push({ name: `${target.name}: ${m.name}`, at: at[k]! }));
        // The two ends of what holds it come after its middle.
        if (at.length === 3) lines.push({ name: target.name, shape: at.slice(1), closed: false });
      } catch (error) {
        // Nobody has said yet which way the rear axle steers: the rest is marked all the same.
        if (!(error instanceof MissingThrustError)) throw error;
      }
    }
  return { lines, points };
}
