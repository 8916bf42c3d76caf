import { describe, expect, it } from "vitest";
import { measure, openBay } from "@/devices/bench/world";
import { gaussian, randomFrom } from "@/core/math/random";
import { planOf } from "@/tests/fixtures";
import { setBoard } from "@/bench/hands";
import {
  boardKnowledge,
  chanceByTolerance,
  toleranceCase,
  nextAct,
  roadSetting,
  solveSetOut,
  type SetOutEntry,
} from ".";

const plan = planOf(0, 0);
const world = openBay("road", plan);
const { candidates } = nextAct(solveSetOut(plan, []));
const entries = candidates.map((c): SetOutEntry => ({
  kind: "reading",
  id: c.slot.id,
  slotId: c.slot.id,
  shown: measure(world, c.slot.id, 0),
  sigma: c.sigma,
}));
const s = solveSetOut(plan, entries);

describe("from the set-out to the road", () => {
  it("the computer believes the board where the sheet puts it, seen from the vehicle's own camera", () => {
    const { camera, board } = roadSetting(s.plan);
    expect(camera).toBe(plan.vehicle.camera);
    expect(board.aheadMm).toBeCloseTo(
      plan.vehicle.wheelbaseMm + plan.target.placement.alongMm - camera.xMm,
      6,
    );
    expect(board.heightMm).toBe(plan.target.placement.heightMm);
  });
  it("what is known is the aim and the height, with their uncertainties", () => {
    const known = boardKnowledge(s)!;
    expect(known.mean).toMatchObject({
      alongMm: s.aim!.alongMm,
      acrossMm: s.aim!.acrossMm,
      twistRad: s.aim!.twistRad,
    });
    expect(known.mean.heightMm).toBeCloseTo(
      s.scalars.height.value - plan.target.placement.heightMm,
      9,
    );
    expect(known.sigma.heightMm).toBeGreaterThan(0.3);
    expect(known.sigma.pitchRad).toBe(0);
  });
  it("the chance by tolerance is the share of draws from the same knowledge that fall inside", () => {
    const set = solveSetOut(plan, setBoard(plan, "road")!.entries);
    const known = toleranceCase(set)!;
    const curve = chanceByTolerance(known, [0.2, 0.35, 0.5, 1]);
    const random = randomFrom(5);
    // The lower factor of the covariance, written out.
    const [[a, b, c], [, d, e], [, , f]] = known.covariance as [
      [number, number, number],
      [number, number, number],
      [number, number, number],
    ];
    const l11 = Math.sqrt(a);
    const [l21, l31] = [b / l11, c / l11];
    const l22 = Math.sqrt(d - l21 * l21);
    const l32 = (e - l21 * l31) / l22;
    const l33 = Math.sqrt(Math.max(0, f - l31 * l31 - l32 * l32));
    const hits = curve.map(() => 0);
    const N = 60_000;
    for (let k = 0; k < N; k++) {
      const [z1, z2, z3] = [gaussian(random), gaussian(random), gaussian(random)];
      const off = [l11 * z1, l21 * z1 + l22 * z2, l31 * z1 + l32 * z2 + l33 * z3].map(
        (v, i) => Math.abs(known.mean[i]! + v) / known.halves[i]!,
      );
      const others = known.scalars.map(
        (q) => Math.abs(q.error + q.sigma * gaussian(random)) / q.half,
      );
      const worst = Math.max(...off, ...others);
      curve.forEach((at, i) => (hits[i]! += worst < at.factor ? 1 : 0));
    }
    curve.forEach((at, i) => expect(Math.abs(at.chance - hits[i]! / N)).toBeLessThan(0.01));
    expect(curve[0]!.chance).toBeLessThan(0.9);
    expect(curve.at(-1)!.chance).toBeGreaterThan(0.98);
  });
});
