import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  choleskyInPlace,
  choleskyInverse,
  choleskySolve,
  eigen2,
  invertSpd,
  wrapAngle,
} from "./linear";
import { gaussian, randomFrom, seedFrom } from "./random";

/** A random symmetric positive definite matrix B B^T + I, row-major. */
function positiveDefinite(n: number, seed: number): Float64Array {
  const random = randomFrom(seed);
  const b = Array.from({ length: n * n }, () => gaussian(random));
  return Float64Array.from({ length: n * n }, (_, k) => {
    const [i, j] = [Math.floor(k / n), k % n];
    let s = i === j ? 1 : 0;
    for (let m = 0; m < n; m++) s += b[i * n + m]! * b[j * n + m]!;
    return s;
  });
}

const sizeAndSeed = fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 1e6 }));

describe("Cholesky", () => {
  it("factors the textbook matrix", () => {
    const a = Float64Array.from([4, 12, -16, 12, 37, -43, -16, -43, 98]);
    expect(choleskyInPlace(a, 3, 1e-12)).toBe(-1);
    expect([a[0], a[3], a[4], a[6], a[7], a[8]]).toEqual([2, 6, 1, -8, 5, 3]);
  });

  it("solves and inverts: A x = b, A A^-1 = I", () => {
    fc.assert(
      fc.property(sizeAndSeed, ([n, seed]) => {
        const a = positiveDefinite(n, seed);
        const l = a.slice();
        expect(choleskyInPlace(l, n, 1e-14)).toBe(-1);
        const x = Float64Array.from({ length: n }, (_, i) => Math.sin(i + seed));
        const b = Float64Array.from({ length: n }, (_, i) =>
          x.reduce((s, v, j) => s + a[i * n + j]! * v, 0),
        );
        choleskySolve(l, n, b);
        b.forEach((v, i) => expect(v).toBeCloseTo(x[i]!, 8));
        const inverse = choleskyInverse(l, n);
        for (let i = 0; i < n; i++)
          for (let j = 0; j < n; j++) {
            let s = 0;
            for (let k = 0; k < n; k++) s += a[i * n + k]! * inverse[k * n + j]!;
            expect(s).toBeCloseTo(i === j ? 1 : 0, 8);
          }
      }),
      { numRuns: 60 },
    );
  });

  it("names the first pivot that is not positive", () => {
    expect(choleskyInPlace(Float64Array.from([1, 1, 1, 1]), 2, 1e-12)).toBe(1);
    expect(choleskyInPlace(Float64Array.from([0, 0, 0, 1]), 2, 1e-12)).toBe(0);
  });

  it("inverts what mixes millimetres and radians, and refuses what is no covariance", () => {
    const covariance = [
      [900, 3, 0.002],
      [3, 400, 0],
      [0.002, 0, 1e-6],
    ];
    const inverse = invertSpd(covariance)!;
    const product = covariance.map((row) =>
      [0, 1, 2].map((j) => row.reduce((s, v, k) => s + v * inverse[k]![j]!, 0)),
    );
    product.forEach((row, i) => row.forEach((v, j) => expect(v).toBeCloseTo(i === j ? 1 : 0, 9)));
    expect(
      invertSpd([
        [1, 2],
        [2, 1],
      ]),
    ).toBeNull();
    expect(
      invertSpd([
        [1, 0.1],
        [0.3, 1],
      ]),
    ).toBeNull();
    expect(
      invertSpd([
        [1, NaN],
        [NaN, 1],
      ]),
    ).toBeNull();
  });
});

describe("small things", () => {
  it("eigenvalues have the trace and the determinant, and the angle turns the matrix diagonal", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        fc.double({ min: -0.99, max: 0.99, noNaN: true }),
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        (xx, rho, yy) => {
          const xy = rho * Math.sqrt(xx * yy);
          const e = eigen2(xx, xy, yy);
          expect(e.large + e.small).toBeCloseTo(xx + yy, 9);
          expect(e.large * e.small).toBeCloseTo(xx * yy - xy * xy, 6);
          const [c, s] = [Math.cos(e.angleRad), Math.sin(e.angleRad)];
          expect(c * c * xx + 2 * c * s * xy + s * s * yy).toBeCloseTo(e.large, 9);
        },
      ),
    );
  });

  it("wraps any angle into (-pi, pi] without changing where it points", () => {
    fc.assert(
      fc.property(fc.double({ min: -100, max: 100, noNaN: true }), (t) => {
        const w = wrapAngle(t);
        expect(w).toBeGreaterThan(-Math.PI - 1e-12);
        expect(w).toBeLessThanOrEqual(Math.PI + 1e-12);
        expect(Math.cos(w)).toBeCloseTo(Math.cos(t), 9);
        expect(Math.sin(w)).toBeCloseTo(Math.sin(t), 9);
      }),
    );
  });

  it("random numbers repeat under a seed, differ between seeds, and have the moments they claim", () => {
    const [a, b, c] = [
      randomFrom(seedFrom("bay")),
      randomFrom(seedFrom("bay")),
      randomFrom(seedFrom("bay 2")),
    ];
    const [first, second, other] = [a, b, c].map((r) => Array.from({ length: 5 }, r));
    expect(first).toEqual(second);
    expect(first).not.toEqual(other);
    const random = randomFrom(11);
    const values = Array.from({ length: 20_000 }, () => gaussian(random));
    const mean = values.reduce((s, v) => s + v, 0) / values.length;
    const variance = values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length;
    // Four standard errors: 1/sqrt(n) of the mean, sqrt(2/n) of the variance.
    expect(Math.abs(mean)).toBeLessThan(4 / Math.sqrt(20_000));
    expect(Math.abs(variance - 1)).toBeLessThan(4 * Math.sqrt(2 / 20_000));
  });
});
