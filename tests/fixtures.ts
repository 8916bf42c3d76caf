import { firstTarget } from "@/core/sheet";
import { DEFAULT_THRESHOLDS, type SetOutPlan } from "@/core/setout";
import { INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { SHEETS } from "@/demo/data/sheets";
import { madeUpVin, VEHICLES } from "@/demo/data/vehicles";

/** The demo shop's plans by place in their lists: vehicle and sheet (same place), and stand. */
export const planOf = (vehicle: number, stand: number): SetOutPlan => ({
  vehicle: VEHICLES[vehicle]!,
  target: firstTarget(SHEETS[vehicle]!),
  stand: STANDS[stand]!,
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
