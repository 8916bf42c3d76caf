import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { jobClock, type EventBody, type JobEvent } from ".";

const by = { id: "ines", name: "Ines Tarbet", initials: "IT" };
const minute = (m: number): string =>
  new Date(Date.UTC(2026, 10, 3, 9, 0, 0) + m * 60_000).toISOString();
const log = (...list: [number, EventBody][]): JobEvent[] =>
  list.map(([m, body], i) => ({ id: `e${i}`, seq: i + 1, at: minute(m), by, body }));
const taken = { kind: "taken-in" } as EventBody;
const reading: EventBody = {
  kind: "reading",
  slotId: "laser-badge",
  typed: "3",
  shown: 3,
  sigma: 1,
  instrumentId: "L-1",
};
const check: EventBody = {
  kind: "check",
  stage: "ready",
  itemId: "tyres",
  outcome: "fine",
  reason: null,
};
const strike: EventBody = { kind: "strike", target: "e1", reason: "misread" };
const pause: EventBody = { kind: "pause", reason: "waiting for information" };
const over: EventBody = { kind: "hand-over" };

describe("the stopwatch", () => {
  it("gives the time before an event to that event's stage, and of a strike to the stage before", () => {
    const clock = jobClock(
      log([0, taken], [5, check], [12, reading], [14, strike], [20, over]),
      minute(500),
    );
    expect(clock.stages).toEqual({ "take-in": 0, ready: 300, "set-out": 9 * 60, "hand-over": 360 });
    expect(clock.workSeconds).toBe(20 * 60);
  });
  it("stops with a reason and goes on by itself with the next work", () => {
    const clock = jobClock(log([0, taken], [5, pause], [35, reading], [40, over]), minute(500));
    expect(clock.pauses).toEqual([
      { from: minute(5), to: minute(35), reason: "waiting for information", seconds: 1800 },
    ]);
    expect(clock.workSeconds).toBe(10 * 60);
    expect(clock.paused).toBe(false);
  });
  it("runs on to now while the job is open, stands while it is paused, and stops at the hand-over", () => {
    expect(jobClock(log([0, taken], [5, check]), minute(15)).workSeconds).toBe(15 * 60);
    const paused = jobClock(log([0, taken], [5, pause]), minute(15));
    expect(paused).toMatchObject({ workSeconds: 300, paused: true });
    expect(paused.pauses[0]).toMatchObject({ to: null, seconds: 600 });
    expect(jobClock(log([0, taken], [5, over]), minute(90)).workSeconds).toBe(300);
  });
  it("does not count a night as work", () => {
    const clock = jobClock(log([0, taken], [10, check], [900, reading], [905, over]), minute(999));
    expect(clock.awaySeconds).toBe(890 * 60);
    expect(clock.workSeconds).toBe(15 * 60);
  });
  it("loses no second: work, pauses and absence add up to the whole", () => {
    const some = fc.constantFrom(reading, check, strike, pause, { kind: "resume" } as EventBody);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 200 }), some), { maxLength: 12 }),
        fc.integer({ min: 0, max: 90 }),
        (steps, rest) => {
          let at = 0;
          const events = log(
            [0, taken],
            ...steps.map(([d, body]): [number, EventBody] => [(at += d), body]),
          );
          const clock = jobClock(events, minute(at + rest));
          const stages = Object.values(clock.stages).reduce((a, b) => a + b, 0);
          expect(stages).toBeCloseTo(clock.workSeconds, 6);
          const paused = clock.pauses.reduce((s, p) => s + p.seconds, 0);
          expect(clock.workSeconds + paused + clock.awaySeconds).toBeCloseTo((at + rest) * 60, 6);
        },
      ),
    );
  });
});
