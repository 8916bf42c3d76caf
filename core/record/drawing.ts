import {
  drawingLines,
  floorPlan,
  spanOf,
  type FloorSpot,
  type SetOutSolution,
} from "@/core/setout";
import type { TargetRecord } from "./schema";

type Drawing = NonNullable<TargetRecord["drawing"]>;
type Pair = [number, number];

const tenth = (mm: number): number => Math.round(mm * 10) / 10;
const pair = (x: number, y: number): Pair => [tenth(x), tenth(y)];

/**
 * The set-out as a drawing: where everything belongs on the floor, and where each reading that counts
 * runs. Vehicle axes, mm, x forward and y to vehicle left.
 */
export function drawingOf(solution: SetOutSolution): Drawing {
  const floor = floorPlan(solution.plan);
  const slots = new Map(solution.slots.map((s) => [s.id, s]));
  const spot = ({ xMm, yMm }: FloorSpot): Pair => pair(xMm, yMm);
  return {
    marks: floor.marks.map((m) => ({ name: m.name, at: spot(m) })),
    lines: drawingLines(floor).map((l) => ({
      layer: l.layer,
      from: pair(...l.from),
      to: pair(...l.to),
    })),
    readings: solution.readings.flatMap((r) => {
      const slot = slots.get(r.slotId);
      const span = r.state === "counts" && slot ? spanOf(slot, solution) : null;
      return span ? [{ id: r.id, from: spot(span[0]), to: spot(span[1]) }] : [];
    }),
  };
}
