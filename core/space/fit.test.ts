import { describe, expect, it } from "vitest";
import { randomFrom } from "@/core/math/random";
import { anyBay, anyZones, gridBest, rectangle, roomAt } from "@/tests/any-bay";
import { baySchema, type Bay } from "./bay";
import type { Vec } from "./convex";
import { bestFit, SLACK_MM, type Zone } from "./fit";

describe("where a vehicle fits", () => {
  it("is found wherever a grid finds a place, with no less room than the grid's best by more than the slack", () => {
    let fits = 0;
    for (let n = 0; n < 8; n++) {
      const random = randomFrom(n + 1);
      const [bay, zones] = [anyBay(random), anyZones(random)];
      const fit = bestFit(bay, zones);
      const { room } = gridBest(bay, zones, 100, 5);
      if (room > 0) fits++;
      expect(fit.marginMm, `bay ${n}`).toBeGreaterThan(room - SLACK_MM - 1e-6);
      expect(fit.boundMm).toBeGreaterThanOrEqual(room - 1e-6);
      if (fit.marginMm > 0)
        expect(roomAt(bay, zones, fit.pose), `bay ${n}`).toBeCloseTo(fit.marginMm, 3);
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
        lights: bay.lights.map((l) => ({ ...l, from: flip([l.to])[0], to: flip([l.from])[0] })),
        obstacles: bay.obstacles.map((o) => ({ ...o, outline: flip(o.outline) })),
      };
      const mirrored = bestFit(
        other as Bay,
        zones.map((z) => ({
          ...z,
          shape: flip(z.shape),
          ...(z.eye ? { eye: { ...z.eye, at: flip([z.eye.at])[0]! } } : {}),
        })),
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
      outline: [...rectangle(0, 0, 8000, 5000)],
      obstacles: [{ name: "bench", outline: [...rectangle(0, 4400, 8000, 5000)] }],
    });
    const car: Zone = { name: "car", shape: rectangle(0, -900, 4000, 900), fromMm: 0, toMm: 1500 };
    const fit = bestFit(bay, [car]);
    // 4 400 mm between wall and bench, 1 800 of car: 1 300 on either side.
    expect(fit.marginMm).toBeGreaterThan(1300 - SLACK_MM);
    expect(fit.marginMm).toBeLessThanOrEqual(1300 + 1e-6);
    const mats: Zone = {
      name: "mats",
      shape: rectangle(0, -2600, 4600, 2600),
      fromMm: 0,
      toMm: 20,
    };
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
    const bay = { id: "b", name: "Bay", outline: [...rectangle(0, 0, 8000, 5000)], ...change };
    const said = baySchema
      .safeParse(bay)
      .error?.issues.map((i) => i.message)
      .join();
    expect(said).toMatch(words);
  });
});
