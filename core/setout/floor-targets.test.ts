import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { INSTRUMENTS } from "@/demo/data/kit";
import { MIRRORS } from "@/demo/data/mirror";
import { VEHICLES } from "@/demo/data/vehicles";
import { gaussian, randomFrom } from "@/core/math/random";
import type { Setup, Target } from "@/core/sheet";
import { vehiclePoints, type Vehicle } from "@/core/vehicle";
import { trailerAlone } from "@/core/vehicle/trailer";
import {
  drawn,
  layDown,
  matReading,
  seenFrom,
  shoved,
  type MatBody,
} from "@/devices/bench/mat-sim";
import { shapeOf } from "@/devices/bench/world";
import {
  DEFAULT_THRESHOLDS,
  HANDS,
  predictedReadings,
  proposeMoves,
  quantitiesOf,
  readingSigma,
  solveScene,
  type Scene,
  type SetOutEntry,
} from ".";
import { drawMoves, drawnBy } from "./draw";
import { carried, NOWHERE } from "./displace";
import { nominalTarget } from "./plan";
import { slotsFor } from "./slots";
import { moveWidening, TOUCHES } from "./touch";

/** Mats that lie across the vehicle's way, and floor marks; a setup of each. */
const TARN = VEHICLES.find((v) => v.id === "brannoch-tarn")!;
const across = (lies: "ahead" | "behind"): Target => ({
  id: lies,
  name: `mat ${lies}`,
  kind: "mat",
  lies,
  object: {
    code: `X-${lies}`,
    widthMm: 3000,
    lengthMm: 1000,
    aheadMm: lies === "ahead" ? 1000 : 0,
  },
  datum: "centreline",
  distanceFrom: lies === "ahead" ? "front-hub-line" : "rear-hub-line",
  placement: { alongMm: lies === "ahead" ? 2400 : -2600, acrossMm: 0, twistDeg: 0, heightMm: 0 },
  tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.3 },
});
const ENDS: Pick<Setup, "targets"> = { targets: [across("ahead"), across("behind")] };
/** A mat behind a trailer, in two pieces: nothing but the trailer's two hubs to measure from. */
const MOTTO = VEHICLES.find((v) => v.id === "ardvale-motto")!;
const behindTrailer = (id: string, acrossMm: number): Target => {
  const bare = across("behind");
  return {
    ...bare,
    id,
    frame: "trailer",
    datum: "rear-axle-normal",
    placement: { ...bare.placement, alongMm: -3900, acrossMm },
  };
};
const CASES: [string, Vehicle, Pick<Setup, "targets">][] = [
  ["mats ahead and behind", TARN, ENDS],
  [
    "a mat behind a trailer, in two pieces",
    trailerAlone(MOTTO),
    { targets: [behindTrailer("left piece", 700), behindTrailer("right piece", -700)] },
  ],
  // The tractor: its marks count from the third axle.
  ...MIRRORS.slice(1).map((s): [string, Vehicle, Pick<Setup, "targets">] => [
    `marks of ${s.title}`,
    VEHICLES.find((v) => v.id === s.appliesTo.vehicles[0])!,
    s.setups[0]!,
  ]),
];

const sceneOf = (vehicle: Vehicle, setup: Pick<Setup, "targets">): Scene =>
  setup.targets.map((target) => ({
    id: target.id,
    carrier: target.id,
    plan: {
      vehicle,
      target,
      setup,
      against: [],
      stand: HANDS,
      instruments: INSTRUMENTS,
      rearToe: null,
      thresholds: DEFAULT_THRESHOLDS,
    },
  })) as unknown as Scene;

type Point = { id: string; xMm: number; yMm: number; zMm: number };

/**
 * How far a thing on the floor is from its place, by the plain geometry of a tape and a square: along
 * a line, out from it, and turned against it.
 */
function truly(points: readonly Point[], t: Target, m: MatBody): number[] {
  const at = (id: string): [number, number] => {
    const p = points.find((x) => x.id === id)!;
    return [p.xMm, p.yMm];
  };
  const hub = (axle: string): [number, number] =>
    at(
      axle === "front"
        ? `hubF${t.object.side === "left" ? "L" : "R"}`
        : axle === "rear"
          ? `hubR${t.object.side === "left" ? "L" : "R"}`
          : `axle-${axle}-${t.object.side === "left" ? "L" : "R"}`,
    );
  const mean = (a: [number, number], b: [number, number]): [number, number] => [
    (a[0] + b[0]) / 2,
    (a[1] + b[1]) / 2,
  ];
  const [from, rear, front] = t.line
    ? [hub(t.line.from), hub(t.line.from), hub(t.line.through)]
    : [
        t.lies === "ahead" ? mean(at("hubFL"), at("hubFR")) : mean(at("hubRL"), at("hubRR")),
        at("badgeR"),
        at("badgeF"),
      ];
  // Square to an axle: a quarter turn clockwise from its right hub to its left one.
  const [l, r] = [at("hubRL"), at("hubRR")];
  const square = t.datum === "rear-axle-normal";
  const angle = square
    ? Math.atan2(l[1] - r[1], l[0] - r[0]) - Math.PI / 2
    : Math.atan2(front[1] - rear[1], front[0] - rear[0]);
  const turn = ([x, y]: readonly number[]): [number, number] => [
    x! * Math.cos(angle) + y! * Math.sin(angle),
    y! * Math.cos(angle) - x! * Math.sin(angle),
  ];
  const [along] = turn([m.at[0] - from[0], m.at[1] - from[1]]);
  const on = square ? mean(l, r) : rear;
  const [, beside] = turn([m.at[0] - on[0], m.at[1] - on[1]]);
  const twist = Math.atan2(m.way[1], m.way[0]) - angle;
  const off = [along - t.placement.alongMm, beside - t.placement.acrossMm, twist];
  return t.kind === "mark" ? off.slice(0, 2) : off;
}

describe.each(CASES)("%s", (_, vehicle, setup) => {
  const scene = sceneOf(vehicle, setup);
  const nominal = scene.map(({ plan }) => nominalTarget(plan));
  const slots = scene.map(({ plan }) => slotsFor(plan));
  const shapes = setup.targets.map(shapeOf);
  const book = vehiclePoints(vehicle);
  const reading = (points: readonly Point[], bodies: readonly MatBody[], i: number, id: string) =>
    matReading(id, bodies[i]!, shapes[i]!, (p) => points.find((x) => x.id === p)!, {
      body: bodies[1 - i]!,
      shape: shapes[1 - i]!,
    });

  it("shows every reading as the simulated floor has it, wherever it lies", () => {
    const off = fc.double({ min: -200, max: 200, noNaN: true });
    // A cross has no heading.
    const turn =
      setup.targets[0]!.kind === "mark"
        ? fc.constant(0)
        : fc.double({ min: -0.06, max: 0.06, noNaN: true });
    fc.assert(
      fc.property(off, off, turn, off, off, turn, (x1, y1, t1, x2, y2, t2) => {
        const poses = [
          [x1, y1, t1],
          [x2, y2, t2],
        ].map(([x, y, t], i) => ({
          xMm: nominal[i]!.xMm + x!,
          yMm: nominal[i]!.yMm + y!,
          headingRad: nominal[i]!.headingRad + t!,
        }));
        const bodies = poses.map((p) => layDown(p.xMm, p.yMm, p.headingRad));
        const begun = setup.targets.map((t, i): SetOutEntry => {
          const slotId = slots[i]![0]!.id;
          const shown = reading(book, bodies, i, slotId);
          return { kind: "reading", id: `b-${t.id}`, target: t.id, slotId, shown, sigma: 1 };
        });
        const { targets } = solveScene(scene, begun);
        for (const [i, t] of setup.targets.entries()) {
          const s = targets.get(t.id)!;
          const mate = Object.values(s.mates)[0];
          const exact = {
            ...s,
            adjustment: {
              ...s.adjustment!,
              nuisances: [],
              points: book.map((p) => ({ ...p, covariance: [] })),
              bodies: s.adjustment!.bodies.map((b) =>
                b.id === mate ? { ...b, ...poses[1 - i]! } : b,
              ),
            },
          };
          const shown = predictedReadings(exact, { ...s.board, pose: poses[i]! });
          expect(shown.size).toBe(slots[i]!.length);
          for (const [slotId, value] of shown)
            expect(value).toBeCloseTo(reading(book, bodies, i, slotId), 6);
        }
      }),
      { numRuns: 30 },
    );
  });

  it("comes to its place by the moves that are told, in the book and on the floor", () => {
    const near = fc.double({ min: -200, max: 200, noNaN: true });
    const turn = fc.double({ min: -0.05, max: 0.05, noNaN: true });
    fc.assert(
      fc.property(near, near, turn, fc.nat(1), (x, y, t, i) => {
        const target = setup.targets[i]!;
        const wanted = nominal[i]!;
        const now = {
          pose: {
            xMm: wanted.xMm + x,
            yMm: wanted.yMm + y,
            headingRad: wanted.headingRad + (target.kind === "mark" ? 0 : t),
          },
          heightMm: 0,
          pitchRad: 0,
          rollRad: 0,
        };
        const moves = drawMoves(target, now, wanted, { mm: 0.01, rad: 1e-6 });
        const end = moves.reduce(
          (pose, m) => (m.kind === "draw" ? carried({ ...NOWHERE, by: drawnBy(m) }, pose) : pose),
          now.pose,
        );
        const body = moves.reduce(
          (m, move) => (move.kind === "draw" ? drawn(m, shapes[i]!, move) : m),
          layDown(now.pose.xMm, now.pose.yMm, now.pose.headingRad),
        );
        expect(body.at[0]).toBeCloseTo(end.xMm, 6);
        expect(body.at[1]).toBeCloseTo(end.yMm, 6);
        expect(Math.atan2(body.way[1], body.way[0])).toBeCloseTo(end.headingRad, 9);
        // What the turning of the ends takes sideways is a hair.
        expect(Math.hypot(end.xMm - wanted.xMm, end.yMm - wanted.yMm)).toBeLessThan(12);
        expect(Math.abs(end.headingRad - wanted.headingRad)).toBeLessThan(2e-3);
      }),
    );
  });

  /** One set-out with noise as the instruments have it; whether each quantity's 95 % holds the truth. */
  function setOut(seed: number, act: "read" | "car" | "drawn"): boolean[] {
    const random = randomFrom(seed);
    // What the hubs of a vehicle have in common, and a tape that shows too much: as core takes them.
    const [caps, axle, scale] = [
      { F: 1.5 * gaussian(random), R: 1.5 * gaussian(random) },
      1.7 * gaussian(random),
      3e-4 * gaussian(random),
    ];
    const points = book.map((p) => {
      const [, end, side] = /^hub([FR])([LR])$/.exec(p.id) ?? [];
      const out = end ? caps[end as "F" | "R"] * (side === "L" ? 1 : -1) : 0;
      return {
        ...p,
        xMm: p.xMm + (end === "F" ? axle : 0) + p.sigmaMm * gaussian(random),
        yMm: p.yMm + out + p.sigmaMm * gaussian(random),
      };
    });
    let bodies = setup.targets.map((t, i) =>
      layDown(
        nominal[i]!.xMm + 30 * gaussian(random),
        nominal[i]!.yMm + 30 * gaussian(random),
        nominal[i]!.headingRad + (t.kind === "mark" ? 0 : 0.01 * gaussian(random)),
      ),
    );
    const entries: SetOutEntry[] = [];
    const read = (): void =>
      setup.targets.forEach((t, i) => {
        for (const slot of slots[i]!.filter((s) => s.mate === undefined || i === 1)) {
          const instrument = INSTRUMENTS.find((x) => x.kind === slot.instrument)!;
          const truth = reading(points, bodies, i, slot.id);
          const sigma = readingSigma(instrument, slot, truth);
          const taped = ["tape", "plumb"].includes(slot.instrument) ? 1 + scale : 1;
          const shown = truth * taped + sigma * gaussian(random);
          const id = `r${entries.length}`;
          entries.push({ kind: "reading", id, target: t.id, slotId: slot.id, shown, sigma });
        }
      });
    read();
    if (act === "drawn") {
      // Each is drawn by the first move that is told, which hands carry out as the model says.
      const { targets } = solveScene(scene, entries);
      setup.targets.forEach((t, i) => {
        const [move] = proposeMoves(targets.get(t.id)!, { mm: 0.5, rad: 1e-5 });
        if (!move || move.kind !== "draw") return;
        entries.push({ kind: "move", id: `m${i}`, target: t.id, move, rest: [] });
        const w = moveWidening(move);
        bodies[i] = shoved(
          drawn(bodies[i]!, shapes[i]!, move),
          w.planMm * gaussian(random),
          w.planMm * gaussian(random),
          t.kind === "mark" ? 0 : w.headingRad * gaussian(random),
        );
      });
      read();
    }
    if (act === "car") {
      const w = TOUCHES["moved-car"].widening;
      const [x, y] = [w.planMm * gaussian(random), w.planMm * gaussian(random)];
      const turn = w.headingRad * gaussian(random);
      bodies = bodies.map((m) => seenFrom(m, x, y, turn));
      entries.push({ kind: "touch", id: "car", touch: "moved-car" });
      read();
    }
    const { targets } = solveScene(scene, entries);
    return setup.targets.flatMap((t, i) => {
      const said = quantitiesOf(targets.get(t.id)!);
      return truly(points, t, bodies[i]!).map(
        (is, k) => Math.abs(said[k]!.error - is) < 1.96 * said[k]!.sigma,
      );
    });
  }

  it.each([
    ["read once", "read"],
    ["drawn as told", "drawn"],
    ["and the car was moved", "car"],
  ] as const)("is where it is said to be as often as is said: 2,000 set-outs, %s", (_, moved) => {
    const runs = Array.from({ length: 2000 }, (_, n) => setOut(77_000_000 + n, moved));
    for (const k of runs[0]!.keys()) {
      const share = runs.filter((r) => r[k]).length / runs.length;
      expect(share).toBeGreaterThan(0.93);
      expect(share).toBeLessThan(0.97);
    }
  });
});
