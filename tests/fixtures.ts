import { firstTarget, type Sheet } from "@/core/sheet";
import { DEFAULT_THRESHOLDS, type SetOutPlan, type Stand } from "@/core/setout";
import { INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { SHEETS } from "@/demo/data/sheets";
import { madeUpVin, VEHICLES } from "@/demo/data/vehicles";
import {
  scopedLog,
  viewOf,
  type CalibrationGround,
  type EventBody,
  type Intake,
  type JobEvent,
} from "@/core/job";
import { RULES } from "@/demo/data/rules";

/** A stand that needs no finishing: what that does has tests of its own. */
export const bareStand = (stand: number): Stand => {
  const { lastActs: _, ...bare } = STANDS[stand]!;
  return bare;
};

/** The demo shop's plans by place in their lists: vehicle and sheet (same place), and stand. */
export const planOf = (vehicle: number, stand: number): SetOutPlan => ({
  vehicle: VEHICLES[vehicle]!,
  target: firstTarget(SHEETS[vehicle]!),
  stand: bareStand(stand),
  instruments: INSTRUMENTS,
  rearToe: { leftRad: 0.001, rightRad: 0.005 },
  thresholds: DEFAULT_THRESHOLDS,
  floorStepMm: { value: 0, sigma: 0.8 },
  floorSlopeRad: { ahead: { value: 0, sigma: 2e-4 }, left: { value: 0, sigma: 3e-4 } },
});

/**
 * A car with a new windshield, as it is taken in: what tests of a job begin with, each changing
 * what it is about.
 */
export const INTAKE = {
  vin: madeUpVin("0NVLS2DA7R100417"),
  vinReason: null,
  vehicleId: "norvane-lisse",
  happenings: [{ event: "glass-out" as const, place: "windshield" as const }],
  sheetId: "lisse-forward",
  sheetVersion: 2,
  standId: "S-1",
  customer: "Elin Marsh",
  plate: "",
  order: "",
  rearToeDeg: null,
  answers: {},
  complaint: "",
};

/** What is typed of a car no book has. */
export const ON_THE_SPOT = {
  make: "Ostrin",
  model: "Vale",
  body: "car",
  driverSide: "right",
  wheelbaseMm: 2704,
  frontCapsMm: 1672,
  rearCapsMm: 1668,
  tapedSigmaMm: 4,
  hubHeightMm: 334,
  systems: [],
  source: "Maker’s information, job 7",
  boardCode: "HQ-14",
  boardWidthMm: 1100,
  alongMm: 2900,
  heightMm: 1200,
  tolerance: { alongMm: 10, acrossMm: 10, heightMm: 6, twistDeg: 0.35 },
};

/** A job of one calibration, as its first view. */
export const groundOf = (
  intake: Intake,
  vehicle: number,
  sheet: Sheet,
  stand = bareStand(vehicle),
): CalibrationGround =>
  viewOf(
    {
      intake,
      vehicle: VEHICLES[vehicle]!,
      calibrations: [{ id: sheet.id, sheet, stand }],
      instruments: INSTRUMENTS,
      ruleBook: RULES,
      glassPolicy: "equivalent-with-reason",
    },
    null,
  );

/** One answer of a checklist, as a tablet sends it. */
export const TYRES_ACCEPTED = {
  kind: "check",
  stage: "ready",
  itemId: "tyres",
  outcome: "accepted",
  reason: "seen",
} as const;

/** Ines, who writes the logs of tests. */
const BY = { id: "ines", name: "Ines Tarbet", initials: "IT" };

/** A job's log as the program reads it: a line a minute, each with what it is of. */
export const logOf = (ground: CalibrationGround, ...bodies: EventBody[]): JobEvent[] =>
  scopedLog(
    ground,
    [{ kind: "taken-in" as const, intake: ground.intake }, ...bodies].map((body, i) => ({
      id: `e${i + 1}`,
      seq: i + 1,
      at: new Date(Date.UTC(2026, 10, 3, 9, i)).toISOString(),
      by: BY,
      body,
    })),
  );
