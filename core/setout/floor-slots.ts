import type { Target } from "@/core/sheet";
import { vehiclePoints, type VehiclePointId } from "@/core/vehicle";
import { trailerAlone } from "@/core/vehicle/trailer";
import { acrossSlots } from "./across-slots";
import { aroundSlots } from "./around-slots";
import { quantityWordsOf, WAYS_AROUND } from "./around-words";
import { drawMoves, drawnBy, matPoints } from "./draw";
import { drawWords } from "./draw-words";
import { sideOf } from "./hands";
import { markSlots } from "./mark-slots";
import { installOnFloor } from "./on-floor";
import type { SetOutPlan } from "./plan";
import { relationErrors } from "./relations";
import { asIs, flipped, inPlan, type Slot } from "./slot";

/**
 * What a mat's place is read with: tapes from the hubs of its own side to the corners of its inner
 * edge, tapes on the floor to the other mat, and the line of a floor laser through hub marks.
 */

type Corner = "front" | "rear";

/** Whether it lies across the vehicle's way, ahead of it or behind it. */
const liesAcross = ({ lies }: Pick<Target, "lies">): boolean =>
  lies === "ahead" || lies === "behind";

/**
 * The other mat of its setup, on the far side of the vehicle; null where there is none. Of mats in two
 * pieces the one that lies as far ahead.
 */
const mateOf = ({ target, setup }: SetOutPlan): Target | null =>
  setup?.targets.find(
    (t) =>
      t.kind === "mat" &&
      !liesAcross(t) &&
      sideOf(t) !== sideOf(target) &&
      Math.abs(t.placement.alongMm - target.placement.alongMm) < ABREAST_MM,
  ) ?? null;

/** Two pieces of a side lie farther from each other than this, along. */
const ABREAST_MM = 600;

/** How far ahead of the front hubs the cross line of a mat may be read, and should be. */
const crossLine = ({ target }: SetOutPlan, name: string): Slot["quantity"] => ({
  name,
  dimension: "length",
  min: target.placement.alongMm - 600,
  max: target.placement.alongMm + 600,
  expected: target.placement.alongMm,
});

/** Every reading of a mat or a floor mark that the kit allows, in the order people usually take them. */
function floorSlots(plan: SetOutPlan): Slot[] {
  if (plan.target.kind === "mark") return markSlots(plan);
  if (liesAcross(plan.target)) return acrossSlots(plan);
  const has = (kind: Slot["instrument"]): boolean => plan.instruments.some((i) => i.kind === kind);
  return [
    ...(has("tape") ? hubTapes(plan) : []),
    ...(has("floor-laser") ? laserLines(plan) : []),
    ...(has("tape") ? floorTapes(plan) : []),
  ];
}

/**
 * From the hubs of its side: square out to the inner edge, ahead or back to the cross line, and as a
 * check the long tapes to the far corners. Those run down from hub height; the network is a plan, so
 * the drop is taken out.
 */
function hubTapes(plan: SetOutPlan): Slot[] {
  const left = sideOf(plan.target) > 0;
  const word = left ? "left" : "right";
  const hubOf = (axle: Corner) =>
    `hub${axle === "front" ? "F" : "R"}${left ? "L" : "R"}` as VehiclePointId;
  const drop = vehiclePoints(plan.vehicle).find((p) => p.id === hubOf("front"))!.zMm;
  const beside = (axle: Corner): Slot => ({
    id: `mat-beside-${axle}`,
    name: `${axle} hub ${word} → inner edge, square`,
    short: `${hubOf(axle).slice(3)} → edge`,
    act: `Plumb the ${axle} hub ${word}; read from its mark square out to the inner edge of the mat.`,
    instrument: "tape",
    quantity: {
      name: `from the ${axle} hub ${word} to the inner edge`,
      dimension: "length",
      min: 2,
      max: 4000,
    },
    seconds: 30,
    // Of a mat on vehicle left the hub lies to the right of its edge as one looks forward.
    observes: inPlan((body) => ({
      kind: "offset",
      point: hubOf(axle),
      lineFrom: `${body}.rearIn`,
      lineTo: `${body}.frontIn`,
    })),
    ...(left ? flipped : asIs),
  });
  const tape = (axle: Corner, corner: Corner): Slot => {
    const name = `${axle} hub ${word} → inner ${corner} corner`;
    return {
      id: `mat-${axle}-${corner}`,
      name,
      short: `${hubOf(axle).slice(3)} → ${corner}`,
      act: `Tape from the ${axle} hub ${word} to the inner ${corner} corner of the mat.`,
      instrument: "tape",
      quantity: { name: `the tape ${name}`, dimension: "length", min: 300, max: 12_000 },
      seconds: 45,
      observes: inPlan((body) => ({
        kind: "distance",
        from: hubOf(axle),
        to: `${body}.${corner}In`,
      })),
      toModel: (shown) => Math.sqrt(Math.max(0, shown * shown - drop * drop)),
      toShown: (model) => Math.hypot(model, drop),
    };
  };
  return [
    beside("front"),
    beside("rear"),
    {
      id: "mat-abeam",
      name: `cross line from the front hub ${word}`,
      short: "cross line",
      act: `Square the mark of the front hub ${word} out to the mat; read how far the cross line lies ahead of it.`,
      instrument: "tape",
      quantity: crossLine(plan, "the cross line from the front hub"),
      seconds: 30,
      sides: { positive: "ahead", negative: "behind" },
      toAndFro: true,
      // How far ahead of the cross line the hub lies, the other way round.
      observes: inPlan((body) => ({
        kind: "station",
        point: hubOf("front"),
        lineFrom: `${body}.centre`,
        lineTo: `${body}.ahead`,
      })),
      ...flipped,
    },
    tape("rear", "front"),
    tape("front", "rear"),
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
      min: 2,
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
    ...(left ? asIs : flipped),
  });
  return [
    {
      id: "mat-cross",
      name: "cross line from the front hubs’ line",
      short: "cross",
      act: "Set the floor laser over the marks of both front hubs; read how far the mat’s cross line lies ahead of its line.",
      instrument: "floor-laser",
      quantity: crossLine(plan, "the cross line from the front hubs’ line"),
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

/** Makes the readings and the moves of mats and floor marks known to {@link onFloor}. */
export const installFloorSlots = (): void =>
  installOnFloor({
    installed: true,
    slots: floorSlots,
    aroundSlots,
    waysAround: WAYS_AROUND,
    quantityWords: quantityWordsOf,
    points: matPoints,
    drawMoves,
    drawnBy,
    drawWords,
    relationErrors,
    trailerAlone,
  });
