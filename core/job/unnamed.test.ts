import { expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE } from "@/tests/fixtures";
import { intakeSchema } from "./events";
import type { JobEvent } from "./job";
import { owedLines, unnamedSystems } from "./owed";

const intake = intakeSchema.parse({
  ...INTAKE,
  vehicleId: "brannoch-tarn",
  happenings: [
    { event: "glass-out", place: "windshield" },
    { event: "mirror-touched", place: "left" },
  ],
  answers: { trim: "base" },
  rearToeDeg: { left: 0.1, right: 0.1 },
});
const ground = groundOf(
  intake,
  2,
  SHEETS.find((s) => s.id === "tarn-forward")!,
);
const read = (answers: boolean): JobEvent[] => [
  {
    id: "scan",
    seq: 1,
    at: "2026-11-03T09:00:00.000Z",
    by: { id: "ines", name: "Ines Tarbet", initials: "IT" },
    body: {
      kind: "scan",
      event: {
        at: "2026-11-03T09:00:00.000Z",
        type: "read",
        volts: 13,
        modules: [
          {
            id: "surround-view",
            name: "Surround view",
            system: "surround-view",
            answers,
            codes: [],
          },
        ],
      },
    },
  },
];
const systems = (events: JobEvent[]): string[] => owedLines(ground, events).map((l) => l.system);

it("a unit that answers, though an answer at take-in leaves it out, is fitted: what it owes is owed", () => {
  expect(ground.vehicle.id).toBe("brannoch-tarn");
  expect([unnamedSystems(ground, []), systems([])]).toEqual([[], ["forward-camera"]]);
  expect(unnamedSystems(ground, read(false))).toEqual([]);
  expect(unnamedSystems(ground, read(true))).toEqual(["surround-view"]);
  expect(systems(read(true))).toContain("surround-view");
});
