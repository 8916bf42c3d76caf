import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Vec } from "./convex";
import { fourSides } from "./quick";

const tape = (a: Vec, b: Vec): number => Math.hypot(b[0] - a[0], b[1] - a[1]);

describe("a bay from its tapes", () => {
  it("is a room by hand, square or not", () => {
    expect(fourSides([8000, 5000, 8000, 5000], null).map((p) => p.map(Math.round))).toEqual([
      [0, 0],
      [8000, 0],
      [8000, 5000],
      [0, 5000],
    ]);
    const [, , C, D] = fourSides([4000, 3000, 4000, 3000], 5000);
    expect(C[0]).toBeCloseTo(4000, 6);
    expect(C[1]).toBeCloseTo(3000, 6);
    expect(D[0]).toBeCloseTo(0, 6);
  });
  it("comes back to any room that was taped, from its sides and the tape across", () => {
    const corner = (x: number, y: number) =>
      fc.tuple(
        fc.double({ min: x - 900, max: x + 900, noNaN: true }),
        fc.double({ min: y - 900, max: y + 900, noNaN: true }),
      );
    fc.assert(
      fc.property(
        fc.integer({ min: 4000, max: 9000 }),
        corner(8000, 5000),
        corner(0, 5000),
        (a, C, D) => {
          const B: Vec = [a, 0];
          const A: Vec = [0, 0];
          const found = fourSides([a, tape(B, C), tape(C, D), tape(D, A)], tape(A, C));
          [A, B, C, D].forEach((p, i) => expect(tape(found[i]!, p)).toBeLessThan(0.01));
        },
      ),
    );
  });
  it("says which tapes cannot be", () => {
    expect(() => fourSides([8000, 5000, 20_000, 5000], null)).toThrow(/first corner to the third/);
    expect(() => fourSides([8000, 5000, 8000, 5000], 14_000)).toThrow(/Walls 1 and 2/);
    expect(() => fourSides([8000, 5000, 1000, 5000], 9000)).toThrow(/Walls 3 and 4/);
  });
});
