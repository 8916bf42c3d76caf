import { describe, expect, it } from "vitest";
import { alignRadar, type Echo } from "./front-radar";

const echo = (change: Partial<Echo> = {}): Echo => ({
  at: [1800, 0, 0],
  expected: [1800, 0, 0],
  turnedRad: 0,
  leanedRad: 0,
  ...change,
});
const STRAIGHT = { yaw: 0, pitch: 0 };

describe("the radar of a simulated vehicle", () => {
  it("answers how its bracket is turned, and takes a reflector that stands beside its place for that", () => {
    const seat = alignRadar([echo()], { yaw: 0.6, pitch: -0.4 }, "a");
    expect(seat.learnedYawDeg).toBeCloseTo(0.6, 0);
    expect(seat.learnedPitchDeg).toBeCloseTo(-0.4, 0);
    const aside = alignRadar([echo({ at: [1800, 60, 0] })], STRAIGHT, "a");
    const none = alignRadar([echo()], STRAIGHT, "a");
    const off = (Math.atan(60 / 1800) * 180) / Math.PI;
    expect(aside.learnedYawDeg! - none.learnedYawDeg!).toBeCloseTo(-off, 9);
    expect(aside.passed).toBe(true);
  });

  it("refuses no echo, one from elsewhere, a weak one, and a bracket bent too far; each says why", () => {
    const why = (r: ReturnType<typeof alignRadar>): string | null => (r.passed ? null : r.reason);
    expect(why(alignRadar([], STRAIGHT, "a"))).toMatch(/No echo/);
    expect(why(alignRadar([echo({ at: [1800, 0, 300] })], STRAIGHT, "a"))).toMatch(/not come from/);
    expect(why(alignRadar([echo({ turnedRad: 0.35 })], STRAIGHT, "a"))).toMatch(/weak/);
    expect(why(alignRadar([echo()], { yaw: 4, pitch: 0 }, "a"))).toMatch(/bracket/);
    expect(why(alignRadar([echo({ turnedRad: 0.1 })], STRAIGHT, "a"))).toBeNull();
  });
});
