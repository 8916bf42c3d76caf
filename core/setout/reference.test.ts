import { describe, expect, it } from "vitest";
import { openBay, trueReading } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { lacksReference, nextAct, solveSetOut, targetOn, type SetOutEntry } from ".";

const plan = planOf(0, 0);
const book = {
  ...plan.target,
  placement: { ...plan.target.placement, alongMm: 2930, heightMm: 1030 },
  measuredTo: { along: "beam-back", height: "scale" },
} as const;
/** One that says how far its beam reaches back, and nothing of its laser; one that says neither. */
const { beamBackMm: _, laserUpMm: __, ...silent } = plan.stand;
const stand = { ...silent, beamBackMm: 70 };

describe("which point a figure means", () => {
  it("the back of the beam, the stand's scale, its laser: each is carried to the centre of the face", () => {
    const on = targetOn(book, stand);
    expect(on.placement).toMatchObject({ alongMm: 2860, heightMm: 1030 + stand.scaleOffsetMm });
    expect(on.measuredTo).toBeUndefined();
    // A booster under the mast changes what the scale shows, not what the book meant by it.
    const fitted = { id: "B-1", addsMm: 200 };
    const boosted = { ...stand, fitted, scaleOffsetMm: stand.scaleOffsetMm + 200 };
    expect(targetOn(book, boosted).placement.heightMm).toBe(on.placement.heightMm);
    const laser = { ...book, measuredTo: { height: "laser" as const } };
    const lit = { ...stand, laserUpMm: -120 };
    expect(targetOn(laser, lit).placement).toMatchObject({ alongMm: 2930, heightMm: 1150 });
    expect(targetOn(plan.target, stand)).toBe(plan.target);
  });

  it("a stand that does not say it of itself cannot carry such a target, and what to enter is said", () => {
    expect(lacksReference(book, stand)).toBeNull();
    expect(lacksReference(book, silent)).toMatch(/back of its beam.*Enter it under Kit/);
    expect(lacksReference({ ...book, measuredTo: { height: "laser" } }, stand)).toMatch(/laser/);
    expect(lacksReference(plan.target, silent)).toBeNull();
  });

  it("a board that stands where the book says reads so: the scale shows the book's own figure", () => {
    const at = { ...plan, stand, target: targetOn(book, stand) };
    const { target } = solveSetOut(at, []);
    const world = openBay("reference", at);
    const placed = {
      ...world,
      stand: { ...world.stand, mastMm: target.heightMm, feetMm: [0, 0, 0] },
    };
    const shown = trueReading(placed, "height-scale");
    expect(shown).toBeCloseTo(book.placement.heightMm, 6);
    const entries: SetOutEntry[] = [
      { kind: "reading", id: "r", slotId: "height-scale", shown, sigma: 1 },
    ];
    const { solution } = nextAct(solveSetOut(at, entries));
    expect(solution.scalars.height.value).toBeCloseTo(target.heightMm, 3);
  });
});
