import { describe, expect, it } from "vitest";
import { measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
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
const entries = candidates.map((c): SetOutEntry => ({ kind: "reading", id: c.slot.id, slotId: c.slot.id, shown: measure(world, c.slot.id, 0), sigma: c.sigma })); // prettier-ignore
const s = solveSetOut(plan, entries);

describe("from the set-out to the road", () => {
  it("the computer believes the board where the sheet puts it, seen from the vehicle's own camera", () => {
    const { camera, board } = roadSetting(s);
    expect(camera).toBe(plan.vehicle.camera);
    expect(board.aheadMm).toBeCloseTo(plan.vehicle.wheelbaseMm + plan.sheet.placement.alongMm - camera.xMm, 6);
    expect(board.heightMm).toBe(plan.sheet.placement.heightMm);
  });
  it("what is known is the aim and the height, with their uncertainties", () => {
    const known = boardKnowledge(s)!;
    expect(known.mean).toMatchObject({ alongMm: s.aim!.alongMm, acrossMm: s.aim!.acrossMm, twistRad: s.aim!.twistRad });
    expect(known.mean.heightMm).toBeCloseTo(s.scalars.height.value - plan.sheet.placement.heightMm, 9);
    expect(known.sigma.heightMm).toBeGreaterThan(0.3);
    expect(known.sigma.pitchRad).toBe(0);
  });
  it("the chance grows with the tolerance, and at the sheet's own it is the verdict's", () => {
    const curve = chanceByTolerance(toleranceCase(s)!, [0.25, 0.5, 1, 2, 4, 8]);
    curve.slice(1).forEach((c, i) => expect(c.chance).toBeGreaterThanOrEqual(curve[i]!.chance - 1e-3));
    expect(curve.find((c) => c.factor === 1)!.chance).toBeCloseTo(nextAct(s).verdict.chance, 2);
    expect(curve.at(-1)!.chance).toBeGreaterThan(0.9);
  });
});
