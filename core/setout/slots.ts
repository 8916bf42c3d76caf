import type { Target } from "@/core/sheet";
import { markPoint, vehiclePoints, type VehiclePointId } from "@/core/vehicle";
import { isAside } from "./aside";
import { isByHand } from "./hands";
import { levelSlots, railSlot } from "./level-slots";
import type { Instrument } from "./instrument";
import type { SetOutPlan } from "./plan";
import { onFloor } from "./on-floor";
import { asIs, inPlan, type Slot } from "./slot";
import { standsOf, thingOf } from "./thing";
import { beamLaserSlots, mirrorSlots } from "./beam-slots";
import { wallSlots } from "./wall-slots";
import { floorMarkSlots, laserBehind, panelSlots, rigSlots, wheelLaserSlots } from "./school-slots";

declare module "./on-floor" {
  interface FloorParts {
    /** What is read of a target on the floor, and the points of it that readings use. */
    slots: (plan: SetOutPlan) => Slot[];
    points: (target: Target) => { id: string; xMm: number; yMm: number }[];
    /** What is read in the plan of a board behind the vehicle or beside it. */
    aroundSlots: (plan: SetOutPlan) => Slot[];
  }
}

/**
 * A point of a carrier that readings use, in body axes: of a stand x toward the car, vehicle left
 * -y; of a mat x the way it looks. `up` is how high it sits where it is not on the level of the
 * board's centre: a stand that leans carries it aside.
 */
export type CarrierPoint = {
  id: string;
  xMm: number;
  yMm: number;
  up?: { from: "floor" | "board"; mm: number };
};

export const carrierPoints = (plan: SetOutPlan): CarrierPoint[] =>
  isByHand(plan.target) ? onFloor().points(plan.target) : standPoints(plan);

function standPoints({ stand, instruments }: SetOutPlan): CarrierPoint[] {
  const shines = instruments.some((i) => i.kind === "beam-laser");
  const beam = { from: "floor", mm: stand.hookHeightMm } as const;
  const laser =
    stand.laserOn === "beam" ? beam : ({ from: "board", mm: stand.laserUpMm ?? 0 } as const);
  return [
    { id: "beamL", xMm: 0, yMm: -stand.beamHalfMm, up: beam },
    { id: "beamR", xMm: 0, yMm: stand.beamHalfMm, up: beam },
    { id: "beam", xMm: 0, yMm: 0, up: beam },
    { id: "laser", xMm: 0, yMm: 0, up: laser },
    { id: "laserAhead", xMm: 1000, yMm: 0, up: laser },
    ...(shines
      ? [
          { id: "beamLAhead", xMm: 1000, yMm: -stand.beamHalfMm, up: beam },
          { id: "beamRAhead", xMm: 1000, yMm: stand.beamHalfMm, up: beam },
        ]
      : []),
    { id: "centre", xMm: 0, yMm: 0 },
    { id: "ahead", xMm: 1000, yMm: 0 },
  ];
}

const HUB_NAMES: Partial<Record<VehiclePointId, string>> = {
  hubFL: "front hub left",
  hubFR: "front hub right",
  hubRL: "rear hub left",
  hubRR: "rear hub right",
};

/** The slots of a target's last plan: a reading more leaves them as they were. */
const lastSlots = new WeakMap<Target, { plan: SetOutPlan; slots: Slot[] }>();

/** Whether two plans say the same: the same things by identity, the same figures by value. */
function samePlan(a: SetOutPlan, b: SetOutPlan): boolean {
  const same = (x: unknown, y: unknown, deep: boolean): boolean => {
    if (x === y) return true;
    if (!deep || typeof x !== "object" || typeof y !== "object" || !x || !y) return false;
    const [p, q] = [Object.entries(x), new Map(Object.entries(y))];
    return p.length === q.size && p.every(([k, v]) => q.has(k) && same(v, q.get(k), false));
  };
  const [keys, others] = [Object.keys(a), Object.keys(b)] as [(keyof SetOutPlan)[], string[]];
  return keys.length === others.length && keys.every((k) => same(a[k], b[k], true));
}

/**
 * Every reading this stand, this vehicle and these instruments allow, in the order people usually
 * take them.
 */
export function slotsFor(plan: SetOutPlan): Slot[] {
  const last = lastSlots.get(plan.target);
  if (last && samePlan(last.plan, plan)) return last.slots;
  const slots = makeSlots(plan);
  lastSlots.set(plan.target, { plan, slots });
  return slots;
}

/**
 * How far the board laser lands beside the front badge, or beside another mark of the front.
 *
 * @param mark of the vehicle's further marks; null for the badge
 */
function laserPast({ target, instruments }: SetOutPlan, mark: CentreMark | null): Slot {
  const { thing } = thingOf(target);
  const behind = instruments.some((i) => i.kind === "floor-laser") && !isAside(target);
  const expected = (target.beam?.acrossMm ?? target.placement.acrossMm) - (mark?.yMm ?? 0);
  const name = mark ? mark.name : "the front badge";
  return {
    id: mark ? `laser-${markPoint(mark.id)}` : "laser-badge",
    name: mark ? `${thing} laser past ${name}` : `${thing} laser past front badge`,
    short: mark ? mark.name : "laser",
    act: `Read how far the ${thing} laser lands beside ${name}.`,
    ...(behind && !mark
      ? { hint: "Hidden behind a low chin? Choose the way with the laser from behind (W)." }
      : {}),
    instrument: "laser",
    quantity: {
      name: mark ? `the laser beside ${name}` : "the laser offset at the badge",
      dimension: "length",
      min: expected - 600,
      max: expected + 600,
      expected,
    },
    seconds: 25,
    sides: { positive: "vehicle left", negative: "vehicle right" },
    // A laser line spreads over its throw, not over the offset that is read; two to three metres
    // are taken as three.
    throwM: 3,
    ...(mark ? { like: "laser-badge" } : {}),
    // The line points at the car, so its left is vehicle right: a dot to vehicle left leaves the
    // badge on its left.
    observes: inPlan((body) => ({
      kind: "offset",
      point: mark ? markPoint(mark.id) : "badgeF",
      lineFrom: `${body}.laser`,
      lineTo: `${body}.laserAhead`,
    })),
    ...asIs,
  };
}

type CentreMark = NonNullable<SetOutPlan["vehicle"]["centreMarks"]>[number];

function makeSlots(plan: SetOutPlan): Slot[] {
  if (isByHand(plan.target)) return onFloor().slots(plan);
  if (standsOf(plan.target) !== "ahead")
    return [...onFloor().aroundSlots(plan), ...wallSlots(plan), ...levelSlots(plan)];
  const { stand, vehicle, instruments } = plan;
  const { beam } = thingOf(plan.target);
  const has = (kind: Instrument["kind"]): boolean => instruments.some((i) => i.kind === kind);
  const slots: Slot[] = [];
  const points = new Map(vehiclePoints(vehicle).map((p) => [p.id, p]));

  const tape = (id: string, hub: VehiclePointId, end: "beamL" | "beamR", seconds: number): void => {
    // The tape runs from hub height to hook height; the network is a plan, so the rise is taken
    // out.
    const rise = stand.hookHeightMm - points.get(hub)!.zMm;
    const endName = `${beam} end ${end === "beamL" ? "left" : "right"}`;
    const name = `${HUB_NAMES[hub]} → ${endName}`;
    slots.push({
      id,
      name,
      short: `${hub.slice(3)} → ${end.slice(4)}`,
      act: `Tape from the ${HUB_NAMES[hub]} to the ${endName}.`,
      instrument: "tape",
      quantity: { name: `the tape ${name}`, dimension: "length", min: 500, max: 20_000 },
      seconds,
      observes: inPlan((body) => ({ kind: "distance", from: hub, to: `${body}.${end}` })),
      toModel: (shown) => Math.sqrt(Math.max(0, shown * shown - rise * rise)),
      toShown: (model) => Math.hypot(model, rise),
    });
  };

  if (has("tape")) {
    tape("tape-fl-l", "hubFL", "beamL", 35);
    tape("tape-fr-r", "hubFR", "beamR", 35);
    tape("tape-fl-r", "hubFL", "beamR", 45);
    tape("tape-fr-l", "hubFR", "beamL", 45);
  }
  if (has("laser")) {
    slots.push(laserPast(plan, null));
    for (const mark of vehicle.centreMarks ?? []) slots.push(laserPast(plan, mark));
  }
  if (has("tape")) {
    tape("tape-rl-l", "hubRL", "beamL", 60);
    tape("tape-rr-r", "hubRR", "beamR", 60);
  }

  if (has("floor-laser")) slots.push(...laserBehind(plan));
  if (has("plumb")) slots.push(...floorMarkSlots(plan));
  if (has("range")) slots.push(...panelSlots(plan));
  if (has("wheel-laser")) slots.push(...wheelLaserSlots(plan));
  if (has("beam-laser")) slots.push(...beamLaserSlots(plan));
  if (has("mirror")) slots.push(...mirrorSlots(plan));
  if (has("rig")) slots.push(...rigSlots(plan));
  slots.push(...wallSlots(plan));

  slots.push(...levelSlots(plan));
  if (plan.target.beam && has("scale")) slots.push(railSlot(plan));
  return slots;
}

/**
 * Standard uncertainty of one reading of an instrument at a value: base + per-metre part, or its
 * angle. A length read by something that is clamped at an angle (a wheel laser) also carries that
 * angle over its throw.
 */
export function readingSigma(instrument: Instrument, slot: Slot, value: number): number {
  if (slot.quantity.dimension === "angle") {
    // Two heights a beam apart: what either is off by, over their distance.
    const { sigmaMm, sigmaMmPerM } = instrument;
    const ends =
      slot.step?.unit === "mm" ? Math.SQRT2 * (sigmaMm + sigmaMmPerM) * slot.step.rad : 0;
    return Math.hypot(instrument.sigmaRad, ends);
  }
  const lengthM = slot.throwM ?? Math.abs(value) / 1000;
  return Math.hypot(
    instrument.sigmaMm + instrument.sigmaMmPerM * lengthM,
    // The angle of what is clamped stays until it is seated anew.
    slot.seat ? 0 : 1000 * lengthM * instrument.sigmaRad,
    slot.roughMm ?? 0,
  );
}
