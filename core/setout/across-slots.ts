import { hubOf, vehiclePoints, type VehiclePointId } from "@/core/vehicle";
import type { SetOutPlan } from "./plan";
import { asIs, flipped, inPlan, type Slot } from "./slot";

/**
 * What the place of a mat is read with that lies across the vehicle's way: from the two hubs nearest
 * to it, straight on to its inner edge and by tape to the corners of that edge, and by a floor laser
 * through the marks of both badges to its middle.
 */
export function acrossSlots(plan: SetOutPlan): Slot[] {
  const { target, vehicle, instruments } = plan;
  const has = (kind: Slot["instrument"]): boolean => instruments.some((i) => i.kind === kind);
  const behind = target.lies === "behind";
  // A trailer has two hubs of its own and no badges.
  const towed = target.frame === "trailer";
  const whose = towed ? "trailer’s" : behind ? "rear" : "front";
  const way = behind ? "back" : "forward";
  const points = vehiclePoints(vehicle);
  const hub = (side: "l" | "r"): VehiclePointId =>
    `hub${behind ? "R" : "F"}${side === "l" ? "L" : "R"}`;
  const word = (side: "l" | "r"): string => (side === "l" ? "left" : "right");
  const drop = points.find((p) => p.id === hub("l"))!.zMm;
  const edge = (side: "l" | "r"): Slot => ({
    id: `across-edge-${side}`,
    name: `${whose} hub ${word(side)} → inner edge, straight on`,
    short: `${hub(side).slice(3)} → edge`,
    act: `Plumb the ${whose} hub ${word(side)}; read from its mark straight ${way}, square to the mat’s inner edge.`,
    instrument: "tape",
    quantity: {
      name: `from the ${whose} hub ${word(side)} to the inner edge`,
      dimension: "length",
      min: 300,
      max: 12_000,
    },
    seconds: 35,
    // From its left corner to its right one, the edge has what lies ahead of it on its left.
    observes: inPlan((body) => ({
      kind: "offset",
      point: hub(side),
      lineFrom: `${body}.inL`,
      lineTo: `${body}.inR`,
    })),
    ...(behind ? asIs : flipped),
  });
  const tape = (
    id: string,
    from: VehiclePointId,
    said: string,
    to: "l" | "r",
    seconds: number,
  ): Slot => {
    const name = `${said} → inner ${word(to)} corner`;
    return {
      id,
      name,
      short: `${from.slice(3)} → ${to.toUpperCase()}`,
      act: `Tape from the ${said} to the mat’s inner ${word(to)} corner.`,
      instrument: "tape",
      quantity: { name: `the tape ${name}`, dimension: "length", min: 300, max: 14_000 },
      seconds,
      observes: inPlan((body) => ({
        kind: "distance",
        from,
        to: `${body}.${to === "l" ? "inL" : "inR"}`,
      })),
      toModel: (shown) => Math.sqrt(Math.max(0, shown * shown - drop * drop)),
      toShown: (model) => Math.hypot(model, drop),
    };
  };
  const near = (from: "l" | "r", to: "l" | "r"): Slot =>
    tape(
      `across-${from}-${to}`,
      hub(from),
      `${whose} hub ${word(from)}`,
      to,
      from === to ? 40 : 50,
    );
  /** Past the near wheel, from the hub of the other axle: it says which way the vehicle stands. */
  const long = (side: "l" | "r"): Slot =>
    tape(
      `across-far-${side}`,
      hubOf(behind ? "front" : "rear", side === "l"),
      `${behind ? "front" : "rear"} hub ${word(side)}`,
      side,
      60,
    );
  const middle: Slot = {
    id: "across-middle",
    name: "middle of the mat from the badges’ line",
    short: "middle",
    act: "Set the floor laser over the marks of both badges; read how far the middle of the mat lies beside its line.",
    instrument: "floor-laser",
    quantity: {
      name: "the middle from the badges’ line",
      dimension: "length",
      min: target.placement.acrossMm - 600,
      max: target.placement.acrossMm + 600,
      expected: target.placement.acrossMm,
    },
    seconds: 35,
    throwM: 6,
    sides: { positive: "vehicle left", negative: "vehicle right" },
    observes: inPlan((body) => ({
      kind: "offset",
      point: `${body}.centre`,
      lineFrom: "badgeR",
      lineTo: "badgeF",
    })),
    ...asIs,
  };
  return [
    ...(has("tape")
      ? [
          edge("l"),
          edge("r"),
          near("l", "r"),
          near("r", "l"),
          ...(towed ? [] : [long("l"), long("r")]),
        ]
      : []),
    ...(has("floor-laser") && !towed ? [middle] : []),
    ...(has("tape") ? [near("l", "l"), near("r", "r")] : []),
  ];
}
