import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { chiSquareUpperTail, normalCdf, normalCdfFast, normalQuantile } from "./distributions";

// Upper percentage points as printed in statistical tables: degrees of freedom, probability, value.
const CHI_SQUARE_TABLE = [
  [1, 0.05, 3.841],
  [1, 0.001, 10.828],
  [2, 0.05, 5.991],
  [2, 0.001, 13.816],
  [3, 0.01, 11.345],
  [4, 0.05, 9.488],
  [5, 0.001, 20.515],
  [7, 0.95, 2.167],
  [10, 0.5, 9.342],
  [10, 0.001, 29.588],
  [30, 0.05, 43.773],
  [100, 0.05, 124.342],
] as const;

// Standard normal distribution function and quantiles as printed in statistical tables.
const NORMAL_TABLE = [
  [0, 0.5],
  [0.5, 0.69146],
  [1, 0.84134],
  [1.6449, 0.95],
  [1.96, 0.975],
  [2.3263, 0.99],
  [3.2905, 0.9995],
] as const;

describe("distributions", () => {
  it.each(CHI_SQUARE_TABLE)(
    "chi-square with %i degrees of freedom leaves %f above its tabled point",
    (k, p, value) => {
      // The tables round the point to three decimals; the tail moves by less than this.
      expect(chiSquareUpperTail(value, k)).toBeCloseTo(p, 4);
    },
  );

  it("has the closed form of two degrees of freedom, exp(-x / 2)", () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 400, noNaN: true }), (x) => {
        const exact = Math.exp(-x / 2);
        expect(Math.abs(chiSquareUpperTail(x, 2) - exact)).toBeLessThan(1e-12 + 1e-10 * exact);
      }),
    );
  });

  it("contradicts nothing where nothing is left over", () => {
    expect(chiSquareUpperTail(12, 0)).toBe(1);
    expect(chiSquareUpperTail(0, 5)).toBe(1);
  });

  it.each(NORMAL_TABLE)("the normal distribution at %f is %f, and back", (z, p) => {
    expect(normalCdf(z)).toBeCloseTo(p, 5);
    expect(normalCdf(-z)).toBeCloseTo(1 - p, 5);
    expect(normalQuantile(p)).toBeCloseTo(z, 3);
  });

  it("the fast distribution function is the slow one", () => {
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), (z) => {
        expect(Math.abs(normalCdfFast(z) - normalCdf(z))).toBeLessThan(1e-13);
      }),
    );
  });

  it("the quantile undoes the distribution function from far tail to far tail", () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 8, noNaN: true }), (z) => {
        // In the upper tail p itself holds only about 1e-16 / density of z.
        const slack = 1e-9 + 2e-16 / Math.exp((-z * z) / 2);
        expect(Math.abs(normalQuantile(normalCdfFast(z)) - z)).toBeLessThan(slack);
      }),
    );
  });
});
