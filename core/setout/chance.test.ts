import { describe, expect, it } from "vitest";
import {
  chiSquareUpperTail,
  normalCdf,
  normalCdfFast,
  normalQuantile,
} from "@/core/math/distributions";
import { gaussian, randomFrom } from "@/core/math/random";
import { boxProbability, centredProbability } from "./chance";
import { sharesOfRisk } from "./quantities";

describe("distributions", () => {
  it("match published quantiles", () => {
    // Chi-square 95 % points for 1, 3, 5 and 10 degrees of freedom; 99.9 % for 5.
    for (const [x, k, p] of [
      [3.841459, 1, 0.05],
      [7.814728, 3, 0.05],
      [11.070498, 5, 0.05],
      [18.307038, 10, 0.05],
      [20.515006, 5, 0.001],
    ] as const)
      expect(chiSquareUpperTail(x, k)).toBeCloseTo(p, 7);
    expect(normalCdf(1.959963985)).toBeCloseTo(0.975, 9);
    expect(normalCdf(-3.290526731)).toBeCloseTo(0.0005, 9);
    for (const z of [-8, -3.3, -0.4, 0, 0.7, 2.2, 6]) {
      expect(normalCdfFast(z)).toBeCloseTo(normalCdf(z), 12);
      expect(normalQuantile(normalCdfFast(z))).toBeCloseTo(z, z > 5 ? 4 : 9);
    }
  });
});

describe("boxProbability", () => {
  it("meets the closed form of the bivariate and trivariate orthant within 1e-3", () => {
    // An orthant as a box from 0 to far out: centre the mean at half the far edge.
    const far = 60;
    for (const [r12, r13, r23] of [
      [0.5, 0.3, -0.2],
      [0.9, 0.8, 0.7],
      [-0.6, 0.1, 0.4],
      [0, 0, 0],
    ] as const) {
      const cov = [
        [1, r12, r13],
        [r12, 1, r23],
        [r13, r23, 1],
      ];
      const closed = 1 / 8 + (Math.asin(r12) + Math.asin(r13) + Math.asin(r23)) / (4 * Math.PI);
      expect(
        Math.abs(centredProbability([far, far, far], cov, [far, far, far]) - closed),
      ).toBeLessThan(1e-3);
      const two = 1 / 4 + Math.asin(r12) / (2 * Math.PI);
      expect(
        Math.abs(
          centredProbability(
            [far, far],
            [
              [1, r12],
              [r12, 1],
            ],
            [far, far],
          ) - two,
        ),
      ).toBeLessThan(1e-3);
    }
  });

  it("keeps its promise of 1e-3 under correlation, against plain iterated quadrature", () => {
    const random = randomFrom(107);
    const density = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);
    // Trapezoids over the first two standard normals of the factor, the third in closed form.
    const reference = (l: number[][], mean: number[], halves: number[]): number => {
      const steps = 900;
      let sum = 0;
      const inside = (i: number, centre: number): [number, number] => [
        (-halves[i]! - centre) / l[i]![i]!,
        (halves[i]! - centre) / l[i]![i]!,
      ];
      const clip = ([a, b]: [number, number]): [number, number] => [
        Math.max(a, -8),
        Math.min(b, 8),
      ];
      const [a0, b0] = clip(inside(0, mean[0]!));
      for (let p = 0; p <= steps && b0 > a0; p++) {
        const z0 = a0 + ((b0 - a0) * p) / steps;
        const [a1, b1] = clip(inside(1, mean[1]! + l[1]![0]! * z0));
        let inner = 0;
        for (let q = 0; q <= steps && b1 > a1; q++) {
          const z1 = a1 + ((b1 - a1) * q) / steps;
          const [a2, b2] = inside(2, mean[2]! + l[2]![0]! * z0 + l[2]![1]! * z1);
          inner += (q % steps ? 1 : 0.5) * density(z1) * (normalCdf(b2) - normalCdf(a2));
        }
        sum += (p % steps ? 1 : 0.5) * density(z0) * inner * ((b1 - a1) / steps);
      }
      return (sum * (b0 - a0)) / steps;
    };
    for (let n = 0; n < 14; n++) {
      const l = [0, 1, 2].map((i) =>
        [0, 1, 2].map((j) =>
          j < i ? 1.5 * gaussian(random) : j === i ? Math.exp(1.2 * gaussian(random)) : 0,
        ),
      );
      const cov = l.map((a) => l.map((b) => a.reduce((s, v, i) => s + v * b[i]!, 0)));
      const halves = cov.map((row, i) => Math.sqrt(row[i]!) * (0.3 + 3 * random()));
      const mean = halves.map((h) => 1.2 * h * (2 * random() - 1));
      expect(
        Math.abs(centredProbability(mean, cov, halves) - reference(l, mean, halves)),
        `case ${n}`,
      ).toBeLessThan(1e-3);
    }
  });

  it("keeps it with a singular covariance of up to twelve quantities, against plain Monte Carlo", () => {
    const random = randomFrom(19);
    const draws = 150_000;
    for (const [n, rank] of [
      [3, 2],
      [7, 6],
      [9, 6],
      [12, 9],
    ] as const) {
      const a = Array.from({ length: n }, () =>
        Array.from({ length: rank }, () => gaussian(random)),
      );
      const cov = a.map((x) => a.map((y) => x.reduce((s, v, i) => s + v * y[i]!, 0)));
      const sd = cov.map((row, i) => Math.sqrt(row[i]!));
      // One side of some boxes is open, as where only "no less than" is asked.
      const lower = sd.map((s, i) => (i % 4 === 3 ? -Infinity : -s * (1.6 + random())));
      const upper = sd.map((s) => s * (1.6 + random()));
      const mean = sd.map((s) => 0.4 * s * gaussian(random));
      let inside = 0;
      const z = new Float64Array(rank);
      for (let k = 0; k < draws; k++) {
        for (let j = 0; j < rank; j++) z[j] = gaussian(random);
        const held = a.every((row, i) => {
          let v = mean[i]!;
          for (let j = 0; j < rank; j++) v += row[j]! * z[j]!;
          return v > lower[i]! && v < upper[i]!;
        });
        if (held) inside++;
      }
      const p = inside / draws;
      const threeSigma = 3 * Math.sqrt((p * (1 - p)) / draws);
      const ours = boxProbability(mean, cov, lower, upper);
      expect(Math.abs(ours - p), `${n} of rank ${rank}`).toBeLessThan(1e-3 + threeSigma);
    }
  });

  it("knows what is known exactly, and refuses more than it can keep its promise for", () => {
    const none = [
      [0, 0],
      [0, 4],
    ];
    expect(boxProbability([1, 0], none, [0, -4], [2, 4])).toBeCloseTo(0.9545, 3);
    expect(boxProbability([3, 0], none, [0, -4], [2, 4])).toBe(0);
    // The second hangs on the first alone and asks for more of it.
    const twice = [
      [1, 2],
      [2, 4],
    ];
    expect(boxProbability([0, 0], twice, [-2, -2], [2, 2])).toBeCloseTo(0.6827, 3);
    const many = Array.from({ length: 13 }, () => 0);
    expect(() => boxProbability(many, [], many, many)).toThrow(RangeError);
  });

  it("agrees with plain Monte Carlo on correlated boxes of mixed units", () => {
    const random = randomFrom(4);
    const l = [
      [2.1, 0, 0],
      [1.4, 2.6, 0],
      [-0.0008, 0.0011, 0.0009],
    ];
    const cov = l.map((a) => l.map((b) => a.reduce((s, v, i) => s + v * b[i]!, 0)));
    const mean = [3, -4, 0.001];
    const halves = [6, 8, 0.004];
    let inside = 0;
    const N = 400_000;
    for (let k = 0; k < N; k++) {
      const z = [gaussian(random), gaussian(random), gaussian(random)];
      if (
        l.every(
          (row, i) => Math.abs(mean[i]! + row.reduce((s, v, j) => s + v * z[j]!, 0)) < halves[i]!,
        )
      )
        inside++;
    }
    const p = inside / N;
    const threeSigma = 3 * Math.sqrt((p * (1 - p)) / N);
    expect(Math.abs(centredProbability(mean, cov, halves) - p)).toBeLessThan(1e-3 + threeSigma);
  });

  it("is a product for independent quantities, in up to six dimensions", () => {
    const sd = [1, 2, 0.5, 3, 1.5, 0.7];
    const halves = [2, 3, 1.2, 5, 3.3, 1];
    const mean = [0.3, -1, 0.2, 1, 0, -0.1];
    const cov = sd.map((s, i) => sd.map((_, j) => (i === j ? s * s : 0)));
    const product = sd.reduce(
      (p, s, i) =>
        p * (normalCdf((halves[i]! - mean[i]!) / s) - normalCdf((-halves[i]! - mean[i]!) / s)),
      1,
    );
    expect(centredProbability(mean, cov, halves)).toBeCloseTo(product, 9);
  });
});

describe("what the verdict hangs on", () => {
  it("is shared out as errors drawn from what is known fall outside (Monte Carlo)", () => {
    const random = randomFrom(17);
    const of = [
      { error: 0.5, sigma: 2, lower: -4, upper: 4 },
      { error: -4.5, sigma: 1, lower: -4, upper: 4 },
      { error: 900, sigma: 30, lower: 880, upper: 960 },
    ];
    const out = of.map(({ error, sigma, lower, upper }) => {
      let n = 0;
      for (let i = 0; i < 40_000; i++) {
        const v = error + sigma * gaussian(random);
        if (v < lower || v > upper) n++;
      }
      return n;
    });
    const sum = out.reduce((a, b) => a + b, 0);
    sharesOfRisk(of).forEach((s, i) => expect(s).toBeCloseTo(out[i]! / sum, 2));
  });
  it("is all alike where nothing can be outside, and most what nothing is known of", () => {
    const safe = { error: 0, sigma: 0.1, lower: -4, upper: 4 };
    expect(sharesOfRisk([safe, safe])).toEqual([0.5, 0.5]);
    expect(sharesOfRisk([safe, { ...safe, sigma: Infinity }])[1]).toBeGreaterThan(0.99);
  });
});
