import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { intakeSchema, type EventBody, type JobEvent } from ".";
import { unmaintained } from "./supply";

const ground = groundOf(intakeSchema.parse({ ...INTAKE, customer: "A" }), 0, SHEETS[0]!);
const log = (...bodies: EventBody[]): JobEvent[] => logOf(ground, ...bodies);
const at = (minute: number): string => new Date(Date.UTC(2026, 10, 3, 10, minute)).toISOString();
const tool = { name: "Tool", serial: "1", software: "1" };
const connected = (minute: number): EventBody => ({
  kind: "run",
  event: { at: at(minute), type: "connected", tool, volts: 13.3 },
});
const OFF: EventBody = { kind: "run", event: { at: at(1), type: "confirmed", step: "hood" } };
const volts = (minute: number, v: number): EventBody => ({
  kind: "scan",
  event: { at: at(minute), type: "volts", volts: v },
});

describe("the supply without its maintainer", () => {
  it("counts from when it was taken off, by the sheet while nobody has read its fall", () => {
    expect(unmaintained(ground, log(connected(0)))).toBeNull();
    // The sheet asks for 30 minutes of supply.
    expect(unmaintained(ground, log(connected(0), OFF))).toEqual({
      since: at(1),
      until: at(31),
      minutes: 30,
      from: "sheet",
    });
  });
  it("goes by its own fall once that was read often enough", () => {
    // A tenth of a volt a minute from 12.9 at the start: 12.4 after five.
    const falls = [2, 3, 4].map((m) => volts(m, 12.9 - 0.1 * (m - 1)));
    const found = unmaintained(ground, log(connected(0), OFF, ...falls))!;
    expect(found.from).toBe("its fall");
    expect(found.minutes).toBeCloseTo(5, 6);
    expect(found.until).toBe(at(6));
    // Steady volts say nothing of an end.
    const steady = [2, 3, 4].map((m) => volts(m, 12.8));
    expect(unmaintained(ground, log(connected(0), OFF, ...steady))!.from).toBe("sheet");
  });
  it("ends with the run it was taken off for, with a new one, and when it was put right", () => {
    const stopped: EventBody = {
      kind: "run",
      event: { at: at(9), type: "stopped", reason: "Lunch" },
    };
    expect(unmaintained(ground, log(connected(0), OFF, stopped))).toBeNull();
    expect(unmaintained(ground, log(connected(0), OFF, stopped, connected(12)))).toBeNull();
    const on: EventBody = { kind: "put-right", itemId: "maintainer" };
    expect(unmaintained(ground, log(connected(0), OFF, on))).toBeNull();
  });
});
