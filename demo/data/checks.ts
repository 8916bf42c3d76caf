import type { Sheet } from "@/core/sheet";

type Item = Sheet["ready"][number];

/** What most of the made-up shop's sheets check before the work, each in one wording. */
export const BASELINE: Item = {
  id: "baseline-scan",
  ask: "Fault codes read before work and kept",
  why: "What was there before must be told apart from what the work left.",
  measure: { kind: "scan" },
};

export const maintainer = (minVolts: number, minMinutes: number): Item => ({
  id: "maintainer",
  ask: "Battery maintainer on, supply steady",
  why: "Ignition-on work drains the battery; a dip stops the routine.",
  measure: { kind: "battery", minVolts, minMinutes },
});

export const pressures = (why: string, toleranceKPa: number): Item => ({
  id: "tyres",
  ask: "Tyre pressures at placard",
  why,
  measure: { kind: "pressures", load: "half", toleranceKPa },
});
