import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MIRRORS } from "@/demo/data/mirror";
import { SHEETS } from "@/demo/data/sheets";
import { advanceRun, currentStep, replayRun, RUN_START, RunRefusal, type RunEvent } from ".";

const steps = SHEETS[0]!.run;
const at = (s: number): string => new Date(Date.UTC(2026, 10, 3, 9, 0, s)).toISOString();
const tool = { name: "Simulated tool", serial: "SIM-1", software: "1.0" };
const good = {
  passed: true,
  qualityPercent: 93,
  learnedYawDeg: 0.1,
  learnedPitchDeg: 0,
  learnedRollDeg: 0,
  reason: null,
};

const WHOLE: RunEvent[] = [
  { at: at(0), type: "connected", tool, volts: 13.1 },
  { at: at(1), type: "confirmed", step: "hood" },
  { at: at(2), type: "value", step: "volts", value: 13.1, shownValue: 13.1, shownUnit: "V" },
  { at: at(3), type: "ignition", step: "ign-off", to: "off" },
  { at: at(9), type: "waited", step: "ign-off" },
  { at: at(10), type: "ignition", step: "ign-on", to: "on" },
  { at: at(13), type: "waited", step: "ign-on" },
  {
    at: at(14),
    type: "value",
    step: "camera-height",
    value: 1161,
    shownValue: 45.7,
    shownUnit: "in",
  },
  { at: at(20), type: "input", step: "arch", valueMm: 671 },
  { at: at(21), type: "routine-started", step: "learn" },
  { at: at(40), type: "routine-result", step: "learn", result: good },
];

describe("a run", () => {
  it("passes when every step is done in order, and is the same replayed", () => {
    expect(replayRun(WHOLE, steps)).toMatchObject({
      status: "passed",
      attempt: 1,
      inputsMm: { arch: 671 },
    });
  });
  it("takes no event out of its place: every other event of the log is refused at every state", () => {
    fc.assert(
      fc.property(fc.nat(WHOLE.length - 1), fc.nat(WHOLE.length - 1), (n, m) => {
        const state = replayRun(WHOLE.slice(0, n), steps);
        fc.pre(m !== n && WHOLE[m]!.type !== "connected");
        expect(() => advanceRun(state, WHOLE[m]!, steps)).toThrow(RunRefusal);
      }),
    );
  });
  it("does not let a wait be cut short", () => {
    const early = WHOLE.map((e) =>
      e.type === "waited" && e.step === "ign-off" ? { ...e, at: at(8) } : e,
    );
    expect(() => replayRun(early, steps)).toThrow("not over");
  });
  it("stops at a value outside the book and reads it again", () => {
    const low = replayRun(
      [
        WHOLE[0]!,
        WHOLE[1]!,
        { at: at(2), type: "value", step: "volts", value: 11.9, shownValue: 11.9, shownUnit: "V" },
      ],
      steps,
    );
    expect(currentStep(low, steps)?.id).toBe("volts");
    expect(low.message).toContain("book");
    expect(currentStep(advanceRun(low, WHOLE[2]!, steps), steps)?.id).toBe("ign-off");
  });
  it("fails on the vehicle's refusal and on quality below the sheet, and may begin again", () => {
    const refused = replayRun(
      [
        ...WHOLE.slice(0, -1),
        {
          at: at(40),
          type: "routine-result",
          step: "learn",
          result: { ...good, passed: false, reason: "Board too small in view." },
        },
      ],
      steps,
    );
    expect(refused).toMatchObject({ status: "failed", message: "Board too small in view." });
    const poor = replayRun(
      [
        ...WHOLE.slice(0, -1),
        {
          at: at(40),
          type: "routine-result",
          step: "learn",
          result: { ...good, qualityPercent: 61 },
        },
      ],
      steps,
    );
    expect(poor.status).toBe("failed");
    expect(advanceRun(poor, WHOLE[0]!, steps)).toMatchObject({
      status: "connected",
      attempt: 2,
      stepIndex: 0,
    });
  });
  it("begins only with a connection", () => {
    expect(() => advanceRun(RUN_START, WHOLE[1]!, steps)).toThrow("not connected");
  });
});

describe("a camera that is aimed", () => {
  const aimed = MIRRORS[0]!.run;
  const begun: RunEvent[] = [
    { at: at(0), type: "connected", tool, volts: 26.1 },
    { at: at(1), type: "ignition", step: "ign-on", to: "on" },
    { at: at(4), type: "waited", step: "ign-on" },
    { at: at(5), type: "input", step: "height-left", valueMm: 2540 },
    { at: at(6), type: "input", step: "height-right", valueMm: 2540 },
    { at: at(7), type: "input", step: "end", valueMm: 9000 },
  ];
  const read = (right: number, up: number): RunEvent => ({
    at: at(20),
    type: "aim-read",
    step: "aim-left",
    right,
    up,
  });
  const turned: RunEvent = { at: at(30), type: "aim-turned", step: "aim-left", pan: 4, tilt: 0 };

  it("stays at its step until the mark is read inside, and is turned by a fresh reading only", () => {
    const outside = replayRun([...begun, read(1, -1)], aimed);
    expect(currentStep(outside, aimed)!.id).toBe("aim-left");
    expect(outside.aims["aim-left"]).toMatchObject({ inside: false, fresh: true, turns: 0 });
    expect(() => replayRun([...begun, turned], aimed)).toThrow(/Read where the mark stands/);
    const once = replayRun([...begun, read(1, -1), turned], aimed);
    expect(once.aims["aim-left"]).toMatchObject({ fresh: false, turns: 1 });
    expect(() => advanceRun(once, turned, aimed)).toThrow(RunRefusal);
    // The sheet wants it at 2 right, 1 down, within 0.4.
    const inside = advanceRun(once, read(2.4, -1.4), aimed);
    expect(inside.aims["aim-left"]).toMatchObject({ inside: true, turns: 1 });
    expect(currentStep(inside, aimed)!.id).toBe("aim-right");
    expect(currentStep(advanceRun(once, read(2.41, -1), aimed), aimed)!.id).toBe("aim-left");
  });
});
