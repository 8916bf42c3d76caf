import { describe, expect, it } from "vitest";
import type { ModuleReading } from "@/core/scan";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { codesAfter, intakeSchema, itemReading, itemsOf, type EventBody } from ".";

const AT = "2026-11-03T09:00:00.000Z";
const intake = intakeSchema.parse(INTAKE);
const ground = groundOf(intake, 0, SHEETS[0]!);
const unit = (id: string, system: ModuleReading["system"], ...codes: string[]): ModuleReading => ({
  id,
  name: id,
  system,
  answers: true,
  codes: codes.map((code) => ({ code, state: "stored" as const, text: code })),
});
const scan = (...modules: ModuleReading[]): EventBody => ({
  kind: "scan",
  event: { at: AT, type: "read", volts: 12.6, modules },
});
const cleared: EventBody = { kind: "scan", event: { at: AT, type: "cleared", volts: 12.6 } };
const learned: EventBody = {
  kind: "run",
  event: {
    at: AT,
    type: "routine-result",
    step: "learn",
    result: { passed: true, qualityPercent: 97, reason: null },
  },
};
const CAM = unit("cam", "forward-camera", "C1");
const after = (...bodies: EventBody[]) => codesAfter(ground, logOf(ground, ...bodies))!;

describe("codes after the work", () => {
  it("are those read since the routine, and since they were last cleared", () => {
    const read = [scan(CAM), learned, scan(CAM)];
    expect(after(...read).missing).toEqual([{ unit: "cam", code: "C1" }]);
    // A clearing after that reading makes it old: what it said says nothing of what comes back.
    expect(after(...read, cleared)).toMatchObject({ after: null, cleared: true, missing: [] });
    const again = after(...read, cleared, scan(unit("cam", "forward-camera")));
    expect(again.missing).toEqual([]);
    expect(again.units[0]!.codes[0]!.change).toBe("gone");
    expect(after(...read, learned).after).toBeNull();
  });

  it("are asked for a word once, and a struck word is asked for anew", () => {
    const word: EventBody = { kind: "code-word", unit: "cam", code: "C1", word: "loom chafed" };
    const log = [scan(CAM), learned, scan(CAM), word];
    expect(after(...log).missing).toEqual([]);
    const strike: EventBody = { kind: "strike", target: "e5", reason: "wrong line" };
    expect(after(...log, strike).missing).toEqual([{ unit: "cam", code: "C1" }]);
  });
});

describe("the scan before work", () => {
  const item = itemsOf(ground, "ready").find((i) => i.measure?.kind === "scan")!;
  const silent = (system: ModuleReading["system"]): EventBody =>
    scan(CAM, { ...unit("x", system), answers: false });
  const found = (built: boolean, system: ModuleReading["system"]) => {
    const others = ground.vehicle.fitted.filter((f) => f.system !== "front-radar");
    const radar = { ...ground.vehicle.fitted[0]!, system: "front-radar" as const };
    const fitted = built ? [...others, radar] : others;
    const vehicle = { ...ground.vehicle, fitted };
    return itemReading({ ...ground, vehicle }, logOf(ground, silent(system)), item)!.kind;
  };
  it("misses a unit that does not answer only where the vehicle was built with its system", () => {
    expect(found(true, "front-radar")).toBe("outside");
    expect(found(false, "front-radar")).toBe("inside");
    expect(found(false, null)).toBe("outside");
  });
});
