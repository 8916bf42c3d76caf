import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { VEHICLES } from "@/demo/data/vehicles";
import { baySchema } from "./bay";
import { bestFit } from "./fit";
import { floorGrid, floorRule, floorThere } from "./level";
import { surfaceOf } from "./surface";
import { adjustLevels, type LevelSetup, type Spot } from "./survey";
import { vehicleZone } from "./zones";

const [CAR] = VEHICLES as [(typeof VEHICLES)[number]];

/** A floor as it was poured: it falls to a side, with a few wide humps. Its own arithmetic. */
function pouredFloor(random: Random): (x: number, y: number) => number {
  const [fall, tilt] = [(random() - 0.5) * 8, (random() - 0.5) * 8];
  const humps = Array.from({ length: 4 }, () => ({
    x: random() * 12,
    y: random() * 6,
    high: (random() - 0.5) * 8,
    wide: 1.5 + random() * 1.5,
  }));
  return (xMm, yMm) => {
    const [x, y] = [xMm / 1000, yMm / 1000];
    return (
      fall * x +
      tilt * y +
      humps.reduce((s, h) => s + h.high / (1 + ((x - h.x) ** 2 + (y - h.y) ** 2) / h.wide ** 2), 0)
    );
  };
}

const gridOf = (stepMm: number): Spot[] => {
  const spots: Spot[] = [];
  for (let xMm = 0; xMm <= 12_000; xMm += stepMm)
    for (let yMm = 0; yMm <= 6000; yMm += stepMm) spots.push({ xMm, yMm });
  return spots;
};

/** Readings of some spots from one place of a laser that is askew by its promise. */
function readFrom(
  random: Random,
  floor: (x: number, y: number) => number,
  spots: readonly Spot[],
  which: readonly number[],
): LevelSetup {
  const [high, askX, askY] = [900 + random() * 300, 0.2 * gaussian(random), 0.2 * gaussian(random)];
  return {
    levelMmPerM: 0.2,
    readMm: 0.5,
    readings: which.map((spot) => {
      const { xMm, yMm } = spots[spot]!;
      const line = high + (askX * xMm + askY * yMm) / 1000;
      return { spot, mm: line - floor(xMm, yMm) + 0.5 * gaussian(random) };
    }),
  };
}

/** Least squares by elimination of the normal equations, row by row. */
function byElimination(rows: number[][], values: number[], weights: number[]): number[] {
  const n = rows[0]!.length;
  const m = Array.from({ length: n }, (_, i) => [
    ...Array.from({ length: n }, (__, j) =>
      rows.reduce((s, r, k) => s + weights[k]! * r[i]! * r[j]!, 0),
    ),
    rows.reduce((s, r, k) => s + weights[k]! * r[i]! * values[k]!, 0),
  ]);
  for (let c = 0; c < n; c++)
    for (let i = 0; i < n; i++) {
      if (i === c) continue;
      const factor = m[i]![c]! / m[c]![c]!;
      m[i] = m[i]!.map((v, j) => v - factor * m[c]![j]!);
    }
  return m.map((r, i) => r[n]! / r[i]!);
}

describe("a surveyed floor", () => {
  it("is adjusted as a general solver adjusts the same readings", () => {
    const random = randomFrom(3);
    const spots = gridOf(4000);
    const floor = pouredFloor(random);
    const setups = [
      readFrom(random, floor, spots, [0, 1, 2, 3, 4]),
      readFrom(random, floor, spots, [3, 4, 5, 6, 7]),
    ];
    const { heights } = adjustLevels(spots, setups);
    // Each set-up's line, then the heights from the second on; the laser's promise as two readings more.
    const equations = setups.flatMap((s, k) => [
      ...s.readings.map(({ spot, mm }) => ({ k, spot, mm, sigma: s.readMm })),
      ...[1, 2].map((axis) => ({ k, axis, mm: 0, sigma: s.levelMmPerM })),
    ]);
    const row = (e: (typeof equations)[number]): number[] => {
      const r = new Array<number>(6 + spots.length - 1).fill(0);
      if ("axis" in e) r[3 * e.k + e.axis] = 1;
      else {
        const { xMm, yMm } = spots[e.spot]!;
        r.splice(3 * e.k, 3, 1, xMm / 1000, yMm / 1000);
        if (e.spot > 0) r[5 + e.spot] = -1;
      }
      return r;
    };
    const unknown = byElimination(
      equations.map(row),
      equations.map((e) => e.mm),
      equations.map((e) => 1 / e.sigma ** 2),
    );
    for (const h of heights.slice(1))
      expect(h.heightMm - heights[0]!.heightMm).toBeCloseTo(unknown[5 + h.spot]!, 6);
  });
  it("names the reading that was misread, and nothing where all is well", () => {
    let [named, alarms] = [0, 0];
    for (let n = 0; n < 60; n++) {
      const random = randomFrom(40 + n);
      const spots = gridOf(3000);
      const floor = pouredFloor(random);
      const every = spots.map((_, i) => i);
      const setups = [readFrom(random, floor, spots, every), readFrom(random, floor, spots, every)];
      if (adjustLevels(spots, setups).suspect) alarms++;
      const slip = Math.floor(random() * every.length);
      setups[1]!.readings[slip]!.mm += 10;
      const { suspect } = adjustLevels(spots, setups);
      if (suspect?.spot === slip) named++;
    }
    expect(named).toBeGreaterThanOrEqual(58);
    expect(alarms).toBeLessThanOrEqual(3);
  });
  it("agrees with a plane and with a grid that are fitted in another way, within what it states", () => {
    let [inside, many, spread] = [0, 0, 0];
    for (let n = 0; n < 30; n++) {
      const random = randomFrom(70 + n);
      const spots = gridOf(1000);
      const floor = pouredFloor(random);
      const every = spots.map((_, i) => i);
      const setup = { ...readFrom(random, floor, spots, every), levelMmPerM: 0.2 };
      const levels = adjustLevels(spots, [setup]);
      const surface = surfaceOf(levels)!;
      // A plane through the readings, by Cramer's rule.
      const mean = (of: number[]): number => of.reduce((s, v) => s + v, 0) / of.length;
      const [xs, ys, zs] = [
        spots.map((s) => s.xMm),
        spots.map((s) => s.yMm),
        setup.readings.map((r) => -r.mm),
      ];
      const [mx, my, mz] = [mean(xs), mean(ys), mean(zs)];
      const cross = (a: number[], ma: number, b: number[], mb: number): number =>
        a.reduce((s, v, i) => s + (v - ma) * (b[i]! - mb), 0);
      const [xx, yy, xy] = [cross(xs, mx, xs, mx), cross(ys, my, ys, my), cross(xs, mx, ys, my)];
      const [xz, yz] = [cross(xs, mx, zs, mz), cross(ys, my, zs, mz)];
      const det = xx * yy - xy * xy;
      const [ax, ay] = [(xz * yy - yz * xy) / det, (yz * xx - xz * xy) / det];
      const flat = spots.map((s) => surface.heightAt(s.xMm, s.yMm));
      const own = [cross(xs, mx, flat, 0), cross(ys, my, flat, 0)];
      expect((own[0]! * yy - own[1]! * xy) / det).toBeCloseTo(ax, 4);
      expect((own[1]! * xx - own[0]! * xy) / det).toBeCloseTo(ay, 4);
      // Between four spots of the grid, by the shares of the square.
      const read = (i: number, j: number): number => zs[i * 7 + j]! - mz;
      for (let k = 0; k < 40; k++) {
        const [x, y] = [random() * 11_999, random() * 5999];
        const [i, j] = [Math.floor(x / 1000), Math.floor(y / 1000)];
        const [u, v] = [x / 1000 - i, y / 1000 - j];
        const squares =
          (1 - u) * ((1 - v) * read(i, j) + v * read(i, j + 1)) +
          u * ((1 - v) * read(i + 1, j) + v * read(i + 1, j + 1));
        const is = surface.at(x, y);
        expect(Math.abs(is.value - squares)).toBeLessThan(2);
        // What is common to all of it, the mean and the laser's line, is not the surface's to know.
        const truth = floor(x, y) - mean(spots.map((s) => floor(s.xMm, s.yMm)));
        many++;
        if (Math.abs(is.value - truth) < 1.96 * is.sigma) inside++;
        spread += ((is.value - truth) / is.sigma) ** 2;
      }
    }
    expect(inside / many).toBeGreaterThan(0.88);
    // Nor is it stated so wide that it says nothing.
    expect(spread / many).toBeGreaterThan(0.4);
  });
  it.each([
    ["two spots", [[0, 1]], /three spots or more/],
    [
      "places of the laser without a spot in common",
      [
        [0, 1, 2],
        [3, 4, 5],
      ],
      /Laser place 2 has no spot in common/,
    ],
  ])("says what is to be read more: %s", (_, which, words) => {
    const spots = gridOf(4000);
    const setups = which.map((w) => readFrom(randomFrom(1), () => 0, spots, w));
    expect(() => adjustLevels(spots, setups)).toThrow(words);
  });
});

describe("a floor that slopes", () => {
  it("keeps a vehicle where its limits hold, and says so where they hold nowhere", () => {
    // Level on the left, from the middle on it falls toward a drain at the right wall.
    const spots = gridOf(1000);
    const floor = (x: number): number => (x < 6000 ? 0 : -(x - 6000) * 0.03);
    const setup = {
      levelMmPerM: 0.2,
      readMm: 0.3,
      readings: spots.map((s, spot) => ({ spot, mm: 1000 - floor(s.xMm) })),
    };
    const outline: [number, number][] = [
      [0, 0],
      [12_000, 0],
      [12_000, 6000],
      [0, 6000],
    ];
    const bay = baySchema.parse({
      id: "b",
      name: "B",
      outline,
      floor: { on: "2026-10-01", spots, setups: [setup] },
    });
    const grid = floorGrid(bay, surfaceOf(adjustLevels(spots, [setup]))!);
    const zones = [vehicleZone(CAR)];
    const anywhere = bestFit(bay, zones);
    const rule = floorRule(grid, CAR, { slopeDeg: 0.3, twistMm: 8, targets: [] });
    const level = bestFit(bay, zones, { floor: rule });
    expect(level.floorUsed).toBeLessThanOrEqual(1);
    expect(anywhere.marginMm).toBeGreaterThan(level.marginMm - 1e-6);
    // Straight along the bay its wheels must stay left of where it falls, or nearly.
    const there = floorThere(grid, CAR, [], level.pose);
    expect(Math.max(Math.abs(there.aheadDeg), Math.abs(there.leftDeg))).toBeLessThanOrEqual(0.3);
    const steep = floorThere(grid, CAR, [], { xMm: 7500, yMm: 3000, headingRad: 0 });
    expect(steep.aheadDeg).toBeCloseTo((-0.03 * 180) / Math.PI, 1);
    const nowhere = floorRule(
      floorGrid(bay, { ...surfaceOf(adjustLevels(spots, [setup]))!, heightAt: (x) => 0.02 * x }),
      CAR,
      { slopeDeg: 0.3, twistMm: 8, targets: [[6000, 0]] },
    );
    expect(bestFit(bay, zones, { floor: nowhere }).floorUsed).toBeGreaterThan(1);
  });
});
