import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomFrom } from "@/core/math/random";
import { limitsFor, worstEffect, type BoardError, type PoseLimits, type Setting } from ".";

type Vec = readonly [number, number, number];
const add = (a: Vec, b: Vec, k = 1): Vec => [a[0] + k * b[0], a[1] + k * b[1], a[2] + k * b[2]];
const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const unit = (a: Vec): Vec => add([0, 0, 0], a, 1 / Math.hypot(...a));
const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** A turn about an axis whose length is the angle (Rodrigues). */
function turned(p: Vec, w: Vec): Vec {
  const angle = Math.hypot(...w);
  if (angle < 1e-15) return p;
  const k = unit(w);
  const along = add([0, 0, 0], k, dot(k, p) * (1 - Math.cos(angle)));
  return add(add(add([0, 0, 0], p, Math.cos(angle)), cross(k, p), Math.sin(angle)), along);
}

/** Directions from the camera to nine points of the board: middle, corners, edges. */
function sight({ camera, board }: Setting, e: BoardError): Vec[] {
  const half = 0.4 * board.widthMm;
  return [-1, 0, 1].flatMap((i) =>
    [-1, 0, 1].map((j): Vec => {
      const onBoard: Vec = [0, i * half, 0.5 * j * half];
      // Level, then lean, then twist, each about an axis of the vehicle.
      const stands = turned(turned(turned(onBoard, [e.rollRad, 0, 0]), [0, e.pitchRad, 0]), [
        0,
        0,
        e.twistRad,
      ]);
      const centre: Vec = [
        board.aheadMm + e.alongMm,
        board.leftMm + e.acrossMm,
        board.heightMm - camera.zMm + e.heightMm,
      ];
      return unit(add(centre, stands));
    }),
  );
}

/**
 * The small turn that carries what is seen onto what is believed: sum of (s x (b - s)) against the
 * inertia of the directions, repeated. Another solution than that of the heart: of unit vectors,
 * not of bearings.
 */
function fitted(seen: Vec[], believed: Vec[]): Vec[] {
  let now = seen;
  const turns: Vec[] = [];
  for (let round = 0; round < 6; round++) {
    const m = [0, 0, 0, 0, 0, 0, 0, 0, 0];
    let g: Vec = [0, 0, 0];
    now.forEach((s, i) => {
      g = add(g, cross(s, add(believed[i]!, s, -1)));
      for (let r = 0; r < 3; r++)
        for (let c = 0; c < 3; c++) m[3 * r + c]! += (r === c ? 1 : 0) - s[r]! * s[c]!;
    });
    const col = (k: number): Vec => [m[k]!, m[3 + k]!, m[6 + k]!];
    const det = dot(col(0), cross(col(1), col(2)));
    const w: Vec = [
      dot(g, cross(col(1), col(2))) / det,
      dot(col(0), cross(g, col(2))) / det,
      dot(col(0), cross(col(1), g)) / det,
    ];
    now = now.map((s) => turned(s, w));
    turns.push(w);
  }
  return turns;
}

/** Where a point of the flat road 60 m straight ahead is believed: aside at 60 m, and too far. */
function onRoad(setting: Setting, e: BoardError): { lane: number; range: number } {
  const right = { alongMm: 0, acrossMm: 0, heightMm: 0, twistRad: 0, pitchRad: 0, rollRad: 0 };
  const turns = fitted(sight(setting, e), sight(setting, right));
  const h = setting.camera.zMm;
  const ray = turns.reduce<Vec>((d, w) => turned(d, w), [60_000, 0, -h]);
  return { lane: (60_000 * ray[1]) / ray[0], range: (-h * ray[0]) / ray[2] - 60_000 };
}

const PARTS = ["alongMm", "acrossMm", "heightMm", "twistRad", "pitchRad", "rollRad"] as const;
const at = (limits: PoseLimits, where: (i: number) => number): BoardError =>
  Object.fromEntries(PARTS.map((p, i) => [p, limits[p] * where(i)])) as BoardError;

const anySetting = fc.record({
  camera: fc.record({
    xMm: fc.constant(1900),
    yMm: fc.constant(0),
    zMm: fc.integer({ min: 1100, max: 2400 }),
  }),
  board: fc.record({
    aheadMm: fc.integer({ min: 1500, max: 6000 }),
    leftMm: fc.integer({ min: -300, max: 300 }),
    heightMm: fc.integer({ min: 1000, max: 1700 }),
    widthMm: fc.integer({ min: 700, max: 1600 }),
  }),
});
const anyEffect = fc.record({
  laneMm: fc.integer({ min: 100, max: 900 }),
  rangeMm: fc.integer({ min: 2000, max: 15_000 }),
});

describe("limits from the road", () => {
  it("boards drawn inside them do what is allowed on the road, and no more (Monte Carlo)", () => {
    const setting: Setting = {
      camera: { xMm: 1900, yMm: 0, zMm: 1290 },
      board: { aheadMm: 3200, leftMm: 0, heightMm: 1240, widthMm: 1100 },
    };
    const effect = { laneMm: 300, rangeMm: 6000 };
    const limits = limitsFor(setting, effect);
    const random = randomFrom(60);
    const seen = { lane: 0, range: 0, within: 0 };
    const TIMES = 6000;
    for (let n = 0; n < TIMES; n++) {
      // A third of them in a corner, where the worst is; the rest anywhere.
      const corner = n % 3 === 0;
      const e = at(limits, () => {
        const u = 2 * random() - 1;
        return corner ? Math.sign(u) : u;
      });
      const { lane, range } = onRoad(setting, e);
      seen.lane = Math.max(seen.lane, Math.abs(lane));
      seen.range = Math.max(seen.range, Math.abs(range));
      if (Math.abs(lane) <= effect.laneMm * 1.02 && Math.abs(range) <= effect.rangeMm * 1.02)
        seen.within++;
    }
    expect(seen.within).toBe(TIMES);
    expect(seen.lane).toBeGreaterThan(0.97 * effect.laneMm);
    expect(seen.range).toBeGreaterThan(0.95 * effect.rangeMm);
  });

  it("are as wide as they can be: a part that is not at its widest goes no farther", () => {
    fc.assert(
      fc.property(anySetting, anyEffect, (setting, effect) => {
        const limits = limitsFor(setting, effect);
        const worst = worstEffect(setting, limits);
        expect(worst.laneMm).toBeLessThanOrEqual(effect.laneMm);
        expect(worst.rangeMm).toBeLessThanOrEqual(effect.rangeMm);
        const wider = worstEffect(setting, {
          ...limits,
          acrossMm: limits.acrossMm * 1.1,
          heightMm: limits.heightMm * 1.1,
        });
        const more = wider.laneMm > effect.laneMm || wider.rangeMm > effect.rangeMm;
        expect(more || (limits.acrossMm === 30 && limits.heightMm === 20)).toBe(true);
      }),
      {
        numRuns: 60,
        examples: [
          [
            // Near and far to the side: the corners bend each other's effect the most.
            {
              camera: { xMm: 1900, yMm: 0, zMm: 1113 },
              board: { aheadMm: 2234, leftMm: 292, heightMm: 1000, widthMm: 1450 },
            },
            { laneMm: 898, rangeMm: 2000 },
          ],
        ],
      },
    );
  });

  it("refuses an effect that is none", () => {
    const setting = fc.sample(anySetting, 1)[0]!;
    expect(() => limitsFor(setting, { laneMm: 0, rangeMm: 6000 })).toThrow(RangeError);
  });
});
