import { describe, expect, it } from "vitest";
import { randomFrom, type Random } from "@/core/math/random";
import { baySchema, type Bay } from "./bay";
import { gapMm, type Convex, type Vec } from "./convex";
import { bestFit, placed, SLACK_MM, type Pose, type Zone } from "./fit";

const box = (x0: number, y0: number, x1: number, y1: number): Convex => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** A bay as chance has it: a room, or one with a corner cut out, with benches, pillars and a low beam. */
function anyBay(random: Random): Bay {
  const [w, d] = [6000 + random() * 5000, 4500 + random() * 3500];
  const cut = random() < 0.5;
  const [cx, cy] = [w * (0.6 + random() * 0.3), d * (0.6 + random() * 0.3)];
  const outline: Vec[] = cut
    ? [
        [0, 0],
        [w, 0],
        [w, cy],
        [cx, cy],
        [cx, d],
        [0, d],
      ]
    : [
        [0, 0],
        [w, 0],
        [w, d],
        [0, d],
      ];
  const obstacles = Array.from({ length: Math.floor(random() * 5) }, (_, i) => {
    const [x, y, a, r] = [random() * w, random() * d, random() * 6.3, 150 + random() * 500];
    const corners = [0, 1, 2, 3].map((k): Vec => [
      x + r * Math.cos(a + (k * Math.PI) / 2),
      y + r * Math.sin(a + (k * Math.PI) / 2),
    ]);
    return { name: `thing ${i}`, outline: corners, fromMm: random() < 0.2 ? 2200 : 0, toMm: 3000 };
  });
  return baySchema.parse({ id: "any", name: "Any", outline, obstacles });
}

/** A car and what is set out about it. */
const anyZones = (random: Random): Zone[] => {
  const [l, w] = [3600 + random() * 900, 1650 + random() * 250];
  const ahead = random() * 2200;
  const zone = (name: string, shape: Convex, toMm = 2000): Zone => ({
    name,
    shape,
    fromMm: 0,
    toMm,
  });
  return [
    zone("car", box(-900, -w / 2, l - 900, w / 2)),
    zone("board", box(l - 900, -900, l - 900 + ahead, 900)),
    ...(random() < 0.4 ? [zone("mats", box(0, -w / 2 - 400, 2000, w / 2 + 400), 20)] : []),
  ];
};

/** By places along every edge and inside: none may lie in a thing or outside. An arithmetic of its own. */
function clash(bay: Bay, zones: readonly Zone[], pose: Pose): string | null {
  const covers = (shape: readonly Vec[], [x, y]: Vec): boolean => {
    let turns = 0;
    shape.forEach(([ax, ay], i) => {
      const [bx, by] = shape[(i + 1) % shape.length]!;
      const angle = Math.atan2(by - y, bx - x) - Math.atan2(ay - y, ax - x);
      turns += Math.atan2(Math.sin(angle), Math.cos(angle));
    });
    return Math.abs(turns) > 3;
  };
  const filled = (shape: readonly Vec[]): Vec[] => {
    const places: Vec[] = [];
    const middle = [0, 1].map((k) => shape.reduce((s, c) => s + c[k]!, 0) / shape.length) as [
      number,
      number,
    ];
    shape.forEach((a, i) => {
      const b = shape[(i + 1) % shape.length]!;
      for (let t = 0; t < 1; t += 0.05)
        for (const s of [0.999, 0.6, 0.2]) {
          const [x, y] = [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
          places.push([middle[0] + (x - middle[0]) * s, middle[1] + (y - middle[1]) * s]);
        }
    });
    return places;
  };
  for (const z of zones) {
    const shape = placed(z.shape, pose);
    for (const p of filled(shape)) if (!covers(bay.outline, p)) return `${z.name} leaves the bay`;
    for (const o of bay.obstacles) {
      if (o.fromMm >= z.toMm || o.toMm <= z.fromMm) continue;
      if (filled(shape).some((p) => covers(o.outline, p))) return `${z.name} in ${o.name}`;
      if (filled(o.outline).some((p) => covers(shape, p))) return `${o.name} in ${z.name}`;
    }
  }
  return null;
}

/** The most room any pose of a grid has. */
function gridBest(bay: Bay, zones: readonly Zone[], stepMm: number, stepDeg: number): number {
  const walls = bay.outline.map((a, i): Convex => [a, bay.outline[(i + 1) % bay.outline.length]!]);
  const [w, d] = [0, 1].map((k) => Math.max(...bay.outline.map((c) => c[k]!))) as [number, number];
  let best = -Infinity;
  for (let a = 0; a < 360; a += stepDeg)
    for (let xMm = 0; xMm <= w; xMm += stepMm)
      poses: for (let yMm = 0; yMm <= d; yMm += stepMm) {
        const pose = { xMm, yMm, headingRad: (a * Math.PI) / 180 };
        let room = Infinity;
        for (const z of zones) {
          const shape = placed(z.shape, pose);
          for (const wall of walls) {
            room = Math.min(room, gapMm(shape, wall));
            if (room <= best || room <= 0) continue poses;
          }
          for (const o of bay.obstacles)
            if (o.fromMm < z.toMm && o.toMm > z.fromMm)
              room = Math.min(room, gapMm(shape, o.outline));
          if (room <= best || room <= 0) continue poses;
        }
        if (clash(bay, zones, pose) === null) best = room;
      }
  return best;
}

describe("where a vehicle fits", () => {
  it("is found wherever a grid finds a place, with no less room than the grid's best by more than the slack", () => {
    let fits = 0;
    for (let n = 0; n < 8; n++) {
      const random = randomFrom(n + 1);
      const [bay, zones] = [anyBay(random), anyZones(random)];
      const fit = bestFit(bay, zones);
      const grid = gridBest(bay, zones, 400, 15);
      if (grid > 0) fits++;
      expect(fit.marginMm, `bay ${n}`).toBeGreaterThan(grid - SLACK_MM - 1e-6);
      expect(fit.boundMm).toBeGreaterThanOrEqual(grid - 1e-6);
      if (fit.marginMm > 0) expect(clash(bay, zones, fit.pose), `bay ${n}`).toBeNull();
    }
    expect(fits).toBeGreaterThan(2);
  });
  it("has as much room in the mirrored bay", () => {
    for (let n = 0; n < 2; n++) {
      const random = randomFrom(100 + n);
      const [bay, zones] = [anyBay(random), anyZones(random)];
      const flip = <T extends readonly Vec[]>(shape: T): Vec[] =>
        shape.map(([x, y]): Vec => [x, -y]);
      const other = {
        ...bay,
        outline: flip(bay.outline),
        obstacles: bay.obstacles.map((o) => ({ ...o, outline: flip(o.outline) })),
      };
      const mirrored = bestFit(
        other as Bay,
        zones.map((z) => ({ ...z, shape: flip(z.shape) })),
      );
      expect(Math.abs(mirrored.marginMm - bestFit(bay, zones).marginMm)).toBeLessThan(
        SLACK_MM + 1e-6,
      );
    }
  });
  it("is by hand in a plain room, and names what hinders in one that is too small", () => {
    const bay = baySchema.parse({
      id: "b",
      name: "Bay",
      outline: [...box(0, 0, 8000, 5000)],
      obstacles: [{ name: "bench", outline: [...box(0, 4400, 8000, 5000)] }],
    });
    const car: Zone = { name: "car", shape: box(0, -900, 4000, 900), fromMm: 0, toMm: 1500 };
    const fit = bestFit(bay, [car]);
    // 4 400 mm between wall and bench, 1 800 of car: 1 300 on either side.
    expect(fit.marginMm).toBeGreaterThan(1300 - SLACK_MM);
    expect(fit.marginMm).toBeLessThanOrEqual(1300 + 1e-6);
    const mats: Zone = { name: "mats", shape: box(0, -2600, 4600, 2600), fromMm: 0, toMm: 20 };
    const tight = bestFit(bay, [car, mats]);
    expect(tight.marginMm).toBeLessThan(0);
    expect(tight.boundMm).toBeLessThan(0);
    expect(tight.nearest.zone).toBe("mats");
  });
});

describe("a bay as data", () => {
  it.each([
    [
      "walls that cross",
      {
        outline: [
          [0, 0],
          [5000, 4000],
          [5000, 0],
          [0, 4000],
        ],
      },
      /cross itself/,
    ],
    [
      "a thing that turns inward",
      {
        obstacles: [
          {
            name: "L",
            outline: [
              [0, 0],
              [900, 0],
              [200, 200],
              [0, 900],
            ],
          },
        ],
      },
      /turn inward/,
    ],
    [
      "a thing upside down",
      {
        obstacles: [
          {
            name: "lamp",
            outline: [
              [0, 0],
              [9, 0],
              [0, 9],
            ],
            fromMm: 3000,
            toMm: 2000,
          },
        ],
      },
      /below toMm/,
    ],
  ])("refuses %s by name", (_, change, words) => {
    const bay = { id: "b", name: "Bay", outline: [...box(0, 0, 8000, 5000)], ...change };
    const said = baySchema
      .safeParse(bay)
      .error?.issues.map((i) => i.message)
      .join();
    expect(said).toMatch(words);
  });
});
