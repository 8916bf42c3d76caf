import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { independentSolution, observe, withValue, type Truth } from "@/tests/independent-solver";
import { adjustNetwork, predictReadings, SurveyError } from ".";
import type { Observation, Reading, SurveyBody, SurveyNetwork } from ".";

const HUBS = [
  ["FL", 2610, 840],
  ["FR", 2610, -840],
  ["RL", 0, 836],
  ["RR", 0, -836],
] as const;

/** A correlated covariance: independent parts, and one cause that all of them share. */
function correlated(sigmas: readonly number[], share: number): number[][] {
  return sigmas.map((a, i) =>
    sigmas.map((b, j) => (i === j ? a * a * (1 + share * share) : share * share * a * b)),
  );
}

/** The truth that belongs to such a covariance about a start. */
const drawn = (start: number[], sigmas: readonly number[], share: number, random: Random) => {
  const common = share * gaussian(random);
  return start.map((v, i) => v + sigmas[i]! * (gaussian(random) + common));
};

/**
 * A bay with `count` bodies round a car: uncertain frame points, a joint prior over hubs and bodies,
 * one tape with a scale of its own, one body carried on with the car moved under it, a hitch.
 */
function bay(seed: number, count: number): SurveyNetwork {
  const random = randomFrom(seed);
  const ids = Array.from({ length: count }, (_, i) => `b${i}`);
  const points = HUBS.map(([id, xMm, yMm]) => ({ id, xMm, yMm, sigmaMm: 1.2 }));
  const bodies = ids.map((id, i): SurveyBody => ({
    id,
    xMm: 5200 - 900 * i,
    yMm: i % 2 ? 1900 : -1900,
    headingRad: 0.4 * i,
    points: [
      { id: "L", xMm: 0, yMm: -700, by: [{ cause: "lean", xMm: 850, yMm: 0 }] },
      { id: "R", xMm: 40, yMm: 700, ...(i % 2 ? { sigmaMm: 1.5 } : {}) },
      {
        id: "C",
        xMm: 300,
        yMm: 20,
        by: [
          { cause: "lean", xMm: -200, yMm: 30 },
          { cause: "later", xMm: 0, yMm: 140 },
        ],
      },
    ],
  }));
  const sigmas = [
    ...points.flatMap(() => [1.2, 1.2]),
    ...bodies.flatMap(() => [40, 40, 0.03]),
    0.0005,
  ];
  const start = [
    ...points.flatMap((p) => [p.xMm, p.yMm]),
    ...bodies.flatMap((b) => [b.xMm, b.yMm, b.headingRad]),
    0,
  ];
  const true_ = drawn(start, sigmas, 0.7, random);
  const lean = 0.01 * gaussian(random);
  const truth: Truth = {
    scale: [true_.at(-1)!],
    lean: [lean],
    later: [lean + 0.002 * gaussian(random)],
    seat: [0.8 * gaussian(random)],
  };
  points.forEach((p, i) => (truth[p.id] = true_.slice(2 * i, 2 * i + 2)));
  ids.forEach((id, i) => (truth[id] = true_.slice(8 + 3 * i, 11 + 3 * i)));
  for (const b of bodies)
    for (const p of b.points)
      if (p.sigmaMm) {
        truth[`${b.id}.${p.id}`] = [
          p.xMm + p.sigmaMm * gaussian(random),
          p.yMm + p.sigmaMm * gaussian(random),
        ];
      }
  const network: SurveyNetwork = {
    points,
    bodies: [...bodies],
    observations: [],
    nuisances: [
      { id: "scale", value: 0, unit: "ratio" },
      { id: "lean", value: 0, unit: "rad", sigma: 0.01 },
      { id: "later", value: 0, unit: "rad" },
      { id: "seat", value: 0, unit: "mm", sigma: 0.8, maySlip: true },
    ],
    priors: [
      {
        ids: [...points.map((p) => p.id), ...ids, "scale"],
        covariance: correlated(sigmas, 0.7),
      },
    ],
  };
  const read = (o: Reading): void => {
    const value = observe(o, network, truth) + o.sigma * gaussian(random);
    network.observations.push(withValue(o, value));
  };
  for (const b of ids)
    for (const [hub] of HUBS)
      for (const end of ["L", "R"])
        read({
          id: `${hub}-${b}${end}`,
          kind: "distance",
          from: hub,
          to: `${b}.${end}`,
          valueMm: 0,
          sigma: 1.7,
          scale: "scale",
        });
  ids.forEach((b, i) => {
    const line = { point: `${b}.C`, lineFrom: "RR", lineTo: "FR", valueMm: 0, sigma: 1.1 };
    const causes = [{ cause: "seat", per: 1.5 }];
    read({ id: `off-${b}`, kind: "offset", ...line, causes });
    read({ id: `st-${b}`, kind: "station", ...line, origin: "FL" });
    read({ id: `turn-${b}`, kind: "heading", body: b, valueRad: 0, sigma: 0.004 });
    const next = ids[(i + 1) % count]!;
    if (next !== b)
      read({
        id: `gap-${b}`,
        kind: "distance",
        from: `${b}.R`,
        to: `${next}.L`,
        valueMm: 0,
        sigma: 1.5,
      });
  });
  // The lean is read, later only what it has become since.
  read({ id: "leans", kind: "cause", of: "lean", value: 0, sigma: 0.001 });
  network.observations.push({
    id: "since",
    kind: "cause",
    of: "later",
    minus: "lean",
    value: 0,
    sigma: 0.002,
  });
  // The first body stands still while the car is moved a little, then it is read anew.
  const moved = { xMm: 30, yMm: -12, headingRad: 0.02 };
  network.bodies.push(
    {
      id: "car",
      xMm: 25,
      yMm: -10,
      headingRad: 0.015,
      points: [],
      priorCovariance: [
        [3600, 0, 0],
        [0, 3600, 0],
        [0, 0, 7e-4],
      ],
    },
    { id: "again", xMm: 5170, yMm: -1880, headingRad: -0.02, points: bodies[0]!.points },
  );
  const [x, y, t] = truth.b0 as [number, number, number];
  const turn = Math.atan2(y - moved.yMm, x - moved.xMm) - moved.headingRad;
  const far = Math.hypot(x - moved.xMm, y - moved.yMm);
  truth.again = [far * Math.cos(turn), far * Math.sin(turn), t - moved.headingRad];
  network.observations.push({
    id: "stood-still",
    kind: "carried",
    from: "b0",
    to: "again",
    by: { xMm: 0, yMm: 0, headingRad: 0 },
    motion: "car",
    sigma: 0.5,
    sigmaRad: 0.0004,
  });
  for (const hub of ["FL", "FR"])
    for (const end of ["L", "R"])
      read({
        id: `again-${hub}${end}`,
        kind: "distance",
        from: hub,
        to: `again.${end}`,
        valueMm: 0,
        sigma: 1.7,
        scale: "scale",
      });
  return network;
}

describe("a network with one joint prior", () => {
  it.each([1, 2, 3, 4, 5, 6])(
    "of %d bodies agrees with an independent solver to 1e-6 mm and 1e-9 rad",
    (count) => {
      const network = bay(40 + count, count);
      const ours = adjustNetwork(network);
      const theirs = independentSolution(network);
      for (const p of ours.points) {
        expect(Math.abs(p.xMm - theirs[p.id]![0]!), p.id).toBeLessThan(1e-6);
        expect(Math.abs(p.yMm - theirs[p.id]![1]!), p.id).toBeLessThan(1e-6);
      }
      for (const b of ours.bodies) {
        expect(Math.abs(b.xMm - theirs[b.id]![0]!), b.id).toBeLessThan(1e-6);
        expect(Math.abs(b.yMm - theirs[b.id]![1]!), b.id).toBeLessThan(1e-6);
        expect(Math.abs(b.headingRad - theirs[b.id]![2]!), b.id).toBeLessThan(1e-9);
      }
      expect(Math.abs(ours.nuisances[0]!.value - theirs.scale![0]!)).toBeLessThan(1e-9);
      expect(ours.suspect).toBeNull();
    },
  );

  it("gives one answer in whatever order its readings come, stations over four bodies included", () => {
    const network = bay(7, 4);
    const wide = (id: string, valueMm: number): Observation => ({
      id,
      kind: "station",
      point: "b1.R",
      lineFrom: "b0.R",
      lineTo: "b3.R",
      origin: "b2.C",
      valueMm,
      sigma: 2,
    });
    const at = adjustNetwork(network);
    const value = predictReadings(network, at, [wide("probe", 0) as Reading])[0]!.value;
    const all = [wide("w1", value + 1), ...network.observations, wide("w2", value - 2)];
    const orders = [all, [...all].reverse(), [...all.slice(9), ...all.slice(0, 9)]];
    const answers = orders.map((observations) => adjustNetwork({ ...network, observations }));
    for (const a of answers)
      for (const [i, b] of a.bodies.entries()) {
        expect(b.xMm).toBeCloseTo(answers[0]!.bodies[i]!.xMm, 6);
        expect(b.headingRad).toBeCloseTo(answers[0]!.bodies[i]!.headingRad, 9);
      }
  });

  it("ties a hitch: two points at one place, each body with its own end of it", () => {
    const network = bay(11, 2);
    // One place in the bay, seen from either body's start.
    const [x, y] = [4750, 0];
    for (const b of network.bodies.slice(0, 2)) {
      const [dx, dy] = [x - b.xMm, y - b.yMm];
      const [c, s] = [Math.cos(b.headingRad), Math.sin(b.headingRad)];
      b.points = [...b.points, { id: "H", xMm: c * dx + s * dy, yMm: -s * dx + c * dy }];
    }
    const play = { id: "hitch", kind: "coincide", a: "b0.H", b: "b1.H", sigma: 40 } as const;
    network.observations.push(play);
    const ours = adjustNetwork(network);
    const theirs = independentSolution(network);
    for (const b of ours.bodies)
      expect(Math.abs(b.xMm - theirs[b.id]![0]!), b.id).toBeLessThan(1e-6);
    network.observations = network.observations.filter((o) => o.id !== "leans");
    // A hitch without play, a hand's breadth from where the readings have it, is what is wrong.
    network.observations.push({ ...play, id: "tight", sigma: 0.5 });
    expect(adjustNetwork(network).suspect).toMatch(/^tight/);
  });

  it("says what is wrong with a prior or a tie, by name", () => {
    const network = bay(3, 2);
    const broken = (change: (n: SurveyNetwork) => void): string => {
      const copy = structuredClone(network);
      change(copy);
      try {
        adjustNetwork(copy);
        return "";
      } catch (error) {
        return error instanceof SurveyError ? `${error.code} ${error.culprit}` : String(error);
      }
    };
    expect(broken((n) => (n.priors![0]!.ids[0] = "XX"))).toBe("bad-input XX");
    expect(broken((n) => (n.priors![0]!.covariance[3]![3] = -1))).toBe("bad-input FL");
    expect(broken((n) => n.priors![0]!.ids.pop())).toBe("bad-input FL");
    const push = (o: object) => (n: SurveyNetwork) => void n.observations.push(o as Observation);
    const carried = { id: "c", kind: "carried", by: { xMm: 0, yMm: 0, headingRad: 0 }, sigma: 1 };
    expect(broken(push({ ...carried, from: "b0", to: "b9", sigmaRad: 1 }))).toBe("bad-input c");
    expect(broken(push({ ...carried, from: "b0", to: "b1", sigmaRad: 0 }))).toBe("bad-input c");
    expect(broken(push({ id: "t", kind: "coincide", a: "b0.C", b: "b0.C", sigma: 1 }))).toBe(
      "bad-input t",
    );
    const scaled = { id: "d", kind: "distance", from: "FL", to: "b0.C", valueMm: 9, sigma: 1 };
    expect(broken(push({ ...scaled, scale: "nobody" }))).toBe("bad-input d");
  });
});
