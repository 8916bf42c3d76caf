import { degToRad } from "@/core/units";
import {
  hubOf,
  thrustAngleRad,
  vehiclePoints,
  type RearToe,
  type Vehicle,
  type VehiclePoint,
  type VehiclePointId,
} from "@/core/vehicle";
import type { Setup, Target } from "@/core/sheet";
import { TURNS_WITH_TOE } from "./causes";
import { sideOf } from "./hands";
import type { Instrument } from "./instrument";
import type { SchoolId } from "./schools";
import { standsOf } from "./thing";
import type { BayWalls } from "./walls";
import type { PlanPose, Stand } from "./stand";

/** Shop settings of the judgement. */
export type Thresholds = {
  /** Chance in tolerance from which the board counts as set. */
  setChance: number;
  /** Chance of being outside from which it is plainly to be moved. */
  outsideChance: number;
};

export const DEFAULT_THRESHOLDS: Thresholds = { setChance: 0.99, outsideChance: 0.95 };

/** Everything that is settled about a set-out before the first reading. */
export type SetOutPlan = {
  vehicle: Vehicle;
  target: Target;
  /** The setup it belongs to, for what its targets have to be to each other. */
  setup?: Pick<Setup, "targets" | "relations">;
  /**
   * Targets of the setup that are proved in place: what two have to be to each other is judged of the
   * one that comes last, against those.
   */
  against?: readonly string[];
  stand: Stand;
  /** Of each kind the one in hand first. */
  instruments: Instrument[];
  /** Readings carry the name of their instrument: more than one of a kind is in use. */
  severalOfAKind?: true;
  /** Rear toe of this very vehicle, if a printout is at hand; the thrust line needs it. */
  rearToe: RearToe | null;
  /** How well it is known, rad; as a printout where it is not said. */
  rearToeSigmaRad?: number;
  thresholds: Thresholds;
  /**
   * Which way the technician sets out; readings of other ways count all the same. Four tapes when
   * it is not said.
   */
  school?: SchoolId;
  /** The walls about the vehicle, where it was said to stand in a bay. */
  bay?: BayWalls;
  /**
   * How far the floor at the stand lies above the vehicle's own plane, mm, from measured floor
   * heights: the sheet's height counts from the vehicle's plane, rule and scale count from the
   * floor at the stand.
   */
  floorStepMm?: { value: number; sigma: number };
  /**
   * How the plane under the vehicle's tyres rises toward the front and toward vehicle left,
   * radians.
   */
  floorSlopeRad?: {
    ahead: { value: number; sigma: number };
    left: { value: number; sigma: number };
  };
};

/** The height above the stand's own floor at which the board's centre belongs. */
export const wantedHeight = (plan: Pick<SetOutPlan, "target" | "floorStepMm">): number =>
  plan.target.placement.heightMm - (plan.floorStepMm?.value ?? 0);

/**
 * Standard deviation of the fall of a floor nobody has measured, radians: bays drain at one in a
 * hundred and more.
 */
const UNMEASURED_FLOOR_RAD = degToRad(0.5);

/**
 * How far the floor at the stand may lie above the vehicle's own plane, mm. Unmeasured it is taken
 * as none, with the uncertainty of an unmeasured fall between the front wheels and the stand.
 */
export const floorStep = (
  plan: Pick<SetOutPlan, "target" | "vehicle" | "floorStepMm">,
): { value: number; sigma: number } =>
  plan.floorStepMm ?? { value: 0, sigma: UNMEASURED_FLOOR_RAD * throwFromWheels(plan) };

/**
 * Of a trailer: its one axle makes no plane, so what stands behind it is as high as its sheet says
 * above the floor where it stands, and that is as even as a workshop floor is, mm.
 */
export const OWN_FLOOR = { value: 0, sigma: 3 } as const;

/** How far ahead of the rear axle the sheet puts a target on the book's vehicle, about, mm. */
export function placedAhead({
  target,
  vehicle: v,
}: Pick<SetOutPlan, "target" | "vehicle">): number {
  const from = {
    "front-hub-line": v.wheelbaseMm,
    "front-badge": v.frontBadge.xMm,
    "bumper-face": v.wheelbaseMm + v.frontOverhangMm,
    camera: v.camera.xMm,
    "rear-hub-line": 0,
    "rear-badge": v.rearBadge.xMm,
    "rear-face": v.wheelbaseMm + v.frontOverhangMm - v.lengthMm,
    "line-hub": 0,
  }[target.distanceFrom];
  return from + target.placement.alongMm;
}

/** From the nearest wheels to where the sheet puts the board, mm. */
export function throwFromWheels(plan: Pick<SetOutPlan, "target" | "vehicle">): number {
  const { target, vehicle } = plan;
  const ahead = placedAhead(plan);
  return {
    ahead: Math.abs(ahead - vehicle.wheelbaseMm),
    behind: Math.abs(ahead),
    left: Math.abs(target.placement.acrossMm) - vehicle.trackRearMm / 2,
    right: Math.abs(target.placement.acrossMm) - vehicle.trackRearMm / 2,
  }[standsOf(target)];
}

/**
 * The lean and level against gravity at which the board belongs, radians, with what the floor
 * leaves unsure.
 *
 * Square to a plane z = a x + b y, the board's own upright is its normal, (-a, -b, 1) / |.|: it
 * leans away from the car by the rise toward the car, and its end to the body's right (of a board
 * ahead, the vehicle-left one) is high by the rise toward there. The board's heading is taken as the
 * sheet's: a few milliradians of it change a slope by less than a hundredth.
 */
export function wantedTilt(
  plan: Pick<SetOutPlan, "target" | "floorSlopeRad">,
): Record<"pitch" | "roll", { value: number; sigma: number }> {
  if (plan.target.upright !== "vehicle-plane")
    return { pitch: { value: 0, sigma: 0 }, roll: { value: 0, sigma: 0 } };
  const unknown = { value: 0, sigma: UNMEASURED_FLOOR_RAD };
  const { ahead, left } = plan.floorSlopeRad ?? { ahead: unknown, left: unknown };
  const heading = facing(plan.target) + degToRad(plan.target.placement.twistDeg);
  const [c, s] = [Math.cos(heading), Math.sin(heading)];
  const along = (p: number, q: number) => ({
    value: p * ahead.value + q * left.value,
    sigma: Math.hypot(p * ahead.sigma, q * left.sigma),
  });
  return { pitch: along(c, s), roll: along(s, -c) };
}

/** Rear toe of a wheel nobody has measured: as cars are made. */
const USUAL_TOE_RAD = degToRad(0.1);

/** Heading of a rear wheel in vehicle axes: toe-in turns each toward the middle. */
export const wheelHeading = ({ rearToe }: Pick<SetOutPlan, "rearToe">, left: boolean): number =>
  left ? -(rearToe?.leftRad ?? USUAL_TOE_RAD) : (rearToe?.rightRad ?? USUAL_TOE_RAD);

/**
 * A datum as weights on vehicle points: origin of the line, two points that give its direction, an
 * angle to add, and the place distances are counted from.
 */
export type DatumFrame = {
  through: [VehiclePointId, number][];
  directionFrom: VehiclePointId;
  directionTo: VehiclePointId;
  turnRad: number;
  distanceFrom: [VehiclePointId, number][];
  /**
   * Added along the datum to the distance origin (bumper face and camera have no point of their
   * own).
   */
  distanceOffsetMm: number;
  /** Causes that turn the line, and by how much for one unit of each. */
  turnBy?: readonly (readonly [cause: string, weight: number])[];
};

/** The sheet named a thrust line, but nobody has said which way the rear axle steers. */
export class MissingThrustError extends Error {
  override readonly name = "MissingThrustError";
  constructor() {
    super(
      "The sheet squares the board to the thrust line. Enter rear toe left and right from the alignment printout.",
    );
  }
}

/** The sheet's datum on this vehicle. @throws MissingThrustError */
export function datumFrame(plan: Pick<SetOutPlan, "vehicle" | "target" | "rearToe">): DatumFrame {
  const { vehicle, target, rearToe } = plan;
  if (target.line) return sideFrame(vehicle, target, target.line);
  if (target.datum === "thrust" && !rearToe) throw new MissingThrustError();
  const line: Omit<DatumFrame, "distanceFrom" | "distanceOffsetMm"> =
    target.datum === "centreline"
      ? { through: [["badgeR", 1]], directionFrom: "badgeR", directionTo: "badgeF", turnRad: 0 }
      : {
          // From right hub to left hub is the axle; its normal points forward a quarter turn
          // clockwise.
          through: [
            ["hubRL", 0.5],
            ["hubRR", 0.5],
          ],
          directionFrom: "hubRR",
          directionTo: "hubRL",
          turnRad: -Math.PI / 2 + (target.datum === "thrust" ? thrustAngleRad(rearToe!) : 0),
          ...(target.datum === "thrust" ? { turnBy: TURNS_WITH_TOE } : {}),
        };
  const fromFrontAxle = (xMm: number): number => xMm - vehicle.wheelbaseMm;
  const hubs: [VehiclePointId, number][] = [
    ["hubFL", 0.5],
    ["hubFR", 0.5],
  ];
  const faceMm = vehicle.wheelbaseMm + vehicle.frontOverhangMm;
  switch (target.distanceFrom) {
    case "rear-hub-line":
    case "line-hub":
      return {
        ...line,
        distanceFrom: [
          ["hubRL", 0.5],
          ["hubRR", 0.5],
        ],
        distanceOffsetMm: 0,
      };
    case "rear-badge":
      return { ...line, distanceFrom: [["badgeR", 1]], distanceOffsetMm: 0 };
    case "rear-face":
      return {
        ...line,
        distanceFrom: [
          ["hubRL", 0.5],
          ["hubRR", 0.5],
        ],
        distanceOffsetMm: faceMm - vehicle.lengthMm,
      };
    case "front-hub-line":
      return { ...line, distanceFrom: hubs, distanceOffsetMm: 0 };
    case "front-badge":
      return { ...line, distanceFrom: [["badgeF", 1]], distanceOffsetMm: 0 };
    case "bumper-face":
      return { ...line, distanceFrom: hubs, distanceOffsetMm: fromFrontAxle(faceMm) };
    case "camera":
      return { ...line, distanceFrom: hubs, distanceOffsetMm: fromFrontAxle(vehicle.camera.xMm) };
  }
}

/**
 * The line through two hubs of one side, forward: along counts from the first of the two. @throws
 * RangeError where the vehicle has no such axle
 */
function sideFrame(
  vehicle: Vehicle,
  target: Target,
  { from, through }: NonNullable<Target["line"]>,
): DatumFrame {
  const left = sideOf(target) > 0;
  const points = vehiclePoints(vehicle);
  const [a, b] = [from, through].map((axle) => {
    const hub = points.find((p) => p.id === hubOf(axle, left));
    if (!hub) throw new RangeError(`The vehicle has no axle “${axle}”: enter it under Vehicles.`);
    return hub;
  }) as [VehiclePoint, VehiclePoint];
  const [rear, front] = a.xMm < b.xMm ? [a, b] : [b, a];
  return {
    through: [[a.id, 1]],
    directionFrom: rear.id,
    directionTo: front.id,
    turnRad: 0,
    distanceFrom: [[a.id, 1]],
    distanceOffsetMm: 0,
  };
}

/**
 * A datum line evaluated: a point on it, its heading, and the origin distances are counted from.
 */
export type DatumLine = {
  xMm: number;
  yMm: number;
  headingRad: number;
  originXMm: number;
  originYMm: number;
};

/** How a board is turned from the datum's direction when it is right: it looks at the vehicle. */
const FACING = { ahead: Math.PI, behind: 0, left: -Math.PI / 2, right: Math.PI / 2 } as const;

/** How a target is turned from the datum's direction when it is right. */
export const facing = (target: Pick<Target, "kind" | "stands">): number =>
  target.kind === "board" ? FACING[standsOf(target)] : 0;

/** Where on the rail of its beam a board belongs, mm to vehicle left of the beam's middle. */
export const wantedRail = ({ placement, beam }: Target): number =>
  beam ? placement.acrossMm - beam.acrossMm : 0;

type PlacedPoint = { id: string; xMm: number; yMm: number };

/**
 * The datum line through given vehicle points (nominal or adjusted).
 *
 * @param causes what is known of those that turn it; 0 where nothing is
 */
export function datumLine(
  frame: DatumFrame,
  points: readonly PlacedPoint[],
  causes: readonly { id: string; value: number }[] = [],
): DatumLine {
  const at = (id: VehiclePointId): PlacedPoint => points.find((p) => p.id === id)!;
  const mean = (weights: [VehiclePointId, number][]): [number, number] =>
    weights.reduce<[number, number]>(
      ([x, y], [id, w]) => [x + w * at(id).xMm, y + w * at(id).yMm],
      [0, 0],
    );
  const from = at(frame.directionFrom);
  const to = at(frame.directionTo);
  const turned = (frame.turnBy ?? []).reduce(
    (sum, [id, weight]) => sum + weight * (causes.find((c) => c.id === id)?.value ?? 0),
    frame.turnRad,
  );
  const headingRad = Math.atan2(to.yMm - from.yMm, to.xMm - from.xMm) + turned;
  const [xMm, yMm] = mean(frame.through);
  const [ox, oy] = mean(frame.distanceFrom);
  return {
    xMm,
    yMm,
    headingRad,
    originXMm: ox + frame.distanceOffsetMm * Math.cos(headingRad),
    originYMm: oy + frame.distanceOffsetMm * Math.sin(headingRad),
  };
}

/**
 * Where its carrier holds a target when all is right, in vehicle axes, given the datum line: the
 * centre of a board that faces the car, the middle of a beam, the cross line of a mat that looks
 * the car's way.
 */
export function targetPose(target: Target, line: DatumLine): PlanPose {
  const { placement, beam } = target;
  const c = Math.cos(line.headingRad);
  const s = Math.sin(line.headingRad);
  // Foot of the distance origin on the datum line, then along and across from there.
  const t = c * (line.originXMm - line.xMm) + s * (line.originYMm - line.yMm) + placement.alongMm;
  const acrossMm = beam?.acrossMm ?? placement.acrossMm;
  return {
    xMm: line.xMm + c * t - s * acrossMm,
    yMm: line.yMm + s * t + c * acrossMm,
    headingRad: line.headingRad + facing(target) + degToRad(placement.twistDeg),
  };
}

/**
 * The target for a vehicle exactly as its dimensions say: where the drawing puts it before any
 * reading.
 */
export const nominalTarget = (plan: Pick<SetOutPlan, "vehicle" | "target" | "rearToe">): PlanPose =>
  targetPose(plan.target, datumLine(datumFrame(plan), vehiclePoints(plan.vehicle)));
