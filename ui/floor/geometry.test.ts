import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { VEHICLES } from "@/demo/data/vehicles";
import { fitView, magnification, softPath, vehicleOutline } from "./geometry";

const extent = { minX: -1200, maxX: 6200, minY: -1600, maxY: 1600 };
const still = { u: 0, v: 0 };

describe("the floor drawing", () => {
  it("is to scale both ways, keeps the whole extent in the picture, and puts vehicle left up or left", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 2000 }),
        fc.integer({ min: 200, max: 2000 }),
        (width, height) => {
          const view = fitView(extent, width, height, 1, still);
          const [o, x, y] = [
            view.to({ x: 0, y: 0 }),
            view.to({ x: 1000, y: 0 }),
            view.to({ x: 0, y: 1000 }),
          ];
          expect(Math.hypot(x.u - o.u, x.v - o.v)).toBeCloseTo(1000 * view.pxPerMm, 6);
          expect(Math.hypot(y.u - o.u, y.v - o.v)).toBeCloseTo(1000 * view.pxPerMm, 6);
          expect(view.upright ? y.u < o.u : y.v < o.v).toBe(true);
          for (const cx of [extent.minX, extent.maxX])
            for (const cy of [extent.minY, extent.maxY]) {
              const p = view.to({ x: cx, y: cy });
              expect(p.u).toBeGreaterThan(-1e-6);
              expect(p.u).toBeLessThan(width + 1e-6);
              expect(p.v).toBeGreaterThan(-1e-6);
              expect(p.v).toBeLessThan(height + 1e-6);
            }
        },
      ),
    );
  });
  it("turns a shape the way its heading points on the floor", () => {
    for (const [width, height] of [
      [800, 400],
      [400, 800],
    ] as const) {
      const view = fitView(extent, width, height, 1, still);
      for (const heading of [0, 0.4, 2, -1.3]) {
        const [a, b] = [
          view.to({ x: 0, y: 0 }),
          view.to({ x: Math.cos(heading), y: Math.sin(heading) }),
        ];
        const drawn = (view.turn(heading) * Math.PI) / 180;
        expect(Math.cos(drawn)).toBeCloseTo((b.u - a.u) / view.pxPerMm, 9);
        expect(Math.sin(drawn)).toBeCloseTo((b.v - a.v) / view.pxPerMm, 9);
      }
    }
  });
  it("draws every vehicle inside its own length and width, left and right alike", () => {
    for (const v of VEHICLES) {
      const outline = vehicleOutline(v);
      const xs = outline.map((p) => p.x);
      expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(v.lengthMm, 6);
      expect(Math.max(...outline.map((p) => p.y))).toBeCloseTo(v.widthMm / 2, 6);
      expect(outline.reduce((s, p) => s + p.y, 0)).toBeCloseTo(0, 6);
      expect(softPath(outline.map((p) => ({ u: p.x, v: p.y })))).toMatch(/^M .* Z$/);
    }
  });
  it("magnifies errors by a round factor that keeps them in their room, and large ones not at all", () => {
    expect([1, 3, 7, 20, 60, 500].map((mm) => magnification(mm, 420))).toEqual([
      50, 50, 50, 20, 5, 1,
    ]);
  });
});
