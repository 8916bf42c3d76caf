import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DRIVE_START, GAP_S, qualify, qualifyAll } from "./qualify";
import { driveRulesSchema, type DriveRules } from "./rules";
import { SPEED_UNITS } from "./speed-units";
import type { DriveSample } from "./sample";
import { stretchesOf } from "./stretches";

const rules = (
  conditions: object[],
  enough: DriveRules["enough"] = { seconds: 1000 },
  more: object = {},
): DriveRules => driveRulesSchema.parse({ conditions, enough, ...more });

/** A second in which everything is as it should be: 60 km/h on a straight road between two lines. */
const FINE: Omit<DriveSample, "atMs"> = {
  speedMps: 60 / 3.6,
  lines: { left: "solid", right: "broken" },
  radiusM: "straight",
  gapM: 80,
  light: "day",
  weather: [],
  sunOffDeg: 120,
  keyOn: true,
};
/** A sample a second, each as fine as the last but for what is said. */
const trace = (...changes: Partial<DriveSample>[]): DriveSample[] =>
  changes.map((c, i) => ({ ...FINE, atMs: i * 1000, ...c }));
const times = (n: number, change: Partial<DriveSample> = {}): Partial<DriveSample>[] =>
  Array.from({ length: n }, () => change);
const kmh = (v: number): Partial<DriveSample> => ({ speedMps: v / 3.6 });
const mph = (v: number): Partial<DriveSample> => ({ speedMps: v * SPEED_UNITS.mph });

describe("what of a drive counts, by hand", () => {
  const window = { kind: "speed", unit: "km/h", min: 50, max: 90, breach: "pauses" };
  it("counts the seconds between samples that hold, and nothing of a single one", () => {
    const r = rules([window]);
    expect(qualifyAll(r, trace({})).seconds).toBe(0);
    const ten = qualifyAll(r, trace(...times(11)));
    expect(ten).toMatchObject({ status: "counts", seconds: 10, breaches: [] });
    expect(ten.metres).toBeCloseTo((10 * 60) / 3.6, 9);
  });

  /** Of a condition: what just holds, and what just does not. */
  const BOUNDARIES: [string, object, Partial<DriveSample>, Partial<DriveSample>][] = [
    ["speed, lower end", window, kmh(50), kmh(49.9)],
    ["speed, upper end", window, kmh(90), kmh(90.1)],
    [
      "speed in mph",
      { kind: "speed", unit: "mph", min: 25, max: 40, breach: "pauses" },
      mph(40),
      mph(40.1),
    ],
    ["km/h typed where mph is meant", { ...window, unit: "mph" }, kmh(80.5), kmh(79)],
    [
      "curve",
      { kind: "curve", minRadiusM: 200, breach: "pauses" },
      { radiusM: 200 },
      { radiusM: 199 },
    ],
    ["gap", { kind: "gap", minM: 30, breach: "pauses" }, { gapM: 30 }, { gapM: 29.9 }],
    [
      "dusk",
      { kind: "light", needs: "day-or-dusk", breach: "pauses" },
      { light: "dusk" },
      { light: "night" },
    ],
    ["day", { kind: "light", needs: "day", breach: "pauses" }, { light: "day" }, { light: "dusk" }],
    [
      "weather",
      { kind: "weather", without: ["rain", "wet-road"], breach: "pauses" },
      { weather: ["fog"] },
      { weather: ["fog", "rain"] },
    ],
    ["sun", { kind: "sun", coneDeg: 25, breach: "pauses" }, { sunOffDeg: 25.1 }, { sunOffDeg: 25 }],
    ["rolling", { kind: "rolling", breach: "pauses" }, { speedMps: 0.5 }, { speedMps: 0.4 }],
    ["key", { kind: "key", breach: "pauses" }, { keyOn: true }, { keyOn: false }],
    [
      "a solid line left",
      { kind: "lines", left: "solid", right: null, breach: "pauses" },
      { lines: { left: "solid", right: "none" } },
      { lines: { left: "broken", right: "solid" } },
    ],
    [
      "both lines",
      { kind: "lines", left: "either", right: "either", breach: "pauses" },
      { lines: { left: "broken", right: "solid" } },
      { lines: { left: "solid", right: "none" } },
    ],
  ];
  it.each(BOUNDARIES)("%s: the boundary counts, and beyond it nothing does", (_, c, holds, not) => {
    const r = rules([c]);
    expect(qualifyAll(r, trace(...times(6, holds))).seconds).toBe(5);
    const outside = qualifyAll(r, trace(...times(6, not)));
    const { kind } = c as { kind: "speed" };
    expect(outside).toMatchObject({
      seconds: 0,
      breaches: [{ kind, known: true }],
      cost: { [kind]: 5 },
    });
  });

  it("steadiness looks back so far and no farther", () => {
    const r = rules([{ kind: "steadiness", unit: "km/h", within: 5, overS: 4, breach: "pauses" }]);
    // 60 for three seconds, then 66: unsteady until the last 60 lies more than four seconds back.
    const t = trace(...times(4, kmh(60)), ...times(8, kmh(66)));
    const seen = t.map((_, i) => qualifyAll(r, t.slice(0, i + 1)).status);
    expect(seen).toEqual([
      ...Array<string>(4).fill("counts"),
      ...Array<string>(4).fill("paused"),
      ...Array<string>(4).fill("counts"),
    ]);
    // Exactly the difference that is allowed.
    expect(qualifyAll(r, trace(...times(3, kmh(60)), ...times(3, kmh(65)))).seconds).toBe(5);
  });

  it("a pause keeps what was gathered, a throw-away loses it, once, when it was borne long enough", () => {
    const lost = { lines: { left: "none", right: "none" } } as const;
    const both = { kind: "lines", left: "either", right: "either" };
    const t = trace(...times(11), ...times(4, lost), ...times(6));
    // Eleven seconds that hold, four without lines, five more.
    expect(qualifyAll(rules([{ ...both, breach: "pauses" }]), t)).toMatchObject({
      seconds: 16,
      losses: [],
      cost: { lines: 4 },
    });
    const away = qualifyAll(rules([{ ...both, breach: "throws-away" }]), t);
    expect(away).toMatchObject({ seconds: 5, cost: { lines: 4 } });
    expect(away.losses).toMatchObject([{ atMs: 11_000, kind: "lines", seconds: 11 }]);
    // Three seconds are borne to the end of the third, and not longer.
    const grace = (graceS: number) => rules([{ ...both, breach: "throws-away", graceS }]);
    expect(qualifyAll(grace(3), t).losses).toMatchObject([{ atMs: 14_000 }]);
    expect(qualifyAll(grace(3.5), t)).toMatchObject({ losses: [], seconds: 16 });
  });

  it("what is not known pauses and throws nothing away", () => {
    const r = rules([{ kind: "gap", minM: 30, breach: "throws-away" }]);
    const t = trace(...times(6), ...times(3, { gapM: null }), ...times(3));
    expect(qualifyAll(r, t)).toMatchObject({ losses: [], cost: { gap: 3 }, seconds: 8 });
    expect(qualifyAll(r, t.slice(0, 7)).breaches).toEqual([{ kind: "gap", known: false }]);
  });

  it("counts nothing of a gap in the log, and no time at all where a clock was set back", () => {
    const r = rules([window]);
    const gap = trace(...times(6)).map((s, i) => ({ ...s, atMs: s.atMs + (i > 2 ? 40_000 : 0) }));
    expect(qualifyAll(r, gap)).toMatchObject({ seconds: 4, cost: { "no-log": 41 } });
    const edge = trace({}, {}).map((s, i) => ({ ...s, atMs: i * GAP_S * 1000 }));
    expect(qualifyAll(r, edge).seconds).toBe(GAP_S);
    const back = trace(...times(8)).map((s, i) => ({
      ...s,
      atMs: s.atMs - (i > 3 ? 3_600_000 : 0),
    }));
    expect(qualifyAll(r, back)).toMatchObject({ seconds: 6, clockJumps: 1 });
    const twice = trace(...times(4)).flatMap((s) => [s, s]);
    expect(qualifyAll(r, twice)).toMatchObject({ seconds: 3, clockJumps: 0 });
  });

  it("is done when both seconds and metres are enough, at that moment, and stays so", () => {
    const r = rules([window], { seconds: 5.5, metres: 100 });
    // 60 km/h: a hundred metres take six seconds.
    const t = trace(...times(12));
    const done = qualifyAll(r, [
      ...t,
      ...trace(...times(20, kmh(0))).map((s) => ({ ...s, atMs: s.atMs + 12_000 })),
    ]);
    expect(done.status).toBe("done");
    expect(done.doneMs).toBeCloseTo(6000, 6);
    expect(qualifyAll(rules([window], { seconds: 5.5 }), t).doneMs).toBeCloseTo(5500, 6);
    const late = rules([window], { seconds: 50 }, { timeOutS: 60 });
    const paused = trace(...times(40, kmh(20)), ...times(60));
    expect(qualifyAll(late, paused).status).toBe("timed-out");
  });
});

const CONDITIONS: DriveRules["conditions"] = rules([
  { kind: "speed", unit: "km/h", min: 40, max: 80, breach: "pauses" },
  { kind: "lines", left: "either", right: "either", breach: "throws-away", graceS: 2 },
  { kind: "steadiness", unit: "km/h", within: 12, overS: 3, breach: "pauses" },
  { kind: "rolling", breach: "throws-away", graceS: 4 },
  { kind: "weather", without: ["rain"], breach: "throws-away" },
  { kind: "key", breach: "throws-away" },
]).conditions;

const anySample = fc.record({
  step: fc.constantFrom(500, 1000, 1000, 1000, 1500, 2500, 3000, 3500, 9000, 0, -5000),
  speedMps: fc.option(fc.constantFrom(0, 0.4, 11, 12, 15, 16, 22, 23), { nil: null, freq: 9 }),
  lines: fc.constantFrom(
    { left: "solid", right: "broken" } as const,
    { left: "solid", right: "broken" } as const,
    { left: "none", right: "broken" } as const,
    null,
  ),
  weather: fc.constantFrom([], [], [], ["rain"] as const, null),
  keyOn: fc.constantFrom(true, true, true, true, false),
});
const anyTrace = fc.array(anySample, { minLength: 1, maxLength: 60 }).map((list) => {
  let atMs = 1_000_000;
  return list.map(({ step, ...s }): DriveSample => ({ ...FINE, ...s, atMs: (atMs += step) }));
});
const anyRules = fc
  .record({
    which: fc.subarray([...CONDITIONS.keys()], { minLength: 1 }),
    seconds: fc.option(fc.integer({ min: 5, max: 30 }), { nil: undefined }),
    metres: fc.option(fc.integer({ min: 50, max: 500 }), { nil: undefined }),
  })
  .map(({ which, seconds, metres }): DriveRules => ({
    conditions: which.map((i) => CONDITIONS[i]!),
    enough: seconds === undefined && metres === undefined ? { seconds: 10 } : { seconds, metres },
    progress: { as: "percent" },
  }));

describe("the same drive, however it is looked at", () => {
  it("comes to the same live and replayed, in one piece or many, kept and taken up again", () => {
    fc.assert(
      fc.property(anyRules, anyTrace, fc.nat(), (r, t, cut) => {
        const whole = qualifyAll(r, t);
        const at = cut % (t.length + 1);
        const kept = JSON.parse(JSON.stringify(qualifyAll(r, t.slice(0, at)))) as typeof whole;
        expect(qualifyAll(r, t.slice(at), kept)).toEqual(whole);
        expect(t.reduce((state, s) => qualify(r, state, s), DRIVE_START)).toEqual(whole);
      }),
      { numRuns: 400 },
    );
  });

  it("comes to the same looked at as a whole afterwards: what counted, what was lost and when, what it cost", () => {
    fc.assert(
      fc.property(anyRules, anyTrace, (r, t) => {
        const live = qualifyAll(r, t);
        const after = stretchesOf(r, t);
        expect(after.losses).toEqual(live.losses.map(({ atMs, kind }) => ({ atMs, kind })));
        if (live.doneMs === null) expect(after.doneMs).toBeNull();
        else expect(after.doneMs).toBeCloseTo(live.doneMs, 3);
        const cost = new Map<string, number>();
        for (const s of after.stretches)
          if (s.cause) cost.set(s.cause, (cost.get(s.cause) ?? 0) + (s.toMs - s.fromMs) / 1000);
        expect([...cost].sort()).toEqual(
          Object.entries(live.cost)
            .map(([k, v]): [string, number] => [k, v])
            .sort(),
        );
      }),
      { numRuns: 1500 },
    );
  });
});

describe("rules that cannot be meant", () => {
  const fine = {
    conditions: [{ kind: "speed", unit: "km/h", min: 40, max: 80, breach: "pauses" }],
    enough: { seconds: 60 },
  };
  it.each([
    ["min", { min: 90 }],
    ["max", { min: 1, max: 5 }],
    ["graceS", { graceS: 3 }],
  ])("are refused at their field: %s", (field, change) => {
    const read = driveRulesSchema.safeParse({
      ...fine,
      conditions: [{ ...fine.conditions[0], ...change }],
    });
    expect(read.error?.issues.map((i) => i.path.join("."))).toContain(`conditions.0.${field}`);
  });
  it("want an end, a code that means done, and no condition twice", () => {
    const problem = (change: object): string =>
      driveRulesSchema.safeParse({ ...fine, ...change }).error?.issues[0]?.path.join(".") ?? "";
    expect(problem({})).toBe("");
    expect(problem({ enough: {} })).toBe("enough");
    expect(problem({ timeOutS: 60 })).toBe("timeOutS");
    expect(problem({ conditions: [...fine.conditions, ...fine.conditions] })).toBe(
      "conditions.1.kind",
    );
    const codes = [
      { code: "0F", says: "Not begun" },
      { code: "10", says: "Learning" },
    ];
    expect(problem({ progress: { as: "codes", codes } })).toBe("progress.codes");
  });
});
