import type { VehiclePointId } from "@/core/vehicle";
import { isAside } from "./aside";
import { TOE_LEFT, TOE_RIGHT } from "./causes";
import { throwFromWheels, wheelHeading, type SetOutPlan } from "./plan";
import { asIs, inPlan, type Slot } from "./slot";

/**
 * Readings by light that leaves the beam: onto scales at the wheels, and back from mirrors on them.
 */

const SIDES = { positive: "vehicle left", negative: "vehicle right" };

const ENDS = [
  { left: true, front: true, id: "fl", hub: "hubFL", word: "front left" },
  { left: false, front: true, id: "fr", hub: "hubFR", word: "front right" },
  { left: true, front: false, id: "rl", hub: "hubRL", word: "rear left" },
  { left: false, front: false, id: "rr", hub: "hubRR", word: "rear right" },
] as const satisfies readonly { hub: VehiclePointId; [k: string]: unknown }[];

/** How far a laser turned in its clamp throws its light aside in one metre, mm. */
const asideIn = (sigmaRad: number): number => 1000 * sigmaRad;

/**
 * A laser at each end of the beam, shining square from it along the car, past the front wheel onto the
 * rear one. On each a scale is held level at the hub cap; the figure is how far the light lands beside
 * it. How a laser is turned in its clamp goes into both its readings, into the farther one the more.
 */
export function beamLaserSlots(plan: SetOutPlan): Slot[] {
  if (isAside(plan.target)) return [];
  const { vehicle: v, stand } = plan;
  const laser = plan.instruments.find((i) => i.kind === "beam-laser");
  const toFrontM = throwFromWheels(plan) / 1000;
  return ENDS.map(({ left, front, id, hub, word }): Slot => {
    const throwM = front ? toFrontM : toFrontM + v.wheelbaseMm / 1000;
    const out = stand.beamHalfMm - (front ? v.trackFrontMm : v.trackRearMm) / 2 - v.hubCapOutMm;
    const expected = left ? out : -out;
    const [side, end] = left ? ["left", "beamL"] : ["right", "beamR"];
    return {
      id: `beam-${id}`,
      name: `beam laser at the ${word} wheel`,
      short: `beam ${id.toUpperCase()}`,
      act: `Hold the scale level at the ${word} hub cap; read how far beside it the light from the ${side} end of the beam lands.`,
      instrument: "beam-laser",
      quantity: {
        name: `the light beside the ${word} hub`,
        dimension: "length",
        min: expected - 600,
        max: expected + 600,
        expected,
      },
      seconds: front ? 20 : 25,
      sides: SIDES,
      throwM,
      ...(laser && laser.sigmaRad > 0
        ? {
            seat: {
              id: `beam-laser-${left ? "l" : "r"}`,
              name: `the laser at the ${side} end of the beam`,
              sigmaMm: asideIn(laser.sigmaRad),
              per: throwM,
            },
          }
        : {}),
      // The light shines at the car, so its left is vehicle right: landing to vehicle left of the hub
      // leaves the hub on its left.
      observes: inPlan((body) => ({
        kind: "offset",
        point: hub,
        lineFrom: `${body}.${end}`,
        lineTo: `${body}.${end}Ahead`,
      })),
      ...asIs,
    };
  });
}

/**
 * A mirror clamped across each rear wheel throws the light of a laser on the beam back beside it, at
 * twice the angle between them: a tenth of a degree is a centimetre and a half in four metres. The
 * mirror stands square to its wheel, so the wheel's toe turns it.
 */
export function mirrorSlots(plan: SetOutPlan): Slot[] {
  if (isAside(plan.target)) return [];
  const laser = plan.instruments.find((i) => i.kind === "mirror");
  const throwM = (throwFromWheels(plan) + plan.vehicle.wheelbaseMm) / 1000;
  return ENDS.filter((e) => !e.front).map(({ left, id, hub, word }): Slot => {
    const [side, end] = left ? ["left", "beamL"] : ["right", "beamR"];
    return {
      id: `mirror-${id}`,
      name: `light back from the ${word} mirror`,
      short: `back ${id.toUpperCase()}`,
      act: `Read how far beside the laser at the ${side} end of the beam the light comes back from the mirror at the ${word} wheel.`,
      hint: "Not on the scale at all? Turn the stand until the light comes back.",
      instrument: "mirror",
      quantity: { name: "the light that comes back", dimension: "length", min: -600, max: 600 },
      seconds: 12,
      sides: SIDES,
      throwM,
      ...(laser && laser.sigmaRad > 0
        ? {
            seat: {
              id: `mirror-${id}`,
              name: `the mirror at the ${word} wheel`,
              sigmaMm: 2 * throwM * asideIn(laser.sigmaRad),
            },
          }
        : {}),
      // To the right of a beam that shines at the car is vehicle left.
      observes: inPlan((body) => ({
        kind: "returned",
        from: `${body}.${end}`,
        directionRad: 0,
        panelPoint: hub,
        panelHeadingRad: wheelHeading(plan, left),
        // The mirror turns with the wheel; the light by twice that.
        causes: [{ cause: left ? TOE_LEFT : TOE_RIGHT, per: (left ? -2000 : 2000) * throwM }],
      })),
      ...asIs,
    };
  });
}
