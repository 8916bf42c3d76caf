import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomFrom } from "@/core/math/random";
import type { SheetStep } from "@/core/sheet";
import { MIRRORS } from "@/demo/data/mirror";
import { SHEETS } from "@/demo/data/sheets";
import { randomRun, randomSteps } from "@/tests/runs";
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

/** Which event finishes a step, for good. */
const FINISHES: Record<SheetStep["kind"], (e: RunEvent) => boolean> = {
  prompt: (e) => e.type === "confirmed",
  ignition: (e) => e.type === "ignition" || e.type === "waited",
  position: (e) => e.type === "placed",
  compare: (e) => e.type === "value" || e.type === "value-accepted",
  input: (e) => e.type === "input",
  hold: (e) => e.type === "held" && e.entered,
  choose: (e) => e.type === "chosen",
  aim: (e) => e.type === "aim-read",
  routine: (e) => e.type === "routine-result" && e.result.passed && e.result.qualityPercent >= 75,
};

describe("whatever happens to a run", () => {
  const runOfSeed = (seed: number) => {
    const random = randomFrom(seed);
    const list = randomSteps(random);
    return { steps: list, ...randomRun(random, list, 160) };
  };
  it("it is never in a state that cannot be", () => {
    let passed = 0;
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const { steps: list, log, states } = runOfSeed(seed);
        states.forEach((s, n) => {
          const step = list[s.stepIndex];
          const over = ["passed", "failed", "stopped", "not-started"].includes(s.status);
          expect(s.stepIndex).toBeLessThanOrEqual(list.length);
          expect(s.waitUntil !== null).toBe(s.status === "waiting");
          if (s.status === "waiting") expect(step?.kind).toBe("ignition");
          if (s.status === "routine") expect(step?.kind).toBe("routine");
          if (s.clockUntil)
            expect([over, step?.kind === "position" && step.withinSeconds]).toEqual([false, 60]);
          if (s.dropped) expect(over).toBe(false);
          if (!over && step?.kind === "hold") expect(s.ignitionAt).not.toBeNull();
          expect(s.attempt).toBe(log.slice(0, n + 1).filter((e) => e.type === "connected").length);
          // It goes on by one step at most, and back only where buttons were missed, or anew.
          const before = states[n - 1];
          const went = before ? s.stepIndex - before.stepIndex : 0;
          expect(went).toBeLessThanOrEqual(1);
          if (went < 0) expect(["held", "hold-missed", "connected"]).toContain(log[n]!.type);
        });
        const end = states.at(-1);
        if (end?.status !== "passed") return;
        passed++;
        // Passed: since it was connected last, every step was finished, in order.
        const last = log.slice(log.findLastIndex((e) => e.type === "connected"));
        let at = -1;
        for (const step of list) {
          const done = last.findIndex(
            (e, i) => i > at && "step" in e && e.step === step.id && FINISHES[step.kind](e),
          );
          expect(done).toBeGreaterThan(at);
          at = done;
        }
      }),
      { numRuns: 400 },
    );
    expect(passed).toBeGreaterThan(10);
  });
  it("its log alone brings it back, from any place of it", () => {
    fc.assert(
      fc.property(fc.nat(), fc.nat(), (seed, n) => {
        const { steps: list, log, states } = runOfSeed(seed);
        const upTo = log.length > 0 ? n % log.length : 0;
        expect(replayRun(log.slice(0, upTo), list)).toEqual(states[upTo - 1] ?? RUN_START);
        expect(replayRun(structuredClone(log), list)).toEqual(states.at(-1) ?? RUN_START);
      }),
      { numRuns: 400 },
    );
  });
});

describe("buttons that are held", () => {
  const three = SHEETS.find((s) => s.id === "lisse-forward-three")!.run;
  const upTo: RunEvent[] = [
    { at: at(0), type: "connected", tool, volts: 13.1 },
    { at: at(1), type: "confirmed", step: "out" },
    { at: at(2), type: "ignition", step: "ign-off", to: "off" },
    { at: at(3), type: "ignition", step: "ign-on", to: "on" },
  ];
  it("too late, or let go, send it back to ignition off; held in time they let it in", () => {
    for (const miss of [
      { at: at(10), type: "hold-missed", step: "enter" },
      { at: at(5), type: "held", step: "enter", entered: false },
      { at: at(10), type: "held", step: "enter", entered: true },
    ] as const)
      expect(replayRun([...upTo, miss], three)).toMatchObject({
        stepIndex: 1,
        missed: { enter: 1 },
        ignitionAt: null,
      });
    expect(() =>
      replayRun([...upTo, { at: at(8), type: "hold-missed", step: "enter" }], three),
    ).toThrow(/time left/);
    const held = { at: at(9), type: "held", step: "enter", entered: true } as const;
    expect(replayRun([...upTo, held], three).stepIndex).toBe(4);
  });
});

describe("a place the vehicle waits for", () => {
  const list: SheetStep[] = [
    { id: "go", kind: "position", say: "Go there.", to: "far", withinSeconds: 30 },
    { id: "end", kind: "prompt", say: "Done." },
  ];
  const begun: RunEvent[] = [
    { at: at(0), type: "connected", tool, volts: 13 },
    { at: at(1), type: "clock-started", step: "go" },
  ];
  it("is taken in its time only; missed, it is begun anew", () => {
    const placed = (s: number) => ({ at: at(s), type: "placed", step: "go" }) as const;
    expect(replayRun([...begun, placed(31)], list)).toMatchObject({
      stepIndex: 1,
      clockUntil: null,
    });
    expect(() => replayRun([...begun, placed(32)], list)).toThrow(/time for this place is over/);
    expect(() => replayRun([begun[0]!, placed(2)], list)).toThrow(/does not wait for it yet/);
    const missed: RunEvent[] = [...begun, { at: at(32), type: "clock-missed", step: "go" }];
    expect(replayRun(missed, list)).toMatchObject({ stepIndex: 0, missed: { go: 1 } });
    const again: RunEvent[] = [{ at: at(40), type: "clock-started", step: "go" }, placed(60)];
    expect(replayRun([...missed, ...again], list).stepIndex).toBe(1);
  });
});

describe("a tool that loses its vehicle", () => {
  it("takes nothing until it is connected again, and begins anew where the session died", () => {
    const lost: RunEvent[] = [
      ...WHOLE.slice(0, 4),
      { at: at(5), type: "dropped", reason: "Cable." },
    ];
    expect(() => replayRun([...lost, WHOLE[4]!], steps)).toThrow(/lost the vehicle/);
    const back = (session: "kept" | "lost"): RunEvent => ({
      at: at(8),
      type: "reconnected",
      tool,
      volts: 13,
      session,
    });
    expect(replayRun([...lost, back("kept"), WHOLE[4]!], steps).stepIndex).toBe(3);
    expect(replayRun([...lost, back("lost")], steps)).toMatchObject({
      status: "stopped",
      waitUntil: null,
    });
  });
});
