import { z } from "zod";
import { systemIdSchema } from "@/core/owed/schema";
import type { EventId, Fitted, PlaceId, SystemId } from "@/core/owed";
import { sheetSchema, type Sheet } from "@/core/sheet";
import { vehicleSchema, type Vehicle } from "@/core/vehicle";

/** The id of a vehicle and a sheet that stand in no book. */
const ON_THE_SPOT = "on-the-spot";

const mm = (min: number, max: number) => z.number().min(min).max(max);

/**
 * What one person alone with an unknown car can find out: what it is and what was taped of it, and
 * what the maker's own information says about setting the board.
 */
export const onTheSpotSchema = z.object({
  make: z.string().trim().min(1).max(40),
  model: z.string().trim().min(1).max(40),
  body: vehicleSchema.shape.body,
  driverSide: vehicleSchema.shape.driverSide,
  /** Front hub to rear hub, mean of both sides. */
  wheelbaseMm: mm(1500, 7000),
  /** Hub cap to hub cap of an axle, where the tape is held. */
  frontCapsMm: mm(1100, 2700),
  rearCapsMm: mm(1100, 2700),
  /** Standard uncertainty of these three as they were taped. */
  tapedSigmaMm: mm(0.5, 20),
  hubHeightMm: mm(200, 700),
  /** What else it has, as far as one can see. */
  systems: z.array(systemIdSchema).max(9),
  /** Where the figures of the board come from. */
  source: z.string().trim().min(3).max(120),
  boardCode: z.string().trim().min(1).max(16),
  boardWidthMm: mm(200, 4000),
  /** Front hub line to board, and centre of the board above the floor. */
  alongMm: mm(300, 12000),
  heightMm: mm(100, 3000),
  tolerance: z.object({
    alongMm: mm(0.5, 200),
    acrossMm: mm(0.5, 200),
    heightMm: mm(0.5, 200),
    twistDeg: mm(0.02, 10),
  }),
});
export type OnTheSpot = z.infer<typeof onTheSpotSchema>;

/** Where the parts of a system usually sit. */
const USUAL_PLACES: Record<SystemId, PlaceId[]> = {
  "forward-camera": ["windshield"],
  "surround-view": ["front", "rear", "left", "right"],
  "side-camera": ["left", "right"],
  "mirror-camera": ["left", "right"],
  "rear-camera": ["rear"],
  "trailer-camera": ["trailer"],
  "front-radar": ["front"],
  "corner-radar": ["front", "rear"],
  "steering-angle": ["chassis"],
};

/** What is assumed of a body nobody measured: for drawings, and where no limit hangs on it. */
const ASSUMED: Record<
  Vehicle["body"],
  { frontMm: number; rearMm: number; cameraMm: number; badgeMm: number; archMm: number }
> = {
  car: { frontMm: 900, rearMm: 920, cameraMm: 1250, badgeMm: 700, archMm: 690 },
  coupe: { frontMm: 920, rearMm: 860, cameraMm: 1160, badgeMm: 580, archMm: 670 },
  van: { frontMm: 1000, rearMm: 1150, cameraMm: 1800, badgeMm: 1000, archMm: 810 },
  camper: { frontMm: 1000, rearMm: 1600, cameraMm: 1900, badgeMm: 1050, archMm: 820 },
  truck: { frontMm: 1350, rearMm: 1900, cameraMm: 2200, badgeMm: 1300, archMm: 1000 },
};

/** How far out of the middle an emblem may sit that nobody measured. */
const BADGE_SIGMA_MM = 2;
/** How far a hub cap of one wheel may lie beside what both have in common. */
const HUB_SIGMA_MM = 1.5;
const CAP_OUT_MM = 50;

const fittedOf = (systems: readonly SystemId[]): Fitted[] =>
  [...new Set<SystemId>(["forward-camera", ...systems])].map((system) => ({
    system,
    places: USUAL_PLACES[system],
  }));

/** The vehicle as far as it is known. @param vin of this very one */
function vehicleOf(t: OnTheSpot, vin: string, enteredBy: string): Vehicle {
  const a = ASSUMED[t.body];
  return {
    id: ON_THE_SPOT,
    make: t.make,
    model: t.model,
    variant: "typed on the spot",
    vinStart: vin
      .replace(/[^A-HJ-NPR-Z0-9]/g, "")
      .slice(0, 8)
      .padEnd(3, "0"),
    body: t.body,
    driverSide: t.driverSide,
    wheelbaseMm: t.wheelbaseMm,
    trackFrontMm: t.frontCapsMm - 2 * CAP_OUT_MM,
    trackRearMm: t.rearCapsMm - 2 * CAP_OUT_MM,
    hubCapOutMm: CAP_OUT_MM,
    hubHeightMm: t.hubHeightMm,
    lengthMm: a.frontMm + t.wheelbaseMm + a.rearMm,
    widthMm: Math.min(2700, Math.max(1300, Math.max(t.frontCapsMm, t.rearCapsMm) + 140)),
    frontOverhangMm: a.frontMm,
    frontBadge: { xMm: t.wheelbaseMm + a.frontMm - 25, yMm: 0, zMm: a.badgeMm },
    rearBadge: { xMm: -a.rearMm + 25, yMm: 0, zMm: a.badgeMm + 250 },
    camera: { xMm: t.wheelbaseMm - 700, yMm: 0, zMm: a.cameraMm },
    hubSigmaMm: HUB_SIGMA_MM,
    badgeSigmaMm: BADGE_SIGMA_MM,
    fitted: fittedOf(t.systems),
    questions: [],
    archMm: { FL: a.archMm, FR: a.archMm, RL: a.archMm, RR: a.archMm },
    placardKPa: { half: { front: 240, rear: 240 }, full: { front: 260, rear: 280 } },
    tyres: { front: "not read", rear: "not read" },
    gateway: false,
    tankLitres: 50,
    glass: {
      widthMm: 1400,
      heightMm: 850,
      rakeDeg: 32,
      bracketAcrossMm: 0,
      bracketUpMm: 330,
      makerPart: "not known",
      equivalentParts: [],
      limitDeg: 0.15,
    },
    source: `Taped on the spot by ${enteredBy}; the rest assumed`,
    provisional: {
      enteredBy,
      wheelbaseSigmaMm: t.tapedSigmaMm,
      trackSigmaMm: t.tapedSigmaMm,
    },
  };
}

/** What is looked at before any forward camera learns; nothing is held to a figure nobody has. */
const READY: Sheet["ready"] = [
  {
    id: "baseline-scan",
    ask: "Fault codes read before work and kept",
    why: "What was there before must be told apart from what the work left.",
    measure: { kind: "scan" },
  },
  {
    id: "maintainer",
    ask: "Battery maintainer on, supply steady",
    why: "Ignition-on work drains the battery; a dip stops the routine.",
    measure: { kind: "battery", minVolts: 12.4, minMinutes: 30 },
  },
  {
    id: "tyres",
    ask: "Tyres alike across each axle, pressures as the placard on the door says",
    why: "A soft or smaller tyre tips the camera.",
  },
  {
    id: "load",
    ask: "Load and fuel as the source asks, body level",
    why: "Load changes the height and pitch of the camera.",
  },
  {
    id: "steering",
    ask: "Steering straight",
    why: "The routine refuses otherwise, or learns crooked.",
    measure: { kind: "steering", maxDeg: 3 },
  },
  {
    id: "floor",
    ask: "Floor read at the four tyres and at the stand",
    why: "The board’s height counts from the car’s plane, not from the floor it stands on.",
    measure: { kind: "floor", slopeDeg: 0.6, twistMm: 5 },
  },
  {
    id: "surroundings",
    ask: "Doors shut, lights off, clear zone and light as the source asks",
    why: "The camera must find one board only, and must be able to see it.",
  },
];

const RUN: Sheet["run"] = [
  {
    id: "read-on",
    kind: "prompt",
    say: "Open the source at this routine, and follow it where it asks for more than this list.",
  },
  {
    id: "ign-on",
    kind: "ignition",
    say: "Ignition on. Do not start the engine.",
    to: "on",
    waitSeconds: 3,
    caution: "Hands away from the fans: they may start without warning.",
  },
  {
    id: "learn",
    kind: "routine",
    say: "Let the camera look at the board. Nobody walks through its view.",
    routine: "forward-camera-static",
    minQuality: 0,
  },
];

const PROVE: Sheet["prove"] = [
  {
    id: "rescan",
    ask: "Codes cleared and read again: none from the camera",
    why: "A code that returns says the fault is still there.",
    measure: { kind: "rescan" },
  },
  {
    id: "road-check",
    ask: "Lane warning checked on a marked road, two people aboard",
    why: "The routine says it learned; only the road shows that it works.",
  },
];

const CAUTIONS: Sheet["cautions"] = [
  { say: "Chocks in and park brake on before anyone works at the wheels.", when: "wheels" },
  { say: "Do not look into the board laser; keep it off when nobody reads it.", when: "laser" },
];

/** The sheet as far as it is known. @param on the day it was typed, YYYY-MM-DD */
const sheetOf = (
  t: OnTheSpot,
  enteredBy: string,
  on: string,
  after: readonly EventId[],
): Sheet => ({
  format: "iridel.sheet/2",
  id: ON_THE_SPOT,
  version: 1,
  status: "provisional",
  title: `${t.model}, forward camera, typed on the spot`,
  source: { name: t.source, date: on, enteredBy },
  appliesTo: {
    vehicles: [ON_THE_SPOT],
    system: "forward-camera",
    after: after.length > 0 ? [...new Set(after)] : ["glass-out"],
  },
  reason: "After this work the forward camera must learn its aim again.",
  method: "static",
  setups: [
    {
      id: "first",
      name: "first place",
      targets: [
        {
          id: "first",
          name: "first place",
          kind: "board",
          object: { code: t.boardCode, widthMm: t.boardWidthMm },
          datum: "centreline",
          distanceFrom: "front-hub-line",
          placement: { alongMm: t.alongMm, acrossMm: 0, twistDeg: 0, heightMm: t.heightMm },
          tolerance: t.tolerance,
        },
      ],
    },
  ],
  cautions: CAUTIONS,
  ready: READY,
  run: RUN,
  prove: PROVE,
});

/**
 * The documents a job stands on where no book has them: both provisional, both with the name of the
 * one who typed them.
 *
 * @param on the day, YYYY-MM-DD
 * @throws ZodError where the figures contradict a document's own rules
 */
export function documentsOnTheSpot(
  typed: OnTheSpot,
  { vin, happenings }: { vin: string; happenings: readonly { event: EventId }[] },
  enteredBy: string,
  on: string,
): { vehicle: Vehicle; sheet: Sheet } {
  return {
    vehicle: vehicleSchema.parse(vehicleOf(typed, vin, enteredBy)),
    sheet: sheetSchema.parse(
      sheetOf(
        typed,
        enteredBy,
        on,
        happenings.map((h) => h.event),
      ),
    ),
  };
}
