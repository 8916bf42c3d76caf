import { hubOf, vehiclePoints, type VehiclePointId } from "@/core/vehicle";
import { placedAhead, type SetOutPlan } from "./plan";
import { asIs, flipped, inPlan, type Slot } from "./slot";
import { endWord, standsOf, waysOf, type Around, type BeamEnd } from "./thing";

/**
 * What the place of a board is read with that stands behind the vehicle or beside it: tapes from the
 * hubs it looks at to the two ends of its beam, and where its laser lands beside the rear badge, or
 * ahead of a hub.
 */
type End = "beamL" | "beamR";

/** The hubs a tape is held to, the near ones first, with which end of the beam lies opposite. */
function hubsOf(
  stands: Around,
  towed: boolean,
): { axle: "front" | "rear"; left: boolean; end: End; far: boolean }[] {
  const opposite = (end: BeamEnd): End => (waysOf(stands).ends[0] === end ? "beamL" : "beamR");
  if (stands === "behind")
    // A trailer has no hubs farther ahead.
    return (towed ? [false] : [false, true]).flatMap((far) =>
      [true, false].map((left) => ({
        axle: far ? ("front" as const) : ("rear" as const),
        left,
        end: opposite(left ? "left" : "right"),
        far,
      })),
    );
  return (["front", "rear"] as const).map((axle) => ({
    axle,
    left: stands === "left",
    end: opposite(axle),
    far: false,
  }));
}

/** Every reading in the plan, in the order people usually take them. */
export function aroundSlots(plan: SetOutPlan): Slot[] {
  const stands = standsOf(plan.target) as Around;
  const has = (kind: Slot["instrument"]): boolean => plan.instruments.some((i) => i.kind === kind);
  const tape = tapeOf(plan, stands);
  const towed = plan.target.frame === "trailer";
  const hubs = hubsOf(stands, towed);
  const other = (end: End): End => (end === "beamL" ? "beamR" : "beamL");
  const near = hubs.filter((h) => !h.far);
  return [
    ...(has("tape")
      ? [...near.map((h) => tape(h, h.end, 35)), ...near.map((h) => tape(h, other(h.end), 45))]
      : []),
    ...(has("laser") && !towed ? [laserPast(plan, stands)] : []),
    ...(has("tape") ? hubs.filter((h) => h.far).map((h) => tape(h, h.end, 60)) : []),
  ];
}

/** One tape from a hub to an end of the beam; the network is a plan, so the rise is taken out. */
const tapeOf =
  ({ stand, vehicle, target }: SetOutPlan, stands: Around) =>
  ({ axle, left }: ReturnType<typeof hubsOf>[number], end: End, seconds: number): Slot => {
    const hub = hubOf(axle, left);
    const rise = stand.hookHeightMm - vehiclePoints(vehicle).find((p) => p.id === hub)!.zMm;
    const at = waysOf(stands).ends[end === "beamL" ? 0 : 1];
    const hubName = `${target.frame === "trailer" ? "trailer’s" : axle} hub ${left ? "left" : "right"}`;
    const name = `${hubName} → beam’s ${endWord(at)} end`;
    return {
      id: `about-${hub.slice(3).toLowerCase()}-${at}`,
      name,
      short: `${hub.slice(3)} → ${at}`,
      act: `Tape from the ${hubName} to the ${endWord(at)} end of the beam.`,
      instrument: "tape",
      quantity: { name: `the tape ${name}`, dimension: "length", min: 300, max: 20_000 },
      seconds,
      observes: inPlan((body) => ({ kind: "distance", from: hub, to: `${body}.${end}` })),
      toModel: (shown) => Math.sqrt(Math.max(0, shown * shown - rise * rise)),
      toShown: (model) => Math.hypot(model, rise),
    };
  };

/** How far a laser is read from what the sheet lets one expect, mm. */
const MOST_ASIDE_MM = 600;

/** What a board’s laser is read at: the rear badge, or of the hubs of its side the nearer one. */
function laserPast(plan: SetOutPlan, stands: Around): Slot {
  const { vehicle, target } = plan;
  const beside = stands !== "behind";
  const ahead = placedAhead(plan);
  const axle = ahead > vehicle.wheelbaseMm / 2 ? "front" : "rear";
  const point: VehiclePointId = beside ? hubOf(axle, stands === "left") : "badgeR";
  const name = beside ? `the ${axle} hub ${stands}` : "the rear badge";
  const expected = beside
    ? ahead - (axle === "front" ? vehicle.wheelbaseMm : 0)
    : target.placement.acrossMm;
  return {
    id: "about-laser",
    name: `board laser past ${name}`,
    short: "laser",
    act: beside
      ? `Read how far ahead of ${name} the board laser lands on the vehicle’s side.`
      : "Read how far the board laser lands beside the rear badge.",
    instrument: "laser",
    quantity: {
      name: `the laser at ${name}`,
      dimension: "length",
      min: expected - MOST_ASIDE_MM,
      max: expected + MOST_ASIDE_MM,
      expected,
    },
    seconds: 25,
    ...(beside
      ? { sides: { positive: "ahead", negative: "behind" }, toAndFro: true }
      : { sides: { positive: "vehicle left", negative: "vehicle right" } }),
    throwM: 3,
    // What the line runs past on its left is positive. Looking forward from behind, left is vehicle
    // left; looking in from vehicle left, it is ahead; from vehicle right, behind.
    observes: inPlan((body) => ({
      kind: "offset",
      point,
      lineFrom: `${body}.laser`,
      lineTo: `${body}.laserAhead`,
    })),
    ...(stands === "right" ? asIs : flipped),
  };
}
