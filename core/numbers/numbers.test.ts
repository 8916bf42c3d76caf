import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import {
  driftOf,
  figuresToSee,
  isOff,
  partsOf,
  shopNumbers,
  spreadOf,
  watch,
  type Figure,
} from ".";

const SIGMA = 0.1;
const week = 10;

describe("a stand under watch", () => {
  it("that bends by half a spread a week is seen within three weeks, nineteen times in twenty; one in order is called out less than once a year", () => {
    const RUNS = 1000;
    let found = 0;
    let alarms = 0;
    for (let n = 0; n < RUNS; n++) {
      const random = randomFrom(n + 1);
      const row = (many: number, drift: number): number[] =>
        Array.from({ length: many }, (_, i) => SIGMA * gaussian(random) + (drift * (i + 1)) / week);
      const before = row(100, 0);
      const sigma = spreadOf(before)!;
      const bent = watch([...before, ...row(3 * week, 0.05)], 0, sigma).slice(before.length);
      if (bent.some((p) => p.out)) found++;
      // Whoever is called out looks, finds nothing, and lets it begin anew.
      const year = row(52 * week, 0);
      const fresh = new Set<number>();
      let from = 0;
      for (;;) {
        const at = watch(year, 0, sigma, undefined, { fresh }).findIndex(
          (p, i) => i >= from && p.out,
        );
        if (at < 0) break;
        alarms++;
        from = at + 1;
        fresh.add(from);
      }
    }
    expect(found / RUNS).toBeGreaterThanOrEqual(0.95);
    expect(alarms / RUNS).toBeLessThan(1);
  });
  it("has limits by the known formula, and a spread that neither drift nor one slip widens", () => {
    const [first, , , , last] = watch([1, 0, 0, 0, 0], 0, 1, { lambda: 0.2, width: 3 });
    expect(first!.mean).toBeCloseTo(0.2, 12);
    expect(first!.upper).toBeCloseTo(3 * 0.2, 12);
    expect(last!.upper).toBeCloseTo(3 * Math.sqrt((0.2 / 1.8) * (1 - 0.8 ** 10)), 12);
    const known = watch([0], 0, 1)[0]!.upper;
    const unsure = watch([0], 0, 1, undefined, { middleSigma: 0.2 })[0]!.upper;
    expect(unsure).toBeCloseTo(Math.hypot(known, 3 * 0.2), 12);
    const random = randomFrom(5);
    const plain = Array.from({ length: 4000 }, () => gaussian(random));
    expect(spreadOf(plain)).toBeCloseTo(1, 1);
    const bent = plain.map((x, i) => x + i / 200);
    expect(spreadOf(bent)).toBeCloseTo(1, 1);
    expect(spreadOf([...plain.slice(0, 60), 40])!).toBeLessThan(1.25);
    expect(spreadOf([1, 2, 3])).toBeNull();
  });
  it("says since when it is out, and that few figures say nothing", () => {
    const at = (i: number): string => new Date(Date.UTC(2026, 0, 1 + i)).toISOString();
    const random = randomFrom(9);
    const rows = Array.from({ length: 90 }, (_, i) => ({
      at: at(i),
      value: SIGMA * gaussian(random) + (i > 60 ? 0.02 * (i - 60) : 0),
    }));
    const of = { id: "S-1", what: "yaw", unit: "°" } as const;
    expect(driftOf(of, rows.slice(0, 60)).since).toBeNull();
    const bent = driftOf(of, rows);
    expect(bent.since! > at(60) && bent.since! < at(82)).toBe(true);
    expect(driftOf(of, rows.slice(0, 5))).toMatchObject({ few: true, since: null });
  });
});

/** One factor alone has a closed form: each group's mean, shrunk by how much it scatters. */
function shrunk(figures: readonly Figure[], spread: number, chance: number): number {
  const mean = figures.reduce((s, f) => s + f.value, 0) / figures.length;
  const ids = [...new Set(figures.map((f) => f.stand))].sort();
  const each = ids.map((id) => {
    const own = figures.filter((f) => f.stand === id);
    const weight = own.length / (own.length + (chance / spread) ** 2);
    return weight * (own.reduce((s, f) => s + f.value, 0) / own.length - mean);
  });
  const others = each.slice(1);
  return each[0]! - others.reduce((s, x) => s + x, 0) / others.length;
}

describe("what jobs have in common", () => {
  const random = randomFrom(77);
  const jobs = (many: number, off: Partial<Record<string, number>> = {}, apart = true): Figure[] =>
    Array.from({ length: many }, (_, i) => {
      const stand = `S-${1 + (i % 4)}`;
      const fitter = apart ? `F-${1 + (Math.floor(i / 4) % 5)}` : `F-${1 + (i % 4)}`;
      const model = `M-${1 + (Math.floor(i / 20) % 6)}`;
      return {
        stand,
        fitter,
        model,
        value: 0.3 * gaussian(random) + (off[stand] ?? 0) + (off[fitter] ?? 0),
      };
    });
  it("is found for a stand, and left with it: the others stay as they are", () => {
    const parts = partsOf(jobs(480, { "S-2": 0.25 }))!;
    const off = parts.parts.filter(isOff).map((p) => `${p.factor} ${p.id}`);
    expect(off).toEqual(["stand S-2"]);
    expect(parts.chance).toBeCloseTo(0.3, 1);
    const found = parts.parts.find((p) => p.id === "S-2")!;
    expect(Math.abs(found.off - 0.25)).toBeLessThan(3 * found.sigma);
    expect(found.sigma).toBeLessThan(0.05);
  });
  it("is named of nobody in a shop in order, in nineteen of twenty", () => {
    let named = 0;
    for (let n = 0; n < 60; n++) if (partsOf(jobs(160))!.parts.some(isOff)) named++;
    expect(named).toBeLessThanOrEqual(3);
  });
  it("that always goes together is said to be one", () => {
    const parts = partsOf(jobs(200, { "S-2": 0.3 }, false))!;
    expect(parts.parts.find((p) => p.id === "S-2")!.withOther).toEqual({
      factor: "fitter",
      id: "F-2",
    });
    expect(partsOf(jobs(200))!.parts.every((p) => p.withOther === null)).toBe(true);
  });
  it("shrinks as the closed form of one factor does", () => {
    const one = jobs(240, { "S-1": 0.3 }).map((f) => ({ ...f, model: "M", fitter: "F" }));
    const parts = partsOf(one)!;
    const at = parts.parts.find((p) => p.id === "S-1")!.off;
    expect(at).toBeCloseTo(shrunk(one, parts.spread.stand, parts.chance), 2);
  });
  it("takes thirty-odd cars to show a fifth of a degree on a spread of three tenths", () => {
    expect(figuresToSee(0.2, 0.3)).toBeGreaterThanOrEqual(30);
    expect(figuresToSee(0.2, 0.3)).toBeLessThanOrEqual(38);
  });
});

describe("a shop's numbers", () => {
  it("count every job once, by month and way", () => {
    const base = {
      causes: [],
      declined: [],
      school: "tapes",
      model: "M",
      stand: "S-1",
      fitter: "",
      yaw: null,
    };
    const n = shopNumbers(
      [
        { ...base, at: "2026-01-05", attempts: 1, passed: true, minutes: { run: 10, ready: 20 } },
        {
          ...base,
          at: "2026-01-09",
          attempts: 2,
          passed: true,
          minutes: { run: 30 },
          causes: ["clutter"],
        },
        {
          ...base,
          at: "2026-02-01",
          attempts: 0,
          passed: false,
          minutes: {},
          declined: ["No time"],
        },
      ],
      [],
      (at) => at.slice(0, 7),
    );
    expect(n.months).toEqual([{ month: "2026-01", count: 2, first: 1 }]);
    expect(n.minutes).toEqual([{ school: "tapes", jobs: 2, stages: { run: 20, ready: 10 } }]);
    expect([n.causes, n.declined]).toEqual([
      [{ cause: "clutter", count: 1 }],
      [{ reason: "No time", count: 1 }],
    ]);
    expect(n.parts).toBeNull();
  });
  it("name the instrument whose readings creep away from the others, and leave the rest in order", () => {
    const random = randomFrom(31);
    const day = (i: number): string => new Date(Date.UTC(2026, 0, 1 + i)).toISOString();
    const jobs = Array.from({ length: 120 }, (_, i) => ({
      causes: [],
      declined: [],
      school: "tapes",
      model: "M",
      stand: "S-1",
      fitter: "",
      yaw: null,
      attempts: 1,
      passed: true,
      minutes: {},
      at: day(i),
      // An older program kept none of them; a laser was used in every third job.
      ...(i >= 10 && {
        residuals: {
          "T-3": gaussian(random) + Math.max(0, i - 80) * 0.08,
          "R-2": gaussian(random),
          ...(i % 3 === 0 && { "L-1": gaussian(random) }),
        },
      }),
    }));
    const { drifts } = shopNumbers(jobs, [], (at) => at.slice(0, 7));
    expect(drifts.map((d) => [d.id, d.what, d.since !== null])).toEqual([
      ["L-1", "residual", false],
      ["R-2", "residual", false],
      ["T-3", "residual", true],
    ]);
    const [laser, , tape] = drifts;
    expect(laser!.points).toHaveLength(36);
    expect(tape!.since! > day(80) && tape!.since! < day(105)).toBe(true);
  });
});
