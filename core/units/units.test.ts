import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  formatChance,
  formatInchFraction,
  formatNumber,
  formatQuantity,
  parseQuantity,
  type Quantity,
  type UnitId,
} from ".";

const TAPE: Quantity = {
  name: "the tape",
  dimension: "length",
  min: 500,
  max: 20_000,
  expected: 2870,
};
const TILT: Quantity = { name: "the lean", dimension: "angle", min: -0.2, max: 0.2 };

describe("parseQuantity", () => {
  it.each<[string, number]>([
    ["2871", 2871],
    ["2 871", 2871],
    ["2\u2009871 mm", 2871],
    ["2871,5", 2871.5],
    ["287.1 cm", 2871],
    ["2.871m", 2871],
    ["113 1/32 in", 113.03125 * 25.4],
    ["9' 5\"", 113 * 25.4],
    ["9 ft 5 3/8 in", 113.375 * 25.4],
    ['113"', 113 * 25.4],
  ])("reads %s", (text, mm) => {
    const r = parseQuantity(text, TAPE, "mm");
    expect(r).toMatchObject({ ok: true });
    expect(r.ok && r.value).toBeCloseTo(mm, 9);
  });
  it("reads degrees with arc minutes, and signs", () => {
    const r = parseQuantity("-1° 30'", TILT, "deg");
    expect(r.ok && r.value).toBeCloseTo((-1.5 * Math.PI) / 180, 12);
    expect(parseQuantity("90 arcmin", TILT, "deg")).toMatchObject({ ok: true });
    expect(
      parseQuantity("50 km/h", { name: "speed", dimension: "speed", min: 0, max: 40 }, "mph"),
    ).toMatchObject({
      ok: true,
    });
  });
  it("questions an impossible magnitude with the likely meaning", () => {
    const metres = parseQuantity("2.87", TAPE, "mm");
    expect(metres).toMatchObject({ ok: false, guess: { value: 2870, text: "2.87 metres" } });
    expect(parseQuantity("287", TAPE, "mm")).toMatchObject({
      ok: false,
      guess: { text: "287 centimetres" },
    });
    expect(parseQuantity("113", TAPE, "mm")).toMatchObject({
      ok: false,
      guess: { text: "113 inches" },
    });
    expect(parseQuantity("2871 m", TAPE, "mm")).toMatchObject({
      ok: false,
      guess: { text: "2871 millimetres" },
    });
  });
  it.each(["", "abc", "12 stone", "3/0", "5 deg", "1 2 3 4"])(
    "refuses %j with a remedy",
    (text) => {
      const r = parseQuantity(text, TAPE, "mm");
      expect(r.ok).toBe(false);
      expect(!r.ok && r.problem.length).toBeGreaterThan(15);
    },
  );
  it("reads back everything it writes (to the digits written)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 501, max: 19_999, noNaN: true }),
        fc.constantFrom<UnitId>("mm", "cm", "m", "in", "ft"),
        (mm, unit) => {
          const r = parseQuantity(formatQuantity(mm, unit, 3), TAPE, "mm");
          expect(r.ok && Math.abs(r.value - mm)).toBeLessThan(0.6);
          const inches = parseQuantity(formatInchFraction(mm), TAPE, "mm");
          expect(inches.ok && Math.abs(inches.value - mm)).toBeLessThanOrEqual(25.4 / 64 + 1e-9);
        },
      ),
    );
  });
});

it("formats figures for reading", () => {
  expect(formatNumber(12871.4)).toBe("12\u202f871");
  expect(formatNumber(-0.2)).toBe("0");
  expect(formatNumber(-14)).toBe("−14");
  expect(formatInchFraction(113.375 * 25.4)).toBe("113 3/8\u00a0in");
  expect(formatChance(0.99999)).toBe("> 99.9\u00a0%");
  expect(formatChance(0.994)).toBe("99.4\u00a0%");
});
