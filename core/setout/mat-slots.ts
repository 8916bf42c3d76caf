import type { Target } from "@/core/sheet";
import { vehiclePoints, type VehiclePointId } from "@/core/vehicle";
import { sideOf } from "./hands";
import type { SetOutPlan } from "./plan";
import { asIs, inPlan, type Slot } from "./slot";

/**
 * What a mat's place is read with: tapes from the hubs of its own side to the corners of its inner
 * edge, tapes on the floor to the other mat, and the line of a floor laser through hub marks.
 */

type Corner = "front" | "rear";

/** The other mat of its setup, on the far side of the vehicle; null where there is none. */
const mateOf = ({ target, setup }: SetOutPlan): Target | null =>
  setup?.targets.find((t) => t.kind === "mat" && sideOf(t) !== sideOf(target)) ?? null;

/** Every reading of a mat that the kit allows, in the order people usually take them. */
export function matSlots(plan: SetOutPlan): Slot[] {
  const has = (kind: Slot["instrument"]): boolean => plan.instruments.some((i) => i.kind === kind);
  return [
    ...(has("tape") ? hubTapes(plan) : []),
    ...(has("floor-laser") ? laserLines(plan) : []),
    ...(has("tape") ? floorTapes(plan) : []),
  ];
}

/** From a hub down to a corner on the floor: the network is a plan, so the drop is taken out. */
function hubTapes(plan: SetOutPlan): Slot[] {
  const left = sideOf(plan.target) > 0;
  const word = left ? "left" : "right";
  const points = new Map(vehiclePoints(plan.vehicle).map((p) => [p.id, p]));
  const tape = (axle: Corner, corner: Corner, seconds: number): Slot => {
    const hub = `hub${axle === "front" ? "F" : "R"}${left ? "L" : "R"}` as VehiclePointId;
    const drop = points.get(hub)!.zMm;
    const name = `${axle} hub ${word} → inner ${corner} corner`;
    return {
      id: `mat-${axle}-${corner}`,
      name,
      short: `${hub.slice(3)} → ${corner}`,
      act: `Tape from the ${axle} hub ${word} to the inner ${corner} corner of the mat.`,
      instrument: "tape",
      quantity: { name: `the tape ${name}`, dimension: "length", min: 200, max: 12_000 },
      seconds,
      observes: inPlan((body) => ({ kind: "distance", from: hub, to: `${body}.${corner}In` })),
      toModel: (shown) => Math.sqrt(Math.max(0, shown * shown - drop * drop)),
      toShown: (model) => Math.hypot(model, drop),
    };
  };
  return [
    tape("front", "front", 30),
    tape("rear", "rear", 30),
    tape("front", "rear", 45),
    tape("rear", "front", 45),
  ];
}

/** Across the floor in front of the vehicle and behind it: inner corner to inner corner. */
function floorTapes(plan: SetOutPlan): Slot[] {
  const mate = mateOf(plan);
  if (!mate) return [];
  const tape = (corner: Corner): Slot => ({
    id: `mat-apart-${corner}`,
    name: `between the mats, ${corner} corners`,
    short: `mats ${corner}`,
    act: `Tape on the floor between the inner ${corner} corners of both mats, ${corner === "front" ? "before" : "behind"} the vehicle.`,
    instrument: "tape",
    quantity: {
      name: `the tape between the ${corner} corners`,
      dimension: "length",
      min: 500,
      max: 8000,
    },
    seconds: 40,
    mate: mate.id,
    observes: inPlan((body, other) => ({
      kind: "distance",
      from: `${body}.${corner}In`,
      to: `${other}.${corner}In`,
    })),
    ...asIs,
  });
  return [tape("front"), tape("rear")];
}

/**
 * A floor laser set over two hub marks draws their line past the mat: through both front hubs for
 * the cross line, through the hubs of one side for the inner edge.
 */
function laserLines(plan: SetOutPlan): Slot[] {
  const left = sideOf(plan.target) > 0;
  const word = left ? "left" : "right";
  const beside = (corner: Corner): Slot => ({
    id: `mat-line-${corner}`,
    name: `inner ${corner} corner from the ${word} hubs’ line`,
    short: `line ${corner}`,
    act: `Set the floor laser over the marks of both ${word} hubs; read from its line out to the inner ${corner} corner.`,
    instrument: "floor-laser",
    quantity: {
      name: `the inner ${corner} corner from the hubs’ line`,
      dimension: "length",
      min: 50,
      max: 4000,
    },
    seconds: 35,
    throwM: 4,
    observes: inPlan((body) => ({
      kind: "offset",
      point: `${body}.${corner}In`,
      lineFrom: left ? "hubRL" : "hubRR",
      lineTo: left ? "hubFL" : "hubFR",
    })),
    ...(left ? asIs : { toModel: (v: number): number => -v, toShown: (v: number): number => -v }),
  });
  return [
    {
      id: "mat-cross",
      name: "cross line from the front hubs’ line",
      short: "cross",
      act: "Set the floor laser over the marks of both front hubs; read how far the mat’s cross line lies ahead of its line.",
      instrument: "floor-laser",
      quantity: {
        name: "the cross line from the front hubs’ line",
        dimension: "length",
        min: plan.target.placement.alongMm - 600,
        max: plan.target.placement.alongMm + 600,
        expected: plan.target.placement.alongMm,
      },
      seconds: 30,
      throwM: 2,
      sides: { positive: "ahead", negative: "behind" },
      toAndFro: true,
      // From left hub to right hub the line's own left is ahead.
      observes: inPlan((body) => ({
        kind: "offset",
        point: `${body}.centre`,
        lineFrom: "hubFL",
        lineTo: "hubFR",
      })),
      ...asIs,
    },
    beside("front"),
    beside("rear"),
  ];
}
