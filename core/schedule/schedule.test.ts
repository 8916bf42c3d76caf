import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { leastByTrying, livedDay, onTimeDay, plainTask, smallDay } from "@/tests/any-day";
import { lateBound } from "./bound";
import { faultsOf } from "./check";
import { paceOf, type Sample } from "./durations";
import { frameOf } from "./frame";
import { outlooksOf } from "./promise";
import { planDay } from "./solve";
import { DayError, minutesGiven, type Day, type DayJob } from "./types";
import { brokenOf, waysOut } from "./why";

describe("a planned day", () => {
  it("is as good as the best of all orders, on small days", () => {
    let late = 0;
    for (let n = 0; n < 25; n++) {
      const day = smallDay(randomFrom(n + 1));
      const plan = planDay(day, randomFrom(n));
      expect(faultsOf(day, plan.placed), `day ${n}`).toEqual([]);
      const least = leastByTrying(day);
      const { lateMin, waitMin, overMin } = plan.cost;
      expect([lateMin, waitMin + 2 * overMin], `day ${n}`).toEqual([least.late, least.rest]);
      expect(plan.exact).toBe(true);
      // What is said of large days holds where the least is known.
      expect(lateBound(frameOf(day)), `day ${n}`).toBeLessThanOrEqual(least.late + 1e-9);
      if (lateMin > 0) late++;
    }
    expect(late).toBeGreaterThan(3);
  });
  it("keeps nearly all of a full day that can be kept, and its bound below what it reaches", () => {
    const day = onTimeDay(randomFrom(7));
    const plan = planDay(day, randomFrom(1));
    expect(faultsOf(day, plan.placed)).toEqual([]);
    expect(plan.cost.lateMin).toBeLessThanOrEqual(30);
    expect(plan.boundMin).toBeLessThanOrEqual(plan.cost.lateMin);
  });
});

const PEOPLE = [
  {
    id: "mara",
    name: "Mara",
    fromMin: 480,
    toMin: 1020,
    breaks: [[720, 750]] as [number, number][],
  },
];
const ONE: Day = {
  nowMin: 480,
  people: PEOPLE,
  bays: [{ id: "b1", name: "Bay 1" }],
  jobs: [],
};
const inBay = { stay: 0, bays: ["b1"], people: [["mara"]] };
const job = (id: string, promiseMin: number | null, more: Partial<DayJob> = {}): DayJob => ({
  id,
  name: `Job ${id}`,
  arriveMin: 480,
  promiseMin,
  tasks: [plainTask("work", 60, inBay)],
  ...more,
});

describe("what has begun and what is set by hand", () => {
  it("stays where it is, and the rest goes round it", () => {
    const begun = { startMin: 500, bay: "b1", people: ["mara"], things: [] };
    const day: Day = {
      ...ONE,
      nowMin: 540,
      jobs: [
        job("a", 560, { tasks: [plainTask("work", 30, { ...inBay, begun })] }),
        job("b", 600),
        job("c", 700, { tasks: [plainTask("work", 60, { ...inBay, pin: { startMin: 780 } })] }),
      ],
    };
    const { placed, cost } = planDay(day, randomFrom(1));
    const start = (id: string): number => placed.find((p) => p.job === id)!.startMin;
    // It should have been over at 530: it is over a little after now.
    const a = placed.find((p) => p.job === "a")!;
    expect(a.startMin).toBe(500);
    expect(a.endMin).toBeGreaterThan(540);
    expect(a.endMin).toBeLessThan(560);
    expect([start("b"), start("c")]).toEqual([a.endMin, 780]);
    expect(cost.lateMin).toBe(a.endMin + 60 - 600 + 140);
    expect(faultsOf(day, placed)).toEqual([]);
  });
  it("leaves a bay to the vehicle that stands in it, and lets others have it after", () => {
    const day: Day = {
      ...ONE,
      jobs: [job("a", 545), { ...job("b", 700), standsIn: "b1" }],
    };
    const plan = planDay(day, randomFrom(1));
    expect(faultsOf(day, plan.placed)).toEqual([]);
    const start = (id: string): number => plan.placed.find((p) => p.job === id)!.startMin;
    expect([start("b"), start("a")]).toEqual([480, 540]);
    // Though it is promised later: the other way round would be a fault.
    const turned = plan.placed.map((p) => ({
      ...p,
      startMin: p.job === "a" ? 480 : 540,
      endMin: p.job === "a" ? 540 : 600,
    }));
    expect(faultsOf(day, turned).map((f) => f.kind)).toEqual(["bay-taken"]);
    const elsewhere: Day = { ...day, bays: [...day.bays, { id: "b2", name: "b2" }] };
    const two = elsewhere.jobs.map((j) => ({
      ...j,
      tasks: j.tasks.map((t) => ({ ...t, bays: ["b1", "b2"] })),
    }));
    const other = planDay({ ...elsewhere, jobs: two }, randomFrom(1)).placed;
    expect(other.find((p) => p.job === "b")!.bay).toBe("b1");
    expect(other.find((p) => p.job === "a")).toMatchObject({ bay: "b2", startMin: 480 });
  });
  it("takes any thing that serves, and what has begun keeps its own", () => {
    const stands = (id: string, any: string[][]) =>
      job(id, null, { tasks: [plainTask("work", 60, { things: any })] });
    const both = [["s1", "s2"]];
    const day: Day = { ...ONE, jobs: ["a", "b", "c"].map((id) => stands(id, both)) };
    const { placed, cost } = planDay(day, randomFrom(1));
    expect(faultsOf(day, placed)).toEqual([]);
    // Nobody is needed for it: two stands do two at once, and the third waits.
    expect(placed.map((p) => p.startMin)).toEqual([480, 480, 540]);
    expect(cost.waitMin).toBe(60 + 60 + 120);
    const begun = { startMin: 470, bay: null, people: [], things: ["s1"] };
    const held: Day = {
      ...ONE,
      jobs: [
        job("a", null, { tasks: [plainTask("work", 60, { things: both, begun })] }),
        stands("b", [["s1"]]),
        stands("c", both),
      ],
    };
    const plan = planDay(held, randomFrom(1));
    expect(faultsOf(held, plan.placed)).toEqual([]);
    const of = (id: string) => plan.placed.find((p) => p.job === id)!;
    expect(of("a").things).toEqual(["s1"]);
    expect(of("b").startMin).toBeGreaterThanOrEqual(of("a").endMin);
    expect(of("c")).toMatchObject({ startMin: 480, things: ["s2"] });
    const none: Day = { ...ONE, jobs: [stands("d", [[]])] };
    expect(() => planDay(none, randomFrom(1))).toThrow(/^Job d: the shop has not all/);
  });
  it("says by name what cannot be had", () => {
    const alone = (task: object): Day => ({
      ...ONE,
      jobs: [job("a", null, { tasks: [plainTask("work", 60, { ...inBay, ...task })] })],
    });
    const wrong: [object, RegExp][] = [
      [{ people: [["oskar"]] }, /^Job a: nobody who is there today/],
      [{ bays: ["b9"] }, /^Job a: no bay of the day/],
      [{ windows: [[300, 520]] }, /^Job a: its hours are over/],
    ];
    for (const [task, words] of wrong)
      expect(() => planDay(alone(task), randomFrom(1))).toThrow(words);
    expect(() => planDay(alone({ people: [["oskar"]] }), randomFrom(1))).toThrow(DayError);
  });
});

describe("the checker", () => {
  const two: Day = {
    ...ONE,
    jobs: [
      job("a", 560, {
        tasks: [
          plainTask("set", 30, inBay),
          plainTask("board", 30, { ...inBay, things: [["board"]] }),
        ],
      }),
      job("b", 600, {
        arriveMin: 500,
        tasks: [plainTask("board", 30, { ...inBay, stay: 0, things: [["board"]] })],
      }),
    ],
  };
  const good = planDay(two, randomFrom(1)).placed;
  type Change = Partial<(typeof good)[number]>;
  const at = (id: string, task: string, change: Change) =>
    good.map((p) => (p.job === id && p.task === task ? { ...p, ...change } : p));
  it.each([
    ["missing", good.slice(1)],
    ["twice", [...good, good[0]!]],
    ["length", at("b", "board", { endMin: 700 })],
    ["before-now", at("a", "set", { startMin: 470, endMin: 500 })],
    ["before-arrival", at("b", "board", { startMin: 490, endMin: 520 })],
    ["order", at("a", "board", { startMin: 485, endMin: 515 })],
    ["bay", at("b", "board", { bay: null })],
    ["crew", at("b", "board", { people: [] })],
    ["busy", at("b", "board", { startMin: 500, endMin: 530 })],
    ["away", at("b", "board", { startMin: 730, endMin: 760 })],
    ["thing-taken", at("b", "board", { startMin: 520, endMin: 550 })],
    ["kit", at("b", "board", { things: [] })],
    ["bay-taken", at("b", "board", { startMin: 505, endMin: 535 })],
  ])("finds what is wrong: %s", (kind, placed) => {
    expect(faultsOf(two, good)).toEqual([]);
    expect(faultsOf(two, placed).map((f) => f.kind)).toContain(kind);
  });
});

describe("what goes on longer than it should", () => {
  it("is expected to go on as long as such work does that has gone on for so long", () => {
    const random = randomFrom(5);
    for (const gone of [10, 30, 45, 70]) {
      const draws = Array.from(
        { length: 200_000 },
        () => 40 * Math.exp(0.3 * gaussian(random) - 0.045),
      ).filter((t) => t > gone);
      const mean = draws.reduce((s, t) => s + t, 0) / draws.length;
      expect(minutesGiven(40, 0.3, gone) / mean).toBeCloseTo(1, 2);
    }
    expect(minutesGiven(40, 0.3, 4000)).toBe(4200);
  });
});

describe("promises", () => {
  it("are as likely as they turn out on days that are lived", () => {
    const day = onTimeDay(randomFrom(3), 10);
    const plan = planDay(day, randomFrom(1));
    const said = outlooksOf(day, plan, randomFrom(2));
    const held = new Map(said.map((o) => [o.job, 0]));
    const lived = 150;
    for (let n = 0; n < lived; n++)
      for (const [id, end] of livedDay(day, plan, randomFrom(900 + n)))
        if (end <= day.jobs.find((j) => j.id === id)!.promiseMin!) held.set(id, held.get(id)! + 1);
    const off = said.map((o) => o.chance! - held.get(o.job)! / lived);
    expect(Math.abs(off.reduce((s, v) => s + v, 0) / off.length)).toBeLessThan(0.05);
    for (const o of off) expect(Math.abs(o)).toBeLessThan(0.2);
    for (const o of said) expect(o.ninetyMin).toBeGreaterThan(o.middleMin);
  });
  it("that break are named with what they wait for, and with the cheapest way out", () => {
    const day: Day = { ...ONE, jobs: [job("a", 540), job("b", 570)] };
    const plan = planDay(day, randomFrom(1));
    const [broken, ...more] = brokenOf(day, plan);
    expect(more).toEqual([]);
    expect(broken).toEqual({
      job: "b",
      lateMin: 30,
      endMin: 600,
      cause: { kind: "bay", name: "Bay 1", heldBy: "a", untilMin: 540 },
    });
    const ways = waysOut(day, plan, broken!, randomFrom(1));
    expect(ways[0]).toEqual({ kind: "call", name: "b", minutes: 30, leftMin: 0 });
    // Another bay alone does not help: Mara is one.
    expect(ways.map((w) => w.kind)).not.toContain("another-bay");
    // The other way round a is late by an hour.
    expect(ways.find((w) => w.kind === "call-other")).toMatchObject({ name: "a", minutes: 60 });
  });
});

describe("what nobody has begun", () => {
  it("is named as that, and not as waiting for anything", () => {
    const plan = planDay({ ...ONE, nowMin: 600, jobs: [job("a", 630)] }, randomFrom(1));
    const [broken] = brokenOf({ ...ONE, nowMin: 600, jobs: [job("a", 630)] }, plan);
    expect(broken).toMatchObject({ lateMin: 30, cause: { kind: "idle", sinceMin: 480 } });
  });
});

describe("what work takes", () => {
  const samples = (person: string, factor: number, many: number): Sample[] =>
    Array.from({ length: many }, (_, i) => ({
      part: "bay",
      method: "static",
      person,
      plannedMin: 40,
      tookMin: 40 * factor * (i % 2 === 0 ? 1.1 : 1 / 1.1),
    }));
  const of = { part: "bay", method: "static", person: "mara" } as const;
  it("is the sheet's figure while nothing is known, and the shop's own as it grows", () => {
    const none = paceOf([], of);
    expect(none.factor).toBeCloseTo(Math.exp(0.3 ** 2 / 2), 6);
    const factors = [2, 10, 60].map((n) => paceOf(samples("mara", 1.5, n), of).factor);
    expect(factors).toEqual(factors.toSorted((a, b) => a - b));
    expect(factors[2]).toBeGreaterThan(1.45);
    expect(paceOf(samples("mara", 1.5, 60), of).spread).toBeLessThan(none.spread / 1.5);
    const both = [...samples("mara", 1.5, 30), ...samples("oskar", 0.9, 30)];
    const own = (person: string): number => paceOf(both, { ...of, person }).factor;
    expect(own("mara")).toBeGreaterThan(own("oskar") + 0.3);
    // A lunch is no work.
    expect(paceOf([...both, ...samples("mara", 9, 20)], of)).toEqual(paceOf(both, of));
  });
});
