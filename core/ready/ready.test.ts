import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import type { Measure } from "@/core/sheet";
import { degToRad, formatQuantity, parseQuantity } from "@/core/units";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import { readTyre } from "@/core/vehicle";
import {
  batteryTrend,
  byPlace,
  fieldsFor,
  floorOf,
  glassSeatOf,
  glassWords,
  judgeMeasure,
  judgeRead,
  partProblem,
  placeOfCheck,
} from ".";

const car = VEHICLES[0]!;
const plain = (text: string): string => text.replace(/[\s\u202f\u00a0]+/g, " ");
const PRESSURES: Measure = { kind: "pressures", load: "half", toleranceKPa: 12 };
const ARCHES: Measure = { kind: "arches", cameraHeightMm: 18, pitchDeg: 0.3, rollDeg: 0.3 };
const FLOOR: Measure = { kind: "floor", slopeDeg: 0.6, twistMm: 5 };

/** A stand straight ahead, so far before the rear axle. */
const before = (xMm: number) => ({ xMm, yMm: 0, headingRad: Math.PI });

describe("tyre pressures", () => {
  const right = { FL: 230, FR: 228, RL: 221, RR: 219 };
  it("are judged against the placard of the load the sheet asks for", () => {
    expect(judgeMeasure(PRESSURES, right, car)).toMatchObject({
      ok: true,
      headline: "all at placard",
    });
    expect(judgeMeasure({ ...PRESSURES, load: "full" }, right, car).ok).toBe(false);
  });
  it("name the tyre that is furthest off, and by how much, either way", () => {
    expect(plain(judgeMeasure(PRESSURES, { ...right, RR: 190 }, car).headline)).toBe(
      "rear right: 30 kPa too little",
    );
    expect(plain(judgeMeasure(PRESSURES, { ...right, FL: 260, RR: 200 }, car).headline)).toBe(
      "front left: 30 kPa too much",
    );
  });
  it("are read in kPa, bar or psi, and an impossible one is questioned with the likely unit", () => {
    const { quantity } = fieldsFor(PRESSURES, car)[0]!;
    expect(parseQuantity("2.3 bar", quantity, "kPa")).toMatchObject({
      ok: true,
      value: expect.closeTo(230, 9) as number,
    });
    expect(parseQuantity("33.4 psi", quantity, "kPa")).toMatchObject({
      ok: true,
      value: expect.closeTo(230.3, 1) as number,
    });
    expect(parseQuantity("2.3", quantity, "kPa")).toMatchObject({
      ok: false,
      guess: { value: expect.closeTo(230, 9) as number, text: "2.3 bar" },
    });
    expect(parseQuantity("33", quantity, "kPa")).toMatchObject({
      ok: false,
      guess: { text: "33 psi" },
    });
    expect(plain(formatQuantity(230, "bar"))).toBe("2.30 bar");
  });
  it("say which one is still to be read", () => {
    expect(judgeRead(PRESSURES, { FL: 230 }, car)).toEqual({
      ok: null,
      headline: "3 still to read: front right",
      lines: [],
    });
  });
});

describe("the body's stance", () => {
  it("is right at its nominal arch heights and off where the nose hangs", () => {
    expect(judgeMeasure(ARCHES, car.archMm, car).ok).toBe(true);
    const { FL, FR, ...rear } = car.archMm;
    const nose = judgeMeasure(ARCHES, { FL: FL - 30, FR: FR - 30, ...rear }, car);
    expect(nose.ok).toBe(false);
    const pitch = nose.lines.find((l) => l.name.startsWith("body pitch"))!;
    // Thirty millimetres over the wheelbase.
    expect(Number(pitch.value.replace("−", "-").replace("°", ""))).toBeCloseTo(
      (-30 / car.wheelbaseMm) * (180 / Math.PI),
      2,
    );
  });
  it("calls one sagging corner by what it is", () => {
    const sag = judgeMeasure(ARCHES, { ...car.archMm, RL: car.archMm.RL - 24 }, car);
    expect(sag.lines.find((l) => l.name === "one corner off")!.ok).toBe(false);
  });
});

describe("the floor", () => {
  it("from rule readings: a larger reading is a lower floor", () => {
    const values = { FL: 600, FR: 600, RL: 600, RR: 600, stand: 607, "stand-2": 605 };
    expect(floorOf(values, car, before(5470))!.correction!.value).toBeCloseTo(-6, 9);
    expect(plain(judgeMeasure(FLOOR, values, car).headline)).toBe(
      "floor at the stand 6.0 mm lower than the car’s plane",
    );
  });
  it("refuses a slope and a twist beyond the sheet", () => {
    const rise = Math.tan(degToRad(0.8)) * car.wheelbaseMm;
    const slope = judgeMeasure(
      FLOOR,
      { FL: 600 - rise, FR: 600 - rise, RL: 600, RR: 600, stand: 560 },
      car,
    );
    expect(slope.headline).toMatch(/^slope ahead, rising \+: 0\.80°/);
    const twist = judgeMeasure(FLOOR, { FL: 594, FR: 606, RL: 606, RR: 594, stand: 600 }, car);
    expect(plain(twist.headline)).toBe("twist: 6.0 mm");
    expect(floorOf({ FL: 600 }, car, before(5470))).toBeNull();
  });
});

describe("fuel and steering", () => {
  it("say what is lacking in litres and kilograms, from the tank's own size", () => {
    const fuel: Measure = { kind: "fuel", minShare: 0.5 };
    expect(judgeMeasure(fuel, { share: 5 }, car).ok).toBe(true);
    // 0.2 of 52 litres, at 0.75 kg a litre.
    // A car without a tank has no gauge to read.
    expect(judgeMeasure(fuel, {}, car).ok).toBeNull();
    expect(judgeMeasure(fuel, {}, { ...car, tankLitres: 0 })).toMatchObject({
      ok: true,
      headline: "no tank: nothing to fill",
    });
    expect(judgeMeasure(fuel, { share: 3 }, car).headline).toBe("10 litres, 8 kg too little");
  });
  it("turn the wheel back by the angle it is off", () => {
    const steering: Measure = { kind: "steering", maxDeg: 3 };
    expect(judgeMeasure(steering, { deg: degToRad(-2) }, car)).toMatchObject({
      ok: true,
      headline: "straight",
    });
    expect(judgeMeasure(steering, { deg: degToRad(-7.5) }, car).headline).toBe(
      "turn the wheel back 7.5°",
    );
  });
});

describe("the supply's trend", () => {
  const log = (voltsPerMinute: number, noise = 0) => {
    const random = randomFrom(2);
    return Array.from({ length: 12 }, (_, i) => ({
      atS: 15 * i,
      volts: 12.6 + (voltsPerMinute * 15 * i) / 60 + noise * gaussian(random),
    }));
  };
  it("meets the floor where the straight line does", () => {
    const trend = batteryTrend(log(-0.1), 12)!;
    expect(trend.voltsPerMinute).toBeCloseTo(-0.1, 9);
    // From 12.6 V at the start, 165 s ago: 12.325 V now, 3.25 minutes to 12 V.
    expect(trend.minutesLeft).toBeCloseTo(3.25, 6);
  });
  it("gives no time while the supply does not surely fall, and none from too little", () => {
    expect(batteryTrend(log(0, 0.03), 12)!.minutesLeft).toBeNull();
    expect(batteryTrend(log(0.05), 12)!.minutesLeft).toBeNull();
    expect(batteryTrend(log(-0.1).slice(0, 2), 12)).toBeNull();
  });
  it("never gives negative minutes", () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 1, noNaN: true }), (slope) => {
        expect(batteryTrend(log(slope), 12)!.minutesLeft ?? 0).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe("the seat of the glass in words", () => {
  it("names the worst turn against the vehicle's limit, and says when nothing was measured", () => {
    const level = Object.fromEntries(
      [
        "top-left",
        "top",
        "top-right",
        "left",
        "right",
        "bottom-left",
        "bottom",
        "bottom-right",
      ].map((s) => [s, 1]),
    );
    expect(glassSeatOf(car, level)).toMatchObject({ inside: true });
    const leaning = glassSeatOf(car, { ...level, "top-left": 4, top: 4, "top-right": 4 })!;
    expect(leaning.inside).toBe(false);
    expect(leaning.worst.name).toBe("pitch");
    expect(glassSeatOf(car, { top: 1, bottom: 1 })).toBeNull();
    expect(glassWords(car, { part: "NV-W-2210", depths: {} })).toBe("NV-W-2210, seat not measured");
    expect(glassWords(car, { part: "", depths: level })).toMatch(
      /^part not named, .* 0\.00° ± 0\.\d\d°$/,
    );
  });
});

describe("which glass may stay", () => {
  it.each([
    ["maker-only", "NV-W-2210", null, null],
    ["maker-only", "nv-w-2210 ", null, null],
    ["maker-only", "HQG-2210", "stock", /only the maker’s glass.*an equivalent/],
    ["maker-only", "XX-1", null, /another part/],
    ["equivalent-with-reason", "HQG-2210", null, /equivalent part.*say why/],
    ["equivalent-with-reason", "HQG-2210", "maker out of stock", null],
    ["equivalent-with-reason", "XX-1", null, /nobody here knows/],
    ["equivalent-with-reason", "", null, /Read the part number/],
  ] as const)("under %s: %s because %s", (policy, part, reason, message) => {
    const problem = partProblem(car, policy, part, reason);
    if (message === null) expect(problem).toBeNull();
    else expect(problem!.message).toMatch(message);
  });
});

describe("tyre sizes", () => {
  const TYRES: Measure = { kind: "tyres", axlePercent: 1, nominalPercent: 3 };
  const all = (marking: string, more: Record<string, string> = {}) =>
    Object.fromEntries(
      Object.entries({ FL: marking, FR: marking, RL: marking, RR: marking, ...more }).map(
        ([c, m]) => [c, readTyre(m)!.diameterMm],
      ),
    );
  it.each([
    // Rim inches at 25.4 mm and twice the section height, by hand.
    ["225/45 R17 91W", 634.3],
    ["185/60R15", 603],
    ["P 205/55-16", 631.9],
    ["265/70 R19.5", 866.3],
    // With what stands behind the size on real walls.
    ["225/45 ZR17 94Y XL", 634.3],
    ["225/45ZR17 (94Y)", 634.3],
    ["185/60 R15 88H Extra Load M+S 3PMSF", 603],
    ["225/65 R16C 112/110T M+S", 698.9],
    ["LT 225/65 R16 112/110 S 8PR", 698.9],
    ["205/55 R16 91V RFT TL", 631.9],
  ])("%s is %f mm over all", (marking, mm) =>
    expect(readTyre(marking)!.diameterMm).toBeCloseTo(mm, 9),
  );
  it.each([
    "",
    "225",
    "225/45",
    "45/225 R17",
    "999/45 R17",
    "225/45 R99",
    "225x45xR17",
    "225/45 R17 hello",
    "225/45 R1791W",
  ])("%j is no marking", (text) => expect(readTyre(text)).toBeNull());
  it("alike and the maker's are fine; one odd tyre names its axle; four wrong ones are named too", () => {
    const own = car.tyres.front;
    expect(judgeMeasure(TYRES, all(own), car).ok).toBe(true);
    expect(judgeMeasure(TYRES, all(own, { RR: "235/35 R18" }), car)).toMatchObject({
      ok: false,
      headline: expect.stringContaining("across the rear axle") as string,
    });
    expect(judgeMeasure(TYRES, all("235/55 R18"), car)).toMatchObject({
      ok: false,
      headline: expect.stringContaining("front left") as string,
    });
  });
});

describe("the clear zone", () => {
  const ZONE: Measure = { kind: "clear-zone", aheadMm: 4600, sideMm: 1300 };
  it("is as wide as its narrowest side", () => {
    expect(judgeMeasure(ZONE, { ahead: 4600, left: 1300, right: 1300 }, car).ok).toBe(true);
    expect(plain(judgeMeasure(ZONE, { ahead: 5000, left: 1300, right: 1299 }, car).headline)).toBe(
      "free right: only 1 299 mm",
    );
  });
});

describe("alignment before a camera learns", () => {
  const tarn = {
    ...car,
    alignment: { thrustDeg: 0.1, toeMinDeg: 0, toeMaxDeg: 0.3 },
  };
  const judged = (left: number, right: number, sigma?: number) =>
    judgeMeasure(
      { kind: "alignment" },
      {
        left: degToRad(left),
        right: degToRad(right),
        ...(sigma === undefined ? {} : { sigma: degToRad(sigma) }),
      },
      tarn,
    );

  it("passes an axle inside its limits, and sends one outside to be aligned first, with the figure", () => {
    expect(judged(0.12, 0.1).ok).toBe(true);
    const out = judged(0.02, 0.28);
    expect(out.ok).toBe(false);
    expect(out.headline).toContain(
      "alignment first: thrust, left + 0.13° ± 0.02°, allowed ± 0.10°",
    );
    expect(judged(0.4, 0.2).headline).toContain("rear left toe");
  });

  it("does not decide what its own uncertainty cannot tell", () => {
    const near = judged(0.05, 0.23);
    expect(near.ok).toBe(false);
    expect(near.headline).toContain("too near its limit");
    expect(judged(0.05, 0.23, 0.005).ok).toBe(true);
    expect(judged(0.12, 0.1, 0.3).ok).toBe(false);
  });

  it("says when the vehicle's book has no limits, and what is still to be read", () => {
    const { alignment: _, ...bare } = tarn;
    const values = { left: 0, right: 0 };
    expect(judgeMeasure({ kind: "alignment" }, values, bare)).toMatchObject({ ok: null });
    expect(judgeRead({ kind: "alignment" }, { left: 0 }, tarn).headline).toContain(
      "rear right toe",
    );
  });
});

describe("the order of the checks", () => {
  const READY = SHEETS[0]!.ready;
  it("goes from the cabin round the wheels over the floor, and round the car at last", () => {
    expect(byPlace(READY).map((i) => i.id)).toEqual([
      "baseline-scan",
      "maintainer",
      "load",
      "steering",
      "tyres",
      "tyre-sizes",
      "stance",
      "floor",
      "space",
      "shut",
      "light",
    ]);
  });
  it("walks to no place twice, loses nothing, and keeps the sheet's order at each", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...READY]), (items) => {
        const walked = byPlace(items);
        expect(new Set(walked)).toEqual(new Set(items));
        expect(walked).toHaveLength(items.length);
        const places = walked.map(placeOfCheck);
        const turns = places.filter((p, i) => p !== places[i - 1]);
        expect(new Set(turns).size).toBe(turns.length);
        for (const place of turns) {
          const here = (list: typeof items) => list.filter((i) => placeOfCheck(i) === place);
          expect(here(walked)).toEqual(here(items));
        }
      }),
    );
  });
});
