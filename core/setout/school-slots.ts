import type { VehiclePointId } from "@/core/vehicle";
import { isAside } from "./aside";
import { TOE_LEFT, TOE_RIGHT } from "./causes";
import { wheelHeading, type SetOutPlan } from "./plan";
import { asIs, inPlan, type Slot } from "./slot";

/**
 * Readings of the schools beside tapes: floor marks, wheel panels, wheel lasers, camera rig. What
 * each neglects is said with it; all observe the same points and the same stand.
 */

const flipped = { toModel: (v: number): number => -v, toShown: (v: number): number => -v };
const LINE = { lineFrom: "badgeR", lineTo: "badgeF" } as const;
const long = (name: string) => ({ name, dimension: "length", min: 300, max: 20_000 }) as const;
const around = (name: string, middle: number, by = 800) =>
  ({ name, dimension: "length", min: middle - by, max: middle + by, expected: middle }) as const;
const SIDES = { positive: "vehicle left", negative: "vehicle right" };

/** Plumbed to the floor: tapes run level there, so nothing is taken out of them. */
export function floorMarkSlots({ target }: SetOutPlan): Slot[] {
  const across = target.beam?.acrossMm ?? target.placement.acrossMm;
  const slot = (
    id: string,
    name: string,
    short: string,
    act: string,
    seconds: number,
    more: Omit<Slot, "id" | "name" | "short" | "act" | "seconds" | "instrument">,
  ): Slot => ({ id, name, short, act, seconds, instrument: "plumb", ...more });
  const side = (l: boolean) => ({
    hub: (l ? "hubFL" : "hubFR") as VehiclePointId,
    end: l ? "beamL" : "beamR",
    far: l ? "beamR" : "beamL",
    word: l ? "left" : "right",
    key: l ? "l" : "r",
  });
  return [
    slot(
      "box-centre",
      "board mark beside the line",
      "mark ↔",
      "Plumb the board’s centre to the floor; read how far its mark lies beside the line through the badge marks.",
      40,
      {
        quantity: around("the board mark beside the line", across),
        sides: SIDES,
        observes: inPlan((body) => ({ kind: "offset", point: `${body}.centre`, ...LINE })),
        ...asIs,
      },
    ),
    slot(
      "box-ahead",
      "front badge mark → board mark",
      "mark ↑",
      "Tape along the line from the front badge’s mark to the board’s mark.",
      35,
      {
        quantity: long("the tape from the badge mark to the board mark"),
        observes: inPlan((body) => ({
          kind: "station",
          point: `${body}.centre`,
          ...LINE,
          origin: "badgeF",
        })),
        ...asIs,
      },
    ),
    // The front mark blocked: the line through the marks of both left hubs, started from the rear
    // one.
    slot(
      "box-rear-centre",
      "board mark beside the left hubs’ line",
      "left ↔",
      "Plumb both left hubs; read how far the board’s mark lies to vehicle right of the line through them.",
      50,
      {
        quantity: {
          name: "the board mark beside the hubs’ line",
          dimension: "length",
          min: 250 - across,
          max: 2500 - across,
        },
        observes: inPlan((body) => ({
          kind: "offset",
          point: `${body}.centre`,
          lineFrom: "hubRL",
          lineTo: "hubFL",
        })),
        ...flipped,
      },
    ),
    slot(
      "box-rear-ahead",
      "rear hub mark → board mark",
      "rear ↑",
      "Tape along the left hubs’ line from the rear hub’s mark to where the board’s mark squares back to it.",
      50,
      {
        quantity: long("the tape from the rear hub mark"),
        observes: inPlan((body) => ({
          kind: "station",
          point: `${body}.centre`,
          lineFrom: "hubRL",
          lineTo: "hubFL",
        })),
        ...asIs,
      },
    ),
    ...[true, false].flatMap((l) => {
      const s = side(l);
      return [
        slot(
          `box-hub-${s.key}`,
          `${s.word} hub mark → board mark, along`,
          `hub ${s.key.toUpperCase()} ↑`,
          `Drop the front ${s.word} hub with the bracket; tape along the offset line to where the board’s mark squares back to it.`,
          45,
          {
            quantity: long(`the tape along the ${s.word} offset line`),
            observes: inPlan((body) => ({
              kind: "station",
              point: `${body}.centre`,
              ...LINE,
              origin: s.hub,
            })),
            ...asIs,
          },
        ),
        slot(
          `box-end-${s.key}`,
          `${s.word} beam end before the square line`,
          `end ${s.key.toUpperCase()} ⊥`,
          `Plumb the ${s.word} end of the beam; read how far its mark lies off the line squared through the board’s mark.`,
          35,
          {
            quantity: around(`the ${s.word} beam end off the square line`, 0, 400),
            sides: { positive: "away from the car", negative: "toward the car" },
            toAndFro: true,
            observes: inPlan((body) => ({
              kind: "station",
              point: `${body}.${s.end}`,
              ...LINE,
              origin: `${body}.centre`,
            })),
            ...asIs,
          },
        ),
      ];
    }),
    ...[true, false].map((l) => {
      const s = side(l);
      return slot(
        `box-diag-${s.key}`,
        `${s.word} hub mark → far beam end, on the floor`,
        `diag ${s.key.toUpperCase()}`,
        `Tape the diagonal on the floor from the front ${s.word} hub’s mark to the mark of the far beam end.`,
        45,
        {
          quantity: long(`the diagonal from the ${s.word} hub mark`),
          observes: inPlan((body) => ({ kind: "distance", from: s.hub, to: `${body}.${s.far}` })),
          ...asIs,
        },
      );
    }),
  ];
}

/** From behind the car to the board: as far as a line laser throws there. */
const BEHIND_M = 7;

/**
 * Laser and mark exchanged: where a low chin hides the front badge from the board's laser, a line
 * laser behind the car is lined up on both badges from above, and read on the beam. It stands on
 * nothing that moves with the board, and goes on being read with the board hung.
 */
export function laserBehind({ target }: SetOutPlan): Slot[] {
  if (isAside(target)) return [];
  const across = target.placement.acrossMm;
  return [
    {
      id: "laser-behind",
      name: "laser from behind past the board’s middle",
      short: "behind",
      act: "Line the laser behind the car up on both badges; read how far the board’s middle lies beside its line.",
      instrument: "floor-laser",
      quantity: around("the board’s middle beside the laser’s line", across, 600),
      seconds: 60,
      sides: SIDES,
      throwM: BEHIND_M,
      observes: inPlan((body) => ({ kind: "offset", point: `${body}.centre`, ...LINE })),
      ...asIs,
    },
  ];
}

/** How far a panel sits from where it sat before, clamp and hook included, mm. */
const PANEL_SEAT_MM = 0.7;

/**
 * Panels clamped across the rear wheels and a front hub; a rangefinder at each end of the beam
 * looks along the board's normal. A panel stands square to its wheel, so the wheel's toe turns it:
 * from beam end to hub that is half a millimetre for each 0.1°, at either side the other way, and
 * what is not known of the toe goes into the reading. How the panel sits is common to every reading
 * of it until it is seated anew.
 */
export function panelSlots(plan: SetOutPlan): Slot[] {
  if (isAside(plan.target)) return [];
  const { vehicle: v, stand } = plan;
  // From hub to beam end; more toe-in brings the panel nearer to either.
  const besideMm = stand.beamHalfMm - (v.trackRearMm / 2 + v.hubCapOutMm);
  const slot = (
    id: string,
    panelPoint: VehiclePointId,
    end: "beamL" | "beamR",
    name: string,
    panelHeadingRad: number,
    seconds: number,
    toe?: string,
  ): Slot => ({
    id,
    name,
    short: `range ${id.slice(-2).toUpperCase()}`,
    act: `Read the rangefinder at the ${end === "beamL" ? "left" : "right"} end of the beam onto the panel at the ${name.replace("range to the ", "")}.`,
    instrument: "range",
    quantity: { name: `the ${name}`, dimension: "length", min: 500, max: 20_000 },
    seconds,
    seat: {
      id,
      name: `the panel at the ${name.replace("range to the ", "")}`,
      sigmaMm: PANEL_SEAT_MM,
    },
    observes: inPlan((body) => ({
      kind: "range",
      from: `${body}.${end}`,
      directionRad: 0,
      panelPoint,
      panelHeadingRad,
      ...(toe ? { causes: [{ cause: toe, per: -besideMm }] } : {}),
    })),
    ...asIs,
  });
  return [
    slot(
      "panel-rl",
      "hubRL",
      "beamL",
      "range to the rear left wheel",
      wheelHeading(plan, true),
      15,
      TOE_LEFT,
    ),
    slot(
      "panel-rr",
      "hubRR",
      "beamR",
      "range to the rear right wheel",
      wheelHeading(plan, false),
      15,
      TOE_RIGHT,
    ),
    slot("panel-fl", "hubFL", "beamL", "range to the front left hub", 0, 20),
  ];
}

/**
 * Lasers on the rear wheels, shining along them onto scales on the beam. The figure is how far from
 * the board's centre the light lands, along the beam: where a line through the hub, in the wheel's
 * heading, meets the beam.
 */
export function wheelLaserSlots(plan: SetOutPlan): Slot[] {
  if (isAside(plan.target)) return [];
  const throwM = (plan.target.placement.alongMm + plan.vehicle.wheelbaseMm) / 1000;
  const laser = plan.instruments.find((i) => i.kind === "wheel-laser");
  return [true, false].map((left): Slot => {
    const heading = wheelHeading(plan, left);
    const word = left ? "left" : "right";
    return {
      id: left ? "scale-rl" : "scale-rr",
      name: `rear ${word} laser on the beam’s scale`,
      short: left ? "scale L" : "scale R",
      act: `Read where the rear ${word} wheel’s laser lands on the ${word} scale of the beam, from the board’s centre.`,
      instrument: "wheel-laser",
      quantity: { name: `the ${word} scale of the beam`, dimension: "length", min: 100, max: 2500 },
      seconds: 12,
      throwM,
      // The clamp holds the laser at an angle, and keeps it until it is seated anew.
      ...(laser && laser.sigmaRad > 0
        ? {
            seat: {
              id: left ? "laser-rl" : "laser-rr",
              name: `the laser at the rear ${word} wheel`,
              sigmaMm: 1000 * throwM * laser.sigmaRad,
            },
          }
        : {}),
      // Along the beam to vehicle left is the body's own -y; the laser's plane has its normal a
      // quarter turn from it.
      observes: inPlan((body) => ({
        kind: "range",
        from: `${body}.beam`,
        directionRad: left ? -Math.PI / 2 : Math.PI / 2,
        panelPoint: left ? "hubRL" : "hubRR",
        panelHeadingRad: heading + (left ? Math.PI / 2 : -Math.PI / 2),
        // More toe-in brings either light nearer to the middle.
        causes: [{ cause: left ? TOE_LEFT : TOE_RIGHT, per: -1000 * throwM }],
      })),
      ...asIs,
    };
  });
}

const WHEELS: [string, VehiclePointId, string][] = [
  ["fl", "hubFL", "front left"],
  ["fr", "hubFR", "front right"],
  ["rl", "hubRL", "rear left"],
  ["rr", "hubRR", "rear right"],
];

/** Where the rig sees the target on each wheel, in its own axes: ahead of it, and to the side. */
export function rigSlots({ target }: SetOutPlan): Slot[] {
  const across = target.beam?.acrossMm ?? target.placement.acrossMm;
  const own = (body: string) => ({ lineFrom: `${body}.centre`, lineTo: `${body}.ahead` });
  return WHEELS.flatMap(([key, hub, word]): Slot[] => [
    {
      id: `rig-${key}-x`,
      name: `rig to the ${word} wheel, ahead`,
      short: `${key.toUpperCase()} ahead`,
      act: "Let the rig look until the figures stand still.",
      instrument: "rig",
      quantity: {
        name: `the rig’s distance to the ${word} wheel`,
        dimension: "length",
        min: 300,
        max: 20_000,
      },
      seconds: 2,
      observes: inPlan((body) => ({ kind: "station", point: hub, ...own(body) })),
      ...asIs,
    },
    {
      id: `rig-${key}-y`,
      name: `rig to the ${word} wheel, beside`,
      short: `${key.toUpperCase()} beside`,
      act: "Let the rig look until the figures stand still.",
      instrument: "rig",
      // Vehicle left is positive: a wheel on the wrong side is questioned as surely as one in
      // metres.
      quantity: {
        name: `the ${word} wheel beside the rig’s axis`,
        dimension: "length",
        min: (key[1] === "l" ? 250 : -2000) - across,
        max: (key[1] === "l" ? 2000 : -250) - across,
      },
      // The rig faces the car: its own left is vehicle right.
      sides: SIDES,
      seconds: 2,
      observes: inPlan((body) => ({ kind: "offset", point: hub, ...own(body) })),
      ...flipped,
    },
  ]);
}
