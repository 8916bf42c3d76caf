import { describe, expect, it } from "vitest";
import { measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { setBoard } from "@/tests/trials";
import {
  judgeSetOut,
  readingSigma,
  slopsOf,
  slotsFor,
  solveSetOut,
  splitHalves,
  type SetOutEntry,
  type SetOutPlan,
} from ".";

const plan = planOf(0, 0);
const judged = (of: SetOutPlan, entries: readonly SetOutEntry[]) => {
  const s = solveSetOut(of, entries);
  return { s, verdict: judgeSetOut(s) };
};

describe("how far a reading or a mark may be off", () => {
  const set = setBoard(plan, "slop/1")!;
  const { s, verdict } = judged(plan, set.entries);
  const slops = slopsOf(s, verdict);
  const { setChance } = plan.thresholds;

  it("is where the chance comes down to what “set” asks: readings, perturbed and solved anew", () => {
    const readings = slops.filter((x) => x.of === "reading" && x.most < 12);
    expect(readings.length).toBeGreaterThan(3);
    for (const { id, most, side } of readings) {
      // What shows too much by that is what it should show, and so much more.
      const put = (by: number): number => {
        const entries = set.entries.map((e) => {
          if (e.kind !== "reading" || e.id !== id) return e;
          const slot = s.slots.find((x) => x.id === e.slotId)!;
          return { ...e, shown: slot.toShown(slot.toModel(e.shown) - by) };
        });
        return judged(plan, entries).verdict.chance;
      };
      expect(Math.abs(put(side * most) - setChance), id).toBeLessThan(0.003);
      expect(put(side * most * 0.6), id).toBeGreaterThan(setChance);
      expect(put(side * most * 1.5), id).toBeLessThan(setChance);
    }
  });

  it("the same of a mark: a badge the book has beside its place", () => {
    const badge = slops.find((x) => x.id === "badgeF-y")!;
    expect(badge.most).toBeLessThan(20);
    const put = (by: number): number => {
      const { frontBadge } = plan.vehicle;
      const vehicle = { ...plan.vehicle, frontBadge: { ...frontBadge, yMm: frontBadge.yMm - by } };
      return judged({ ...plan, vehicle }, set.entries).verdict.chance;
    };
    expect(Math.abs(put(badge.side * badge.most) - setChance)).toBeLessThan(0.003);
    expect(put(badge.side * badge.most * 1.4)).toBeLessThan(setChance);
  });

  it("says where to be careful first, and nothing while nothing is known", () => {
    expect(slops.map((x) => x.most)).toEqual(slops.map((x) => x.most).sort((a, b) => a - b));
    const bare = judged(plan, []);
    expect(slopsOf(bare.s, bare.verdict)).toEqual([]);
  });
});

/** A board as it was rolled in, with the same readings every time. */
function readAll(seed: string, times: number, slip = 0): SetOutEntry[] {
  const world = openBay(seed, plan);
  const slots = slotsFor(plan).filter(
    (x) => /^(tape-|laser-badge$)/.test(x.id) || ["pitch", "roll"].includes(x.observes.in),
  );
  return Array.from({ length: times }, (_, n) =>
    slots.map((slot): SetOutEntry => {
      const instrument = plan.instruments.find((i) => i.kind === slot.instrument)!;
      const shown = measure(world, slot.id, n);
      return {
        kind: "reading",
        id: `${slot.id}/${n}`,
        slotId: slot.id,
        shown: shown + (slot.id === "tape-fl-l" ? slip : 0),
        sigma: readingSigma(instrument, slot, shown),
      };
    }),
  ).flat();
}

describe("two halves of the readings", () => {
  it("differ by as much as they say they may: one in twenty beyond 5 %, two thirds within one sigma", () => {
    const TIMES = 250;
    const found = Array.from({ length: TIMES }, (_, n) =>
      splitHalves(solveSetOut(plan, readAll(`halves/${n}`, 1)))!,
    );
    const share = (is: (h: (typeof found)[number]) => boolean): number =>
      found.filter(is).length / TIMES;
    expect(share((h) => h.p < 0.05)).toBeGreaterThan(0.02);
    expect(share((h) => h.p < 0.05)).toBeLessThan(0.085);
    expect(share((h) => h.p < 0.5)).toBeGreaterThan(0.42);
    expect(share((h) => h.p < 0.5)).toBeLessThan(0.58);
    expect(share((h) => Math.abs(h.turnRad) < h.sigmaRad)).toBeGreaterThan(0.61);
    expect(share((h) => Math.abs(h.turnRad) < h.sigmaRad)).toBeLessThan(0.75);
  });

  it("have no reading in common, and repeats stay together", () => {
    const { of } = splitHalves(solveSetOut(plan, readAll("halves/a", 2)))!;
    expect(of[0].filter((id) => of[1].includes(id))).toEqual([]);
    expect(new Set(of.flat()).size).toBe(of.flat().length);
  });

  it("a slip in one half shows; where one half alone would not fix the board there are none", () => {
    expect(splitHalves(solveSetOut(plan, readAll("halves/b", 1, 25)))!.p).toBeLessThan(1e-3);
    expect(splitHalves(solveSetOut(plan, readAll("halves/b", 1).slice(0, 3)))).toBeNull();
    expect(splitHalves(solveSetOut(plan, []))).toBeNull();
  });
});
