import { describe, expect, it } from "vitest";
import { learnedTurn } from "@/core/camera";
import { degToRad, radToDeg } from "@/core/units";
import { targetPose } from "@/core/setout/plan";
import { datumFrame, datumLine, roadSetting } from "@/core/setout";
import { baseFor } from "@/core/setout/stand";
import { openBay, type BenchWorld } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { learnForwardCamera } from "./forward-camera";

/**
 * A bay whose board stands off its place by the given amounts (away, to vehicle left, turned, up).
 */
function placed(awayMm: number, leftMm: number, turnRad = 0, upMm = 0): BenchWorld {
  const plan = planOf(0, 0);
  const world = openBay("look", plan);
  const t = targetPose(plan.target, datumLine(datumFrame(plan), world.points));
  const pose = { xMm: t.xMm + awayMm, yMm: t.yMm + leftMm, headingRad: t.headingRad + turnRad };
  const joints = [0, 0, 0];
  const stand = {
    base: baseFor(plan.stand, pose, { joints }),
    joints,
    feetMm: [0, 0, 0],
    mastMm: 1245 + upMm,
  };
  return {
    ...world,
    stand,
    floor: { aheadRad: 0, leftRad: 0, twistMm: 0, stepMm: 0 },
    cameraRad: { yaw: 0, pitch: 0, roll: 0 },
  };
}

describe("the simulated vehicle", () => {
  it("passes with high quality when the board truly stands where the sheet says", () => {
    const r = learnForwardCamera(placed(0, 0), "1");
    expect(r).toMatchObject({ passed: true, reason: null });
    expect(r.qualityPercent).toBeGreaterThan(92);
    expect(Math.abs(r.learnedYawDeg!)).toBeLessThan(0.02);
  });
  it("takes its own camera for turned the other way when the board is off to the side: -atan(offset / distance)", () => {
    const off = learnForwardCamera(placed(0, 40), "1");
    const straight = learnForwardCamera(placed(0, 0), "1");
    expect(off.learnedYawDeg! - straight.learnedYawDeg!).toBeCloseTo(
      (-Math.atan(40 / (5470 - 1905)) * 180) / Math.PI,
      1,
    );
    expect(learnForwardCamera(placed(0, 110), "1").reason).toMatch(/to the side/);
  });
  it("learns what the core foretells from the board's error, in sign and size, apart from its own noise", () => {
    const world = placed(0, 0);
    const setting = roadSetting(world.plan);
    for (const [away, left, turn, up] of [
      [6, 12, 0.004, -8],
      [-9, -20, -0.008, 5],
      [0, 25, 0, 15],
    ] as const) {
      const off = learnForwardCamera(placed(away, left, turn, up), "1");
      const straight = learnForwardCamera(world, "1");
      const foretold = learnedTurn(setting, {
        alongMm: away,
        acrossMm: left,
        heightMm: up,
        twistRad: turn,
        pitchRad: 0,
        rollRad: 0,
      });
      for (const axis of ["Yaw", "Pitch", "Roll"] as const)
        expect(off[`learned${axis}Deg`]! - straight[`learned${axis}Deg`]!).toBeCloseTo(
          radToDeg(foretold[axis.toLowerCase() as "yaw"]),
          2,
        );
    }
  });
  it("refuses a board too far or too near, by its size in the picture", () => {
    expect(learnForwardCamera(placed(45, 0), "1").reason).toMatch(/too small/);
    expect(learnForwardCamera(placed(-45, 0), "1").reason).toMatch(/too large/);
  });
  it("thinks less of a twisted board, and takes a board too low for a camera aimed up", () => {
    expect(learnForwardCamera(placed(0, 0, degToRad(3)), "1").qualityPercent).toBeLessThan(
      learnForwardCamera(placed(0, 0), "1").qualityPercent - 5,
    );
    const low = learnForwardCamera(placed(0, 0, 0, -40), "1");
    expect(low.learnedPitchDeg).toBeCloseTo((-Math.atan(40 / (5470 - 1905)) * 180) / Math.PI, 1);
  });
});
