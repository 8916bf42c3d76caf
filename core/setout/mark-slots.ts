import type { Target } from "@/core/sheet";
import { hubName, hubOf } from "@/core/vehicle";
import { sideOf } from "./hands";
import type { SetOutPlan } from "./plan";
import { asIs, inPlan, type Slot } from "./slot";

/** A mark this far out is read without a sign, mm. */
const SURELY_OUT_MM = 250;

/** Counted the other way round than the network counts. */
const flipped = { toModel: (v: number): number => -v, toShown: (v: number): number => -v };

/**
 * What the place of a floor mark is read with. The line through two hub marks of its side is struck
 * past it, by a laser or a cord: how far out it lies, and how far along. A tape from the hub of the
 * other side crosses behind the vehicle and checks both, and so does one from mark to mark.
 */
export function markSlots(plan: SetOutPlan): Slot[] {
  const { target, vehicle, instruments } = plan;
  const has = (kind: Slot["instrument"]): boolean => instruments.some((i) => i.kind === kind);
  const { from, through } = target.line!;
  const left = sideOf(target) > 0;
  const [near, far] = [hubOf(from, left), hubOf(from, !left)];
  const [nearName, throughName, farName] = [
    hubName(vehicle, from, left),
    hubName(vehicle, through, left),
    hubName(vehicle, from, !left),
  ];
  const ahead = target.placement.alongMm >= 0;
  // Forward whichever of the two axles the sheet counts from, so that out is always on one hand.
  const axleX = (axle: string): number =>
    axle === "front"
      ? vehicle.wheelbaseMm
      : (vehicle.furtherAxles?.find((a) => a.id === axle)?.aheadMm ?? 0);
  const [rear, front] = axleX(from) < axleX(through) ? [from, through] : [through, from];
  const out = Math.abs(target.placement.acrossMm);
  const beside = (instrument: "floor-laser" | "plumb"): Slot => ({
    id: instrument === "plumb" ? "mark-cord" : "mark-line",
    name: "out from the hubs’ line",
    short: "out",
    act:
      instrument === "plumb"
        ? `Stretch the cord over the marks of ${nearName} and ${throughName}, on past the floor mark; read from the cord square out to the mark.`
        : `Set the floor laser over the marks of ${nearName} and ${throughName}; read from its line square out to the floor mark.`,
    instrument,
    quantity: {
      name: "out from the hubs’ line to the floor mark",
      dimension: "length",
      min: out > SURELY_OUT_MM ? 20 : -500,
      max: out + 800,
      expected: out,
    },
    seconds: 40,
    // Well out from the line nobody has to say to which side.
    ...(out > SURELY_OUT_MM
      ? {}
      : { sides: { positive: "outward", negative: "inward" }, toAndFro: true as const }),
    throwM: Math.abs(target.placement.alongMm) / 1000 + 1,
    observes: inPlan((body) => ({
      kind: "offset",
      point: `${body}.centre`,
      lineFrom: hubOf(rear, left),
      lineTo: hubOf(front, left),
    })),
    ...(left ? asIs : flipped),
  });
  const along: Slot = {
    id: "mark-along",
    name: `${nearName} → abreast of the mark`,
    short: "along",
    act: `Tape on the floor along that line, from the mark of the ${nearName} ${ahead ? "forward" : "back"} to abreast of the floor mark.`,
    instrument: "tape",
    quantity: {
      name: `from the ${nearName} to abreast of the mark`,
      dimension: "length",
      min: 100,
      max: 20_000,
    },
    seconds: 40,
    observes: inPlan((body) => ({
      kind: "station",
      point: `${body}.centre`,
      lineFrom: near,
      // Along the line the way the mark lies.
      lineTo: near === hubOf(rear, left) ? hubOf(front, left) : hubOf(rear, left),
    })),
    ...(ahead === (near === hubOf(rear, left)) ? asIs : flipped),
  };
  const tape = (id: string, hub: typeof near, name: string): Slot => ({
    id,
    name: `${name} → floor mark`,
    short: id === "mark-across" ? "diagonal" : "straight",
    act:
      id === "mark-across"
        ? `Tape on the floor from the mark of the ${name} across to the floor mark: the check diagonal.`
        : `Tape on the floor from the mark of the ${name} straight to the floor mark.`,
    instrument: "tape",
    quantity: {
      name: `the tape ${name} → floor mark`,
      dimension: "length",
      min: 100,
      max: 20_000,
    },
    seconds: 50,
    observes: inPlan((body) => ({ kind: "distance", from: hub, to: `${body}.centre` })),
    ...asIs,
  });
  const mate = mateOf(plan);
  const apart: Slot[] = mate
    ? [
        {
          id: "mark-apart",
          name: `to ${mate.name}`,
          short: "marks",
          act: `Tape on the floor from ${target.name} to ${mate.name}.`,
          instrument: "tape",
          quantity: {
            name: `the tape between the two marks`,
            dimension: "length",
            min: 300,
            max: 20_000,
          },
          seconds: 40,
          mate: mate.id,
          observes: inPlan((body, other) => ({
            kind: "distance",
            from: `${body}.centre`,
            to: `${other}.centre`,
          })),
          ...asIs,
        },
      ]
    : [];
  return [
    ...(has("floor-laser") ? [beside("floor-laser")] : []),
    ...(has("plumb") ? [beside("plumb")] : []),
    ...(has("tape")
      ? [along, tape("mark-across", far, farName), tape("mark-straight", near, nearName), ...apart]
      : []),
  ];
}

/** The mark it is compared with: its like on the other side. */
function mateOf({ target, setup }: SetOutPlan): Target | null {
  const others = (setup?.targets ?? []).filter(
    (t) => t.kind === "mark" && sideOf(t) !== sideOf(target),
  );
  const off = (t: Target): number => Math.abs(t.placement.alongMm - target.placement.alongMm);
  return others.sort((a, b) => off(a) - off(b))[0] ?? null;
}
