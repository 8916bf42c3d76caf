import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BOARDS, INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { boardSchema, inForce, isOverdue, judgeZero, WIDENED, type CheckedInstrument } from ".";

const TODAY = "2026-11-24";
const tape: CheckedInstrument = { ...INSTRUMENTS[0]!, checkedOn: "2026-11-01", everyDays: 90 };
const stand = STANDS[0]!;
const true5 = {
  scale: 1000,
  rule: 1000 + stand.scaleOffsetMm,
  left: stand.beamHalfMm,
  right: stand.beamHalfMm,
  dot: 0,
};

describe("instruments", () => {
  it.each([
    ["2026-11-01", false],
    ["2026-08-26", false],
    ["2026-08-25", true],
    [null, true],
  ])("checked on %s: overdue %s", (checkedOn, overdue) => {
    expect(isOverdue({ checkedOn, everyDays: 90 }, TODAY)).toBe(overdue);
  });
  it("stay usable when overdue, believed less, and say so", () => {
    const late = inForce({ ...tape, checkedOn: "2026-01-01" }, TODAY);
    expect(late.sigmaMm).toBeCloseTo(tape.sigmaMm * WIDENED, 12);
    expect(late.sigmaMmPerM).toBeCloseTo(tape.sigmaMmPerM * WIDENED, 12);
    expect(late.name).toBe("Steel tape 3 (check overdue)");
    expect(inForce(tape, TODAY)).toEqual(INSTRUMENTS[0]);
  });
});

describe("the morning's zero check", () => {
  it("passes a stand that is as it was written down", () => {
    expect(judgeZero(stand, true5)).toMatchObject({ ok: true, words: "zero check passed" });
  });
  it.each([
    ["scale", { rule: true5.rule + 5 }, /height scale off by 5\.0 mm/],
    [
      "beam",
      { left: true5.left + 5, right: true5.right + 5 },
      /beam length, hook to hook off by 10\.0 mm/,
    ],
    [
      "centre",
      { left: true5.left + 4, right: true5.right - 4 },
      /board centre between the hooks off by 4\.0 mm/,
    ],
    ["laser", { dot: -7 }, /laser square to the beam off by 7\.0 mm/],
  ])("names a %s that is off, and nothing else", (_, change, words) => {
    const judged = judgeZero(stand, { ...true5, ...change });
    expect(judged.ok).toBe(false);
    expect(judged.words).toMatch(words);
    expect(judged.words).not.toContain(";");
  });
  it("is even: off to one side counts as much as off to the other", () => {
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), (d) => {
        const one = judgeZero(stand, {
          ...true5,
          dot: d,
          left: true5.left + d,
          right: true5.right - d,
        });
        const other = judgeZero(stand, {
          ...true5,
          dot: -d,
          left: true5.left - d,
          right: true5.right + d,
        });
        expect(one.ok).toBe(other.ok);
      }),
    );
  });
});

describe("boards", () => {
  it("of the demo are valid, and a label with small letters is refused", () => {
    for (const b of BOARDS) expect(boardSchema.safeParse(b).success).toBe(true);
    expect(boardSchema.safeParse({ ...BOARDS[0]!, code: "hq 14" }).success).toBe(false);
  });
});
