import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { intakeSchema, type EventBody, type JobEvent } from "@/core/job";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { z } from "zod";
import { record1JsonSchema, recordJsonSchema, recordSchema } from ".";
import { vehicleJsonSchema } from "@/core/vehicle";
import { sheet1Schema, sheetJsonSchema } from "@/core/sheet";
import { SHEETS } from "@/demo/data/sheets";
import { buildRecord, readingFigures, standLines } from ".";

const ground = groundOf(intakeSchema.parse({ ...INTAKE, customer: "A" }), 0, SHEETS[0]!);
const log = (bodies: EventBody[]): JobEvent[] => logOf(ground, ...bodies);
const reading = (slotId: string, shown: number): JobEvent["body"] => ({
  kind: "reading",
  slotId,
  typed: String(shown),
  shown,
  sigma: 1.7,
  instrumentId: "T-3",
});

describe("the record", () => {
  it("is published as the schemas the code holds", () => {
    for (const [name, schema] of [
      ["sheet-1", z.toJSONSchema(sheet1Schema)],
      ["sheet-2", sheetJsonSchema()],
      ["vehicle-1", vehicleJsonSchema()],
      ["record-1", record1JsonSchema()],
      ["record-2", recordJsonSchema()],
    ] as const)
      expect(JSON.parse(readFileSync(`public/schemas/${name}.json`, "utf8"))).toEqual(
        JSON.parse(JSON.stringify(schema)),
      );
  });
  it("keeps struck and doubtful readings readable, each with its reason, and says what is still open", () => {
    const events = log([
      reading("tape-fl-l", 2876),
      reading("tape-fr-r", 2896),
      { kind: "strike", target: "e3", reason: "Tape hooked on the cap" },
      { kind: "touch", touch: "knocked" },
      reading("laser-badge", -3),
    ]);
    const record = recordSchema.parse(buildRecord(1041, ground, events, true));
    const [target] = record.calibrations[0]!.targets;
    expect(target!.readings.map((r) => r.state)).toEqual(["doubt", "struck", "counts"]);
    expect(target!.readings[1]).toMatchObject({
      struckReason: "Tape hooked on the cap",
      residual: null,
    });
    expect(target!.touches).toHaveLength(1);
    expect(standLines(target!).map((l) => l.act?.say ?? l.reading!.slot)).toEqual([
      "tape-fl-l",
      "tape-fr-r",
      "Touched: Knocked or leaned on it",
      "laser-badge",
    ]);
    expect(target!.settled).toBeNull();
    expect(record.open).toContain("Set out: Board not proved in place");
    expect(readingFigures(target!.readings[2]!).value.replace(/\s/g, " ")).toBe(
      "3 mm vehicle right",
    );
  });
});
